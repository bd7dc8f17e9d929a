import { FIELDS } from '../evidence.ts';
import type { Role } from '../names.ts';
import { SAYS_WHOSE } from '../place_evidence.ts';
import { shapeOf } from '../shape.ts';
import type { ScreenSight, Sight } from '../sight.ts';
import type { Contents } from './contents.ts';
import { layoutOf } from './look_traits.ts';
import { range, type Say } from './say.ts';

/** What others around were taken for. */
export interface Company {
  readonly roleOf: (sight: Sight) => Role | null;
  /** How many of each role stand in an element. */
  readonly rolesIn: (sight: Sight) => ReadonlyMap<Role, number>;
}

/** What the elements of a screen were taken for, with what stands in each, counted once. */
export function companyOf({ all }: ScreenSight, roleOf: Company['roleOf']): Company {
  const counts = new Map<Sight, ReadonlyMap<Role, number>>();
  const none: ReadonlyMap<Role, number> = new Map();
  for (const sight of all.toReversed()) {
    if (!sight.children.length) continue;
    const count = new Map<Role, number>();
    for (const child of sight.children) {
      const role = roleOf(child);
      if (role) count.set(role, (count.get(role) ?? 0) + 1);
      for (const [inner, many] of counts.get(child) ?? none) count.set(inner, (count.get(inner) ?? 0) + many);
    }
    counts.set(sight, count);
  }
  return { roleOf, rolesIn: (sight) => counts.get(sight) ?? none };
}

/** Traits of what stands around an element and in it. */
export function companyTraits(s: Sight, company: Company, contents: Contents, say: Say): void {
  const { roleOf } = company;
  say(`at first ${roleOf(s) ?? 'none'}`);
  if (!s.parent) return;
  siblingTraits(s, s.parent, company, say);
  if (s.text && s.parent.text === s.text) say('all that its parent says');
  say(`in ${called(s.parent, company)}`);
  if (s.parent.parent) say(`in in ${called(s.parent.parent, company)}`);
  const under = new Set<Role>();
  for (let up: Sight | null = s.parent; up; up = up.parent) {
    const role = roleOf(up);
    if (role) under.add(role);
  }
  for (const role of under) say(`under ${role}`);
  if (s.children.length) innerTraits(s, company, contents, say);
}

const called = (s: Sight, { roleOf }: Company): string => roleOf(s) ?? layoutOf(s);

function siblingTraits(s: Sight, parent: Sight, { roleOf }: Company, say: Say): void {
  const siblings = parent.children;
  const shape = shapeOf(s.element);
  const alike = siblings.filter(
    (other) => shapeOf(other.element) === shape && layoutOf(other) === layoutOf(s),
  ).length;
  say(`alike ${range(alike, [2, 3, 5])}`);
  if (siblings.length === 1) return say('only child');
  if (s.index === 0) say('first');
  else if (s.index === siblings.length - 1) say('last');
  const was = roleOf(s);
  if (siblings.every((other) => roleOf(other) === was)) say('all of them the same');
  const [before, after] = [siblings[s.index - 1], siblings[s.index + 1]];
  if (before) say(`before it ${roleOf(before) ?? before.element.kind}`);
  if (after) say(`after it ${roleOf(after) ?? after.element.kind}`);
  if (after && after.children.length > 1 && after.children.filter(isShown).length === 1)
    say('before parts of which one shows');
  const area = ({ element: { box } }: Sight): number => box.width * box.height;
  if (siblings.every((other) => other === s || area(other) <= area(s) / 2)) say('by far the largest');
  for (const role of ['navigation', 'banner', 'contentinfo', 'main'] as const)
    if (siblings.some((other) => other !== s && roleOf(other) === role)) say(`beside ${role}`);
  if (siblings.length > 2 && alike === siblings.length) {
    const looks = siblings.map(lookOf);
    const same = looks.filter((look) => look === looks[s.index]).length;
    if (new Set(looks).size === 2 && (same === 1 || same === siblings.length - 1))
      say(same === 1 ? 'the one that looks otherwise' : 'beside one that looks otherwise');
  }
}

const isShown = (s: Sight): boolean => layoutOf(s) !== 'none';

/** What tells the chosen one of several from the others. */
function lookOf(s: Sight): string {
  const { base } = s.element.style;
  const own = `${s.color} ${s.fontWeight} ${base['background-color'] ?? ''} ${base['border-bottom-color'] ?? ''}`;
  return s.children.length === 1 ? `${own} ${lookOf(s.children[0])}` : own;
}

function innerTraits(s: Sight, { roleOf, rolesIn }: Company, { leaves }: Contents, say: Say): void {
  const roles = s.children.map((child) => roleOf(child) ?? child.element.kind);
  for (const role of new Set(roles)) say(`has ${role}`);
  if (new Set(roles).size === 1) say(`has only ${roles[0]}${roles.length >= 3 ? ', several' : ''}`);
  const inner = rolesIn(s);
  for (const [role, count] of inner) say(`within ${role} ${range(count, [2, 4])}`);
  const links = (inner.get('link') ?? 0) + (inner.get('tab') ?? 0);
  if (links >= 3) say(links >= leaves * 0.4 ? 'mostly links' : 'links among others');
  if (s.text && s.children.some(({ text }) => text === s.text)) say('a child holds all of it');
  if (SAYS_WHOSE.test(s.text) && s.text.length < 900) say('says whose it is');
  const fieldsOf = (of: Sight): number =>
    FIELDS.reduce((sum, role) => sum + (rolesIn(of).get(role!) ?? 0), FIELDS.includes(roleOf(of)) ? 1 : 0);
  const fields = fieldsOf(s);
  if (!fields) return;
  say(inner.has('button') ? 'fields and buttons' : 'fields');
  if (s.children.some((child) => fieldsOf(child) === fields)) say('a child holds all fields');
}

import type { RoleGuess } from './guess.ts';
import type { ChartKind, Role, RoleDetail } from './names.ts';
import { hasParent, type ScreenSight, type Sight } from './sight.ts';

export interface RoleContext {
  readonly screen: ScreenSight;
  readonly guesses: ReadonlyMap<string, RoleGuess>;
  /** What was found of another element so far. */
  readonly roleOf: (sight: Sight) => Role | null;
}

/** One kind of evidence: what it makes of an element, or null. */
export type RoleRule = (sight: Sight, context: RoleContext) => RoleGuess | null;

export const guess = (
  role: Role,
  confidence: number,
  reason: string,
  detail: Partial<RoleDetail> = {},
): RoleGuess => ({ role, confidence, reason, ...detail });

/** Whether one of these words is among the names and classes of an element. */
export const says = (sight: Sight, pattern: RegExp): boolean =>
  sight.words !== '' && pattern.test(sight.words);

export const isBox = ({ element }: Sight): boolean => element.kind === 'box' || element.kind === 'text';
export const letters = (text: string): number => (text.match(/\p{L}/gu) ?? []).length;
export const wordCount = (text: string): number => (text ? text.split(/\s+/).length : 0);

export const PRESSED: readonly (Role | null)[] = ['button', 'link', 'tab', 'menuitem'];
export const FIELDS: readonly (Role | null)[] = [
  'textbox',
  'checkbox',
  'radio',
  'switch',
  'combobox',
  'slider',
];
const CONTROLS = [...PRESSED, ...FIELDS];
export const isInControl = (sight: Sight, { roleOf }: RoleContext): boolean =>
  hasParent(sight, (parent) => CONTROLS.includes(roleOf(parent)));

export const isLinkLike = (s: Sight): boolean =>
  !s.look.hasFill && !s.look.hasBorder && !s.look.hasShadow && s.text !== '';

/** The kind of a chart by its name, else by its proportions. */
export function chartKindOf(s: Sight): ChartKind {
  if (/ (pie|donut|doughnut|round) /.test(s.words)) return 'pie';
  if (/ (bar|column|histogram) /.test(s.words)) return 'bar';
  if (/ (line|area|spark\w*|trend) /.test(s.words)) return 'line';
  const { width, height } = s.element.box;
  return Math.abs(width / Math.max(1, height) - 1) < 0.15 ? 'pie' : 'bar';
}

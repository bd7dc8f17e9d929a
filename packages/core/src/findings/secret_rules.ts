import { putEdit, putInteraction } from '../change/change.ts';
import type { Screen } from '../model/design.ts';
import { editKey } from '../model/edit_key.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { screenOf } from '../model/places.ts';
import { screensByKey, walkElements } from '../model/project.ts';
import type { Found, Rule } from './finding.ts';

/** What stands where a key was. */
const INSTEAD = 'YOUR_KEY';
/** A random run of letters and digits has at least so many bits a character (Shannon 1948), words and numbers have fewer. */
const LEAST_BITS = 3.2;

/** What says by itself that it is a key, and what is one where it is random enough. */
const SURE: readonly RegExp[] = [
  /-----BEGIN [A-Z ]*PRIVATE KEY-----/,
  // A JSON Web Token (RFC 7519).
  /\beyJ[\w-]{8,}\.eyJ[\w-]{8,}\.[\w-]{8,}/,
];
const NAMED: readonly RegExp[] = [
  /\b(?:api[-_ ]?key|access[-_ ]?(?:key|token)|auth[-_ ]?token|client[-_ ]?secret|secret[-_ ]?key|token|secret|bearer)\b["']?\s*[=: ]\s*["']?(?<key>[\w./+-]{16,})/i,
  /\b(?<key>[a-z]{2,6}_(?:live|test|prod)_[A-Za-z0-9]{12,})\b/,
  /\b(?<key>(?=[A-Z0-9]*\d)(?=\d*[A-Z])[A-Z0-9]{20})\b/,
];

/** Bits a character that a text holds at least, by how often each of its characters stands in it. */
function bitsOf(text: string): number {
  const counts = new Map<string, number>();
  for (const one of text) counts.set(one, (counts.get(one) ?? 0) + 1);
  return [...counts.values()].reduce((sum, n) => sum - (n / text.length) * Math.log2(n / text.length), 0);
}

/** The part of a text that looks like a key or a token; null where nothing does. */
export function keyIn(text: string): string | null {
  if (text.length < 16) return null;
  for (const pattern of SURE) {
    const [found] = pattern.exec(text) ?? [];
    if (found) return found;
  }
  for (const pattern of NAMED) {
    const key = pattern.exec(text)?.groups?.key;
    if (key && /\d/.test(key) && /[a-z]/i.test(key) && bitsOf(key) >= LEAST_BITS) return key;
  }
  return null;
}

/** A key, so that somebody knows which one is meant and nobody can take it. */
const shortened = (key: string): string => `${key.slice(0, 4)}…${key.slice(-2)}`;

const messageOf = (where: string, key: string): string =>
  `${where} holds what looks like a key (${shortened(key)}). All that is delivered can be read by everybody: keep it in the environment, and let it be given anew.`;

/** Attributes that are delivered as they are written. */
const ATTRIBUTES = ['value', 'placeholder', 'href', 'title', 'aria-label', 'alt', 'content'] as const;

const known = new WeakMap<Screen, readonly Found[]>();

/** What texts and attributes of a screen hold; worked out once per screen value, since findings are after every step. */
function secretsOn(screen: Screen): readonly Found[] {
  let found = known.get(screen);
  if (!found) known.set(screen, (found = findSecrets(screen)));
  return found;
}

function findSecrets(screen: Screen): Found[] {
  const found: Found[] = [];
  walkElements(screen.root, (element) => {
    const at = { screen: screen.key, element: element.key };
    const inText = element.text === undefined ? null : keyIn(element.text);
    if (inText)
      found.push({
        ...at,
        about: 'text',
        message: messageOf('A text', inText),
        fix: {
          label: `Write ${INSTEAD} instead`,
          change: putEdit(editKey(element.key, 'text'), element.text!.replaceAll(inText, INSTEAD)),
        },
      });
    for (const name of ATTRIBUTES) {
      const key = keyIn(element.attributes?.[name] ?? '');
      if (key) found.push({ ...at, about: name, message: messageOf(`Its ${name}`, key) });
    }
    return true;
  });
  return found;
}

export const secretRules: readonly Rule[] = [
  {
    code: 'secret',
    level: 'error',
    station: 'map',
    title: 'Keys in what is delivered',
    find: ({ project, graph }) => {
      const screens = screensByKey(project.design);
      const found = graph.screens.flatMap((key) => secretsOn(screens.get(key)!));
      for (const [key, interaction] of Object.entries(project.app.interactions)) {
        const { target } = interaction;
        const secret = target.kind === 'external' ? keyIn(target.href) : null;
        if (target.kind !== 'external' || !secret) continue;
        const element = elementOfInteraction(key);
        found.push({
          screen: screenOf(project.design, element),
          element,
          about: 'link',
          message: messageOf('The address that it leads to', secret),
          fix: {
            label: `Write ${INSTEAD} instead`,
            change: putInteraction(key, {
              ...interaction,
              target: { ...target, href: target.href.replaceAll(secret, INSTEAD) },
            }),
          },
        });
      }
      return found;
    },
  },
];

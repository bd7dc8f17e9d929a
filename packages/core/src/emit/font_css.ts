import type { FontFace } from '../model/design.ts';
import type { EmittedScreen } from './markup.ts';

/** The faces whose family some rule of these screens names. */
export function facesUsedIn(screens: readonly EmittedScreen[], faces: readonly FontFace[]): FontFace[] {
  if (!faces.length) return [];
  const named = new Set<string>();
  for (const { rules } of screens)
    for (const rule of rules)
      for (const css of [rule.base, ...Object.values(rule.at), ...Object.values(rule.states)])
        for (const family of css['font-family']?.split(',') ?? []) named.add(plain(family));
  return faces.filter((face) => named.has(plain(face.family)));
}

const plain = (family: string): string => family.trim().replace(/["']/g, '').toLowerCase();

/** The rules that define faces, as Prettier gives them. */
export function fontCss(faces: readonly FontFace[], urlOf: (hash: string) => string): string {
  return faces
    .map((face) => {
      const lines = [
        `font-family: '${face.family.replace(/['\\<>{};]/g, '')}';`,
        `font-style: ${safe(face.style)};`,
        `font-weight: ${safe(face.weight)};`,
        ...(face.stretch ? [`font-stretch: ${safe(face.stretch)};`] : []),
        `font-display: swap;`,
        `src: url('${urlOf(face.asset)}');`,
        ...(face.unicodeRange ? unicodeRange(safe(face.unicodeRange)) : []),
      ];
      return `@font-face {\n${lines.map((line) => `  ${line}\n`).join('')}}\n`;
    })
    .join('\n');
}

const safe = (value: string): string => value.replace(/[^\w\s.,%+?-]/g, '');

/** Prettier breaks a list of ranges into a line each. */
function unicodeRange(value: string): string[] {
  const ranges = value.split(/\s*,\s*/).map((range) => range.toUpperCase());
  if (ranges.length === 1) return [`unicode-range: ${ranges[0]};`];
  return [`unicode-range:\n${ranges.map((range) => `    ${range}`).join(',\n')};`];
}

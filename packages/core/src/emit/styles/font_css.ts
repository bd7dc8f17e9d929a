import type { FontFace } from '../../model/design.ts';
import type { EmittedScreen } from '../form/markup.ts';
import { cssText } from '../quoting.ts';

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
        `font-family: ${/^[A-Za-z][\w-]*$/.test(face.family) ? face.family : cssText(face.family)};`,
        `font-style: ${safe(face.style)};`,
        `font-weight: ${safe(face.weight)};`,
        ...(face.stretch ? [`font-stretch: ${safe(face.stretch)};`] : []),
        `font-display: swap;`,
        `src: url(${cssText(urlOf(face.asset))});`,
        ...(isSplit(face, faces) && face.unicodeRange ? [`unicode-range: ${safe(face.unicodeRange)};`] : []),
      ];
      return `@font-face {\n${lines.map((line) => `  ${line}\n`).join('')}}\n`;
    })
    .join('\n');
}

/** Only where several files make up one face does it matter which letters each of them has. */
const isSplit = (face: FontFace, faces: readonly FontFace[]): boolean =>
  faces.filter(
    (other) => other.family === face.family && other.weight === face.weight && other.style === face.style,
  ).length > 1;

const safe = (value: string): string => value.replace(/[^\w\s.,%+?-]/g, '');

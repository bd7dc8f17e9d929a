import type { Overlay } from '../../model/app.ts';
import { quote } from '../quoting.ts';

export interface OverlayEntry {
  /** Its name in code: `confirmReturn`. */
  readonly name: string;
  /** Name of its component and folder: `ConfirmReturn`. */
  readonly component: string;
  readonly label: string;
  readonly overlay: Overlay;
  /** Routes that it opens over; any where there are none. */
  readonly over: readonly string[];
}

/** @param importOf the import of an overlay's component, as a line */
export function overlaysTs(
  entries: readonly OverlayEntry[],
  importOf: (component: string) => string,
): string {
  const imports = entries.map(({ component }) => importOf(component)).sort();
  const definitions = entries.map(({ name, component, label, overlay, over }) => {
    const { kind, side, modal, escape, outside, url, ms } = overlay;
    return [
      `  ${name}: {`,
      `    Content: ${component},`,
      `    label: ${quote(label)},`,
      `    kind: ${quote(kind)},`,
      ...(side ? [`    side: ${quote(side)},`] : []),
      `    modal: ${modal},`,
      `    closesBy: { escape: ${escape}, outside: ${outside} },`,
      ...(url ? ['    hasAddress: true,'] : []),
      ...(ms ? [`    ms: ${ms},`] : []),
      ...(over.length ? [`    over: [${over.map(quote).join(', ')}],`] : []),
      '  },',
    ].join('\n');
  });
  return `${imports.join('\n')}
import type { OverlayDefinition } from './definition';

/** What can open over a screen, by name. */
export const overlays: Record<string, OverlayDefinition> = {
${definitions.join('\n')}
};
`;
}

import type { Overlay } from '../../model/app.ts';
import { named, onLines, script, type Script } from '../script.ts';

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

/** @param importOf the import of an overlay's component */
export function overlaysTs(
  entries: readonly OverlayEntry[],
  importOf: (component: string) => Script,
): string {
  const imports = entries
    .map(({ component }) => component)
    .sort()
    .map(importOf);
  const definitions = entries.map(({ name, component, label, overlay, over }) => {
    const { kind, side, modal, escape, outside, url, ms } = overlay;
    return onLines([
      script`  ${named(name)}: {`,
      script`    Content: ${named(component)},`,
      script`    label: ${label},`,
      script`    kind: ${kind},`,
      ...(side ? [script`    side: ${side},`] : []),
      script`    modal: ${modal},`,
      script`    closesBy: { escape: ${escape}, outside: ${outside} },`,
      ...(url ? [script`    hasAddress: true,`] : []),
      ...(ms ? [script`    ms: ${ms},`] : []),
      ...(over.length ? [script`    over: [${over}],`] : []),
      script`  },`,
    ]);
  });
  return script`${onLines(imports)}
import type { OverlayDefinition } from './definition';

/** What can open over a screen, by name. */
export const overlays: Record<string, OverlayDefinition> = {
${onLines(definitions)}
};
`.text;
}

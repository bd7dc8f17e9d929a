import type { Screen } from '../../model/design.ts';

/**
 * Pages of which one holds what lies beneath everything together with it: what is said of the canvas of one is said of that of
 * all, so that what is around them is the same.
 */
export function withSameCanvas(screens: readonly Screen[]): readonly Screen[] {
  const isolated = ({ title, root }: Screen): boolean =>
    title !== undefined && root.style.base.isolation === 'isolate';
  if (!screens.some(isolated)) return screens;
  return screens.map((screen) => {
    const { root } = screen;
    if (screen.title === undefined || isolated(screen)) return screen;
    const base = { ...root.style.base, isolation: 'isolate' };
    return { ...screen, root: { ...root, style: { ...root.style, base } } };
  });
}

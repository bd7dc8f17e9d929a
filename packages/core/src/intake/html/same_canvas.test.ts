import type { Screen } from '../../model/design.ts';
import { screenWith } from '../../testing/build.ts';
import { withSameCanvas } from './same_canvas.ts';

test('what is said of the canvas of one page is said of all, and of no drawing', () => {
  const page = (key: string, isolation?: string): Screen => {
    const drawn = screenWith(key, 'Go');
    const base = { ...drawn.root.style.base, ...(isolation ? { isolation } : {}) };
    return { ...drawn, title: key, root: { ...drawn.root, style: { ...drawn.root.style, base } } };
  };
  const canvasOf = (screens: readonly Screen[]) =>
    withSameCanvas(screens).map(({ root }) => root.style.base.isolation);
  expect(canvasOf([page('a'), page('b', 'isolate'), screenWith('c', 'Go')])).toEqual([
    'isolate',
    'isolate',
    undefined,
  ]);
  const none = [page('a'), screenWith('c', 'Go')];
  expect(withSameCanvas(none)).toBe(none);
});

import { LOOKS, type Look, type RenderedElement, type Rendering } from '../compare/rendering.ts';

type Given = Partial<Omit<RenderedElement, 'styles' | 'children' | 'box'>> & {
  /** x, y, width, height. */
  readonly box?: readonly [number, number, number, number];
  readonly look?: Partial<Record<Look, string>>;
};

const USUAL: Partial<Record<Look, string>> = {
  color: 'rgb(20, 30, 40)',
  'font-size': '16px',
  'font-weight': '400',
  'line-height': 'normal',
  'background-color': 'rgba(0, 0, 0, 0)',
  'background-image': 'none',
  'box-shadow': 'none',
  display: 'block',
  visibility: 'visible',
  'overflow-x': 'visible',
  position: 'static',
};

/** An element as a browser would show it; paths are given when the tree is put together by `renderingOf`. */
export function rendered(
  tag: string,
  { box = [0, 0, 100, 20], look = {}, ...given }: Given = {},
  ...children: RenderedElement[]
): RenderedElement {
  const all = { ...USUAL, ...look };
  const isSaying = !!given.text;
  return {
    tag,
    classes: '',
    id: '',
    label: '',
    key: null,
    path: '',
    text: '',
    styles: LOOKS.map((name) => all[name] ?? ''),
    lines: isSaying ? 1 : 0,
    font: isSaying ? 'Archivo' : null,
    behind: isSaying ? 'rgb(255, 255, 255)' : null,
    picture: tag === 'img' ? 'shown' : null,
    isIcon: tag === 'svg',
    isPressable: tag === 'a' || tag === 'button',
    cover: null,
    cut: null,
    ...given,
    box: { x: box[0], y: box[1], width: box[2], height: box[3] },
    children,
  };
}

/** A page of elements, in a window of 1280 × 800. */
export function renderingOf(...children: RenderedElement[]): Rendering {
  const body = rendered('body', { box: [0, 0, 1280, 800] }, ...children);
  return {
    width: 1280,
    height: 800,
    pageWidth: 1280,
    root: placed(
      rendered('html', { box: [0, 0, 1280, 800] }, rendered('head', { box: [0, 0, 0, 0] }), body),
      '',
    ),
    problems: [],
  };
}

const placed = (element: RenderedElement, path: string): RenderedElement => ({
  ...element,
  path,
  children: element.children.map((child, i) => placed(child, path ? `${path}/${i}` : String(i))),
});

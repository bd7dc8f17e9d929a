import type { Element, Screen } from '../model/design.ts';
import { walkElements } from '../model/project.ts';
import { onceFor } from '../json/once_for.ts';

/** What lies see-through over nearly all of a screen, in the order of drawing. */
export const findScrims = onceFor((screen: Screen): readonly Element[] => look(screen));

/** Whether something see-through lies over nearly all of a screen. */
export const hasScrim = (screen: Screen): boolean => findScrims(screen).length > 0;

function look(screen: Screen): Element[] {
  const found: Element[] = [];
  const area = screen.width * Math.min(screen.height, 900);
  walkElements(screen.root, (element) => {
    if (element.hidden) return false;
    const { box, style } = element;
    if (element !== screen.root && box.width * box.height >= area * 0.7 && isSeeThrough(style.base))
      found.push(element);
    return true;
  });
  return found;
}

function isSeeThrough(css: Element['style']['base']): boolean {
  const color = css['background-color'];
  if (!color || color === 'transparent') return false;
  const alpha = /rgba?\([^)]*?[,/]\s*([\d.]+)(%?)\s*\)$/.exec(
    color.replace(/rgb\(\s*[\d.]+\s*,\s*[\d.]+\s*,\s*[\d.]+\s*\)/, ''),
  );
  const hex =
    /^#[0-9a-f]{6}([0-9a-f]{2})$/i.exec(color)?.[1] ?? /^#[0-9a-f]{3}([0-9a-f])$/i.exec(color)?.[1].repeat(2);
  const share = alpha
    ? Number(alpha[1]) / (alpha[2] ? 100 : 1)
    : hex
      ? parseInt(hex, 16) / 255
      : color.includes('color-mix')
        ? 0.5
        : 1;
  const opacity = share * Number(css.opacity ?? 1);
  return opacity > 0.05 && opacity < 0.95;
}

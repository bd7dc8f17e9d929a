/** The one colour behind an element's text; what is partly transparent is laid over what stands behind it. */
export function groundBehind(element: Element): string | null {
  const window = element.ownerDocument.defaultView!;
  let over: Rgba = [0, 0, 0, 0];
  for (let at: Element | null = element; at; at = at.parentElement) {
    const style = window.getComputedStyle(at);
    if (style.backgroundImage !== 'none') return null;
    over = laidOver(over, rgba(style.backgroundColor));
    if (over[3] >= 0.999) return `rgb(${over.slice(0, 3).map(Math.round).join(', ')})`;
    if (style.position === 'absolute' || style.position === 'fixed') {
      // What it lies over need not be what it stands in.
      if (over[3] > 0) return null;
    }
  }
  const white = laidOver(over, [255, 255, 255, 1]);
  return `rgb(${white.slice(0, 3).map(Math.round).join(', ')})`;
}

type Rgba = readonly [number, number, number, number];

function rgba(text: string): Rgba {
  const [r = 0, g = 0, b = 0, a = 1] = (text.match(/[\d.]+/g) ?? []).map(Number);
  return text.startsWith('rgb') ? [r, g, b, a] : [0, 0, 0, 0];
}

/** What is seen where `top` lies over `under`. */
function laidOver(top: Rgba, under: Rgba): Rgba {
  const alpha = top[3] + under[3] * (1 - top[3]);
  if (!alpha) return [0, 0, 0, 0];
  const mixed = (i: 0 | 1 | 2): number => (top[i] * top[3] + under[i] * under[3] * (1 - top[3])) / alpha;
  return [mixed(0), mixed(1), mixed(2), alpha];
}

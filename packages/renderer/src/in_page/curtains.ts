/** What lies over a page while it loads, and would be taken away by a script of the page. */

/** What somebody can press or fill in. */
const CONTROLS = 'a[href], button, input, select, textarea, summary, [role="button"], [tabindex]';
/** It stands at most so deep in the page, and says at most so much. */
const DEEPEST = 3;
const MOST_TEXT = 60;
/** What is less opaque lets the page be seen. */
const OPAQUE = 0.9;
/** Where it is looked whether it is on top, as parts of the window. */
const POINTS = [0.1, 0.5, 0.9];

/**
 * Finds what covers the whole window before a page that has controls, and has none itself: with scripts it would go once
 * the page is there.
 */
function curtainsOf(document: Document): Element[] {
  const found: Element[] = [];
  const look = (parent: Element, depth: number): void => {
    for (const child of parent.children)
      if (isCurtain(child)) found.push(child);
      else if (depth < DEEPEST) look(child, depth + 1);
  };
  look(document.body, 1);
  const uncovered = [...document.querySelectorAll(CONTROLS)].some(
    (control) => !found.some((curtain) => curtain.contains(control)),
  );
  return uncovered ? found : [];
}

function isCurtain(element: Element): boolean {
  const view = element.ownerDocument.defaultView!;
  const { innerWidth: width, innerHeight: height } = view;
  const style = view.getComputedStyle(element);
  if (style.position !== 'fixed' && style.position !== 'absolute') return false;
  if (!isOpaque(style)) return false;
  const box = element.getBoundingClientRect();
  if (box.left > 0 || box.top > 0 || box.right < width || box.bottom < height) return false;
  if (element.querySelector(CONTROLS) || element.matches(CONTROLS)) return false;
  if ((element.textContent ?? '').replace(/\s+/g, ' ').trim().length > MOST_TEXT) return false;
  return POINTS.every((x) =>
    POINTS.every((y) => element.contains(element.ownerDocument.elementFromPoint(x * width, y * height))),
  );
}

function isOpaque({ visibility, opacity, backgroundColor }: CSSStyleDeclaration): boolean {
  const alpha = /^rgba\(.*,\s*([\d.]+)\)$/.exec(backgroundColor)?.[1] ?? '1';
  return visibility === 'visible' && Number(opacity) * Number(alpha) >= OPAQUE;
}

/** Takes away what covers a page, for what is behind it. */
export function drawCurtains(document: Document): readonly Element[] {
  const curtains = curtainsOf(document);
  for (const curtain of curtains) (curtain as HTMLElement).style.setProperty('display', 'none', 'important');
  return curtains;
}

import { atFirst } from '../../disclosures/at_first.ts';
import { findDisclosures } from '../../disclosures/find.ts';
import { takeDisclosures } from '../../disclosures/take.ts';
import { all, putLayer } from '../../change/change.ts';
import { bottom, right } from '../../layout/placed.ts';
import { labelOf, pressablesOf } from '../../links/pressable.ts';
import type { Box, Element, Screen } from '../../model/design.ts';
import { type Project, screenName, walkElements } from '../../model/project.ts';
import type { Examined, Found, Rule } from '../finding.ts';
import { hasScrim } from '../../overlays/scrim.ts';

/**
 * Runs a rule on every screen in use, as it is in the app. What it finds is kept with the screen: a decision about one
 * of its layers makes it another value, and its name is the only other thing that messages hold.
 */
const onScreens = (find: (screen: Screen, project: Project) => readonly Found[]) => {
  const kept = new WeakMap<Screen, { name: string; seen: Screen; found: readonly Found[] }>();
  return ({ project, graph }: Examined): Found[] => {
    const used = new Set(graph.screens);
    return project.design.screens.flatMap((screen) => {
      if (!used.has(screen.key)) return [];
      const name = screenName(project, screen.key);
      // What is closed at first lies over nothing.
      const seen = atFirst(screen, project.app);
      let known = kept.get(screen);
      if (known?.name !== name || known.seen !== seen)
        kept.set(screen, (known = { name, seen, found: find(seen, project) }));
      return known.found;
    });
  };
};

const leaveOut = (project: Project, element: Element) => ({
  label: 'Leave it out',
  change: putLayer(element.key, { ...project.app.layers[element.key], show: false }),
});

/** Lets hidden elements be opened by what most likely opens them; null where nothing would open any of them. */
function openedBy(app: Project['app'], screen: Screen, hidden: readonly Element[]): Found['fix'] | null {
  const keys = new Set(hidden.map(({ key }) => key));
  const proposals = findDisclosures(screen).filter(({ parts }) => parts.some(([key]) => keys.has(key)));
  const count = proposals.flatMap(({ parts }) => parts).filter(([key]) => keys.has(key)).length;
  return proposals.length
    ? {
        label: hidden.length === 1 ? 'Let it be opened' : `Let ${count} be opened`,
        change: takeDisclosures(app, proposals),
      }
    : null;
}

const isFilled = ({ style, kind }: Element): boolean => {
  const color = style.base['background-color'];
  return (
    (kind === 'image' || (!!color && color !== 'transparent' && !/rgba?\([^)]*[,/]\s*0\)$/.test(color))) &&
    Number(style.base.opacity ?? 1) > 0.05
  );
};

/** What is wrong with single elements. */
const scrolls = ({ key, style: { base } }: Element, { layers }: Project['app']): boolean =>
  layers[key]?.scrolls === true ||
  ['overflow', 'overflow-x', 'overflow-y'].some((name) => /auto|scroll/.test(base[name] ?? ''));

export const elementRules: readonly Rule[] = [
  {
    code: 'hidden',
    level: 'info',
    station: 'intake',
    title: 'Hidden elements left out',
    find: ({ drawn, graph }) => {
      const used = new Set(graph.screens);
      return drawn.design.screens
        .filter((screen) => used.has(screen.key))
        .flatMap((screen): Found[] => {
          const hidden: Element[] = [];
          walkElements(screen.root, (element) => {
            if (!element.hidden || drawn.app.disclosures[element.key]) return true;
            if (drawn.app.layers[element.key]?.show === undefined) hidden.push(element);
            return false;
          });
          if (!hidden.length || drawn.app.settings.hidden === 'in') return [];
          const names = hidden
            .slice(0, 3)
            .map((element) => `“${labelOf(element).slice(0, 40)}”`)
            .join(', ');
          const more = hidden.length > 3 ? ` and ${hidden.length - 3} more` : '';
          return [
            {
              screen: screen.key,
              element: hidden.length === 1 ? hidden[0].key : null,
              message: `${names}${more} on ${screenName(drawn, screen.key)} ${hidden.length === 1 ? 'is' : 'are'} hidden in the file, and left out.`,
              fix: openedBy(drawn.app, screen, hidden) ?? {
                label: hidden.length === 1 ? 'Show it' : 'Show them',
                change: all(
                  hidden.map((element) =>
                    putLayer(element.key, { ...drawn.app.layers[element.key], show: true }),
                  ),
                ),
              },
            },
          ];
        });
    },
  },
  {
    code: 'device-furniture',
    level: 'warning',
    station: 'intake',
    title: 'Drawn device furniture',
    find: onScreens((screen, project) =>
      furnitureOn(screen)
        .filter(({ element }) => project.app.layers[element.key]?.show === undefined)
        .map(({ element, what }) => ({
          screen: screen.key,
          element: element.key,
          message: `A ${what} is drawn on ${screenName(project, screen.key)}; the device shows its own.`,
          fix: leaveOut(project, element),
        })),
    ),
  },
  {
    code: 'outside-screen',
    level: 'warning',
    station: 'intake',
    title: 'Elements outside the screen',
    find: onScreens((screen, project) => {
      const found: Found[] = [];
      walkElements(screen.root, (element) => {
        const { box } = element;
        const isOut =
          box.x >= screen.width || box.y >= screen.height + 1 || right(box) <= 0 || bottom(box) <= 0;
        // What scrolls shows what lies beyond its edge.
        if (!isOut) return element === screen.root || !scrolls(element, project.app);
        if (box.width < 2 || box.height < 2 || element === screen.root) return true;
        found.push({
          screen: screen.key,
          element: element.key,
          message: `“${shortName(element)}” lies outside ${screenName(project, screen.key)}, at ${Math.round(box.x)}, ${Math.round(box.y)}; nobody sees it.`,
          fix: leaveOut(project, element),
        });
        return false;
      });
      return found;
    }),
  },
  {
    code: 'text-overflow',
    level: 'warning',
    station: 'intake',
    title: 'Text that overflows its box',
    find: onScreens((screen, project) => {
      const found: Found[] = [];
      walkElements(screen.root, (element, parents) => {
        if (element.kind !== 'text' || !element.text?.trim()) return;
        const holder = holderOf(element, parents.at(-1), screen);
        if (!holder) return;
        // Widths of drawn text are estimates.
        const slack = /\.(svg|pdf)$/i.test(element.source.file) ? holder.box.width * 0.12 + 4 : 2;
        const over = Math.max(right(element.box) - right(holder.box), holder.box.x - element.box.x);
        const below = bottom(element.box) - bottom(holder.box);
        const isCut = over > slack && holder.box.width > 16;
        if (!isCut && !(below > 6 && holder.box.height > 12 && slack === 2)) return;
        found.push({
          screen: screen.key,
          element: element.key,
          message: `“${shortName(element)}” on ${screenName(project, screen.key)} reaches ${Math.round(isCut ? over : below)} px out of the box that it stands in.`,
        });
      });
      return found;
    }),
  },
  {
    code: 'covered',
    level: 'warning',
    station: 'intake',
    title: 'Elements that cannot be pressed',
    find: onScreens((screen, project) =>
      coveredOn(screen).map(({ element, cover }) => ({
        screen: screen.key,
        element: element.key,
        message: `“${labelOf(element)}” on ${screenName(project, screen.key)} cannot be pressed: “${shortName(cover)}” lies over it.`,
        fix: {
          label: 'Let presses through',
          change: putLayer(cover.key, { ...project.app.layers[cover.key], through: true }),
        },
      })),
    ),
  },
  {
    code: 'no-scroll',
    level: 'warning',
    station: 'intake',
    title: 'Content that does not scroll',
    find: onScreens((screen, project) => {
      const found: Found[] = [];
      walkElements(screen.root, (element) => {
        const { base } = element.style;
        const isClipped = base['overflow-y'] === 'hidden' || base['overflow-y'] === 'clip';
        const isLarge =
          element.box.height >= Math.min(screen.height, 900) * 0.6 && element.box.width >= screen.width * 0.5;
        if (!isClipped || !isLarge || project.app.layers[element.key]?.scrolls) return;
        let lowest = 0;
        walkElements(element, (inner) => {
          if (inner !== element && inner.box.height > 0) lowest = Math.max(lowest, bottom(inner.box));
        });
        if (lowest < bottom(element.box) + 24) return;
        found.push({
          screen: screen.key,
          element: element.key,
          message: `${screenName(project, screen.key)} goes on for ${Math.round(lowest - bottom(element.box))} px below its edge and does not scroll.`,
          fix: {
            label: 'Let it scroll',
            change: putLayer(element.key, { ...project.app.layers[element.key], scrolls: true }),
          },
        });
      });
      return found;
    }),
  },
];

/** The filled box that a text stands in: what it is in, or else what was drawn beneath where it begins. */
function holderOf(text: Element, parent: Element | undefined, screen: Screen): Element | null {
  if (!parent) return null;
  if (parent !== screen.root && isFilled(parent)) return parent;
  const { box } = text;
  // Text that stands among elements has the box of all of it, and nobody knows how far it reaches itself.
  if (parent.children.length > 1 && isSameBox(box, parent.box)) return null;
  const middle = box.y + box.height / 2;
  const before = parent.children.slice(0, parent.children.indexOf(text));
  return (
    before.findLast(
      (other) =>
        isFilled(other) &&
        other.kind === 'box' &&
        other.box.width < screen.width * 0.95 &&
        box.x >= other.box.x &&
        box.x < right(other.box) - 4 &&
        middle > other.box.y &&
        middle < bottom(other.box),
    ) ?? null
  );
}

const isSameBox = (one: Element['box'], other: Element['box']): boolean =>
  one.x === other.x && one.y === other.y && one.width === other.width && one.height === other.height;

const shortName = (element: Element): string => labelOf(element).slice(0, 40) || element.kind;

/** Screens at most this wide, in px, are those of phones. */
const PHONE_WIDTH = 500;

/** Status bars, home indicators and browser frames that were drawn along. */
export function furnitureOn(screen: Screen): { element: Element; what: string }[] {
  const found: { element: Element; what: string }[] = [];
  const put = (element: Element, what: string): false => {
    if (!found.some((other) => other.what === what)) found.push({ element, what });
    return false;
  };
  walkElements(screen.root, (element) => {
    if (element === screen.root) return true;
    const { box, name } = element;
    if (/\bstatus ?bar\b/i.test(name) && box.y < 60 && box.height <= 64) return put(element, 'status bar');
    if (/\bhome ?indicator\b/i.test(name)) return put(element, 'home indicator');
    if (
      /\b(browser (bar|frame|window|chrome)|address bar|window (controls|frame)|title ?bar dots)\b/i.test(
        name,
      ) &&
      box.y < 120
    )
      return put(element, 'browser frame');
    if (screen.width <= PHONE_WIDTH && isStatusBar(element, screen)) return put(element, 'status bar');
    if (screen.width <= PHONE_WIDTH && isHomeIndicator(element, screen))
      return put(element, 'home indicator');
    if (isWindowDots(element)) return put(element, 'browser frame');
    return true;
  });
  return found;
}

const CLOCK = /^([01]?\d|2[0-3]):[0-5]\d( ?[AP]M)?$/i;

/** A strip across the top that shows the time and, beside it, nothing but drawings. */
function isStatusBar(element: Element, { width }: Screen): boolean {
  const { box } = element;
  if (element.kind !== 'box' || box.y > 20 || box.height > 60 || box.width < width * 0.7) return false;
  const texts: string[] = [];
  walkElements(element, (inner) => void (inner.text?.trim() && texts.push(inner.text.trim())));
  return (
    texts.some((text) => CLOCK.test(text)) && texts.every((text) => CLOCK.test(text) || text.length <= 5)
  );
}

function isHomeIndicator({ kind, box, children }: Element, { width, height }: Screen): boolean {
  const isBar = box.height >= 3 && box.height <= 8 && box.width >= width * 0.25 && box.width <= width * 0.45;
  return (
    kind === 'box' &&
    !children.length &&
    isBar &&
    bottom(box) > height - 24 &&
    Math.abs(box.x + box.width / 2 - width / 2) < 6
  );
}

/** Three small round things in a row in a bar at the very top. */
function isWindowDots({ kind, box, children }: Element): boolean {
  if (kind !== 'box' || box.y > 4 || box.height > 60) return false;
  const dots = children.filter(
    (child) =>
      child.box.width >= 6 &&
      child.box.width <= 16 &&
      Math.abs(child.box.width - child.box.height) < 1 &&
      child.box.x < 120,
  );
  return (
    dots.length === 3 &&
    dots.every((dot) => (dot.style.base['border-top-left-radius'] ?? '') === '50%' || dot.kind === 'vector')
  );
}

/** Pressable elements whose middle lies under something opaque that is painted later. */
export function coveredOn(screen: Screen): { element: Element; cover: Element }[] {
  // A dialog over its dimmed screen covers it on purpose.
  if (hasScrim(screen)) return [];
  const order: { element: Element; parents: readonly Element[] }[] = [];
  walkElements(screen.root, (element, parents) => void order.push({ element, parents: [...parents] }));
  const around = new Map(order.map(({ element, parents }) => [element, parents]));
  const place = new Map(order.map(({ element }, i) => [element, i]));
  const covers = order.filter(
    ({ element }) =>
      isFilled(element) &&
      element !== screen.root &&
      element.style.base['pointer-events'] !== 'none' &&
      // What lies over the whole screen dims it on purpose: it belongs to a dialog.
      element.box.width * element.box.height < screen.width * Math.min(screen.height, 900) * 0.7 &&
      !['fixed', 'sticky'].includes(element.style.base.position ?? '') &&
      !(element.style.base['z-index'] ?? '').startsWith('-'),
  );
  return pressablesOf(screen).flatMap(({ element }) => {
    const { box } = element;
    if (!(box.width > 4) || !(box.height > 4)) return [];
    const own = [...around.get(element)!, element];
    const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
    const cover = covers.find(
      ({ element: other, parents }) =>
        place.get(other)! > place.get(element)! &&
        !parents.includes(element) &&
        other.box.x < x &&
        right(other.box) > x &&
        other.box.y < y &&
        bottom(other.box) > y &&
        overlapOf(box, other.box) > 0.6 &&
        !isAbove(own, [...parents, other]),
    );
    return cover ? [{ element, cover: cover.element }] : [];
  });
}

/** Whether one element is painted above another by what they and those around them say. @param one and all around it, the outermost first */
function isAbove(one: readonly Element[], other: readonly Element[]): boolean {
  const parted = one.findIndex((element, i) => element !== other[i]);
  return parted >= 0 && levelIn(one.slice(parted)) > levelIn(other.slice(parted));
}

/** The level on which something is painted: that of the first thing around it that says one, else whether it is positioned. */
function levelIn(path: readonly Element[]): number {
  const placed = path.filter(({ style: { base } }) => (base.position ?? 'static') !== 'static');
  const said = placed.find(({ style: { base } }) => /^-?\d+$/.test(base['z-index'] ?? ''));
  return said ? Number(said.style.base['z-index']) : placed.length ? 0 : IN_FLOW;
}
/** What is in the flow lies beneath what is positioned. */
const IN_FLOW = -0.5;

/** The share of the first box that lies in the second. */
function overlapOf(a: Box, b: Box): number {
  const width = Math.min(right(a), right(b)) - Math.max(a.x, b.x);
  const height = Math.min(bottom(a), bottom(b)) - Math.max(a.y, b.y);
  return width > 0 && height > 0 ? (width * height) / (a.width * a.height) : 0;
}

type Css = Record<string, string>;

/** What an element says of itself, and what of it differs at narrower widths. */
interface Said {
  readonly base: Css;
  readonly at: Record<string, Css>;
}

/** A height that is known: a share of the window's in percent, less some px. */
interface KnownHeight {
  readonly share: number;
  readonly less: number;
}

const HEIGHTS = ['height', 'min-height', 'max-height'];
const PERCENT = /^(\d+(?:\.\d+)?)%$/;
const AROUND = ['padding-top', 'padding-bottom', 'border-top-width', 'border-bottom-width'];

/**
 * Says heights that are shares of the window's by way of page and body (`height: 100%` all the way down) in units of
 * the window, in place. A page in an app stands in a container that is as high as what it holds, where such a
 * percentage would be none.
 */
export function sayWindowHeights(body: Element, saidOf: (element: Element) => Said | undefined): void {
  const [html, said] = [saidOf(body.ownerDocument.documentElement), saidOf(body)];
  if (!html || !said || !/^100(%|d?vh)$/.test(html.base.height ?? '')) return;
  const whole = { share: 100, less: 0 };
  for (const css of [said.base, ...Object.values(said.at)])
    for (const name of ['min-height', 'max-height']) inUnits(css, name, whole);
  const known = heightOf(said, whole);
  if (!known) return;
  // A page that never scrolls is as high as the window; any other is at least that, and its ground goes on below.
  if (said.base['overflow-y'] === 'hidden') inUnits(said.base, 'height', whole);
  else {
    delete said.base.height;
    spread(body, within(said, known), saidOf);
  }
}

function spread(parent: Element, known: KnownHeight, saidOf: (element: Element) => Said | undefined): void {
  for (const child of parent.children) {
    const said = saidOf(child);
    if (!said || /^(absolute|fixed)$/.test(said.base.position ?? '')) continue;
    const own = heightOf(said, known);
    for (const css of [said.base, ...Object.values(said.at)])
      for (const name of HEIGHTS) inUnits(css, name, known);
    if (own) spread(child, within(said, own), saidOf);
  }
}

/** The height of an element that says it as a share of a known one; null where it does not, or only at some widths. */
function heightOf({ base, at }: Said, known: KnownHeight): KnownHeight | null {
  const percent = PERCENT.exec(base.height ?? '');
  if (!percent || Object.values(at).some((css) => 'height' in css || 'position' in css)) return null;
  return share(known, Number(percent[1]));
}

const share = (known: KnownHeight, percent: number): KnownHeight => ({
  share: (known.share * percent) / 100,
  less: (known.less * percent) / 100,
});

/** What is left of an element's height for what stands in it. */
function within({ base }: Said, known: KnownHeight): KnownHeight {
  const around = AROUND.reduce((sum, name) => sum + (parseFloat(base[name] ?? '') || 0), 0);
  return { share: known.share, less: known.less + around };
}

function inUnits(css: Css, name: string, known: KnownHeight): void {
  const percent = PERCENT.exec(css[name] ?? '');
  if (!percent) return;
  const { share: units, less } = share(known, Number(percent[1]));
  css[name] = less ? `calc(${round(units)}vh - ${round(less)}px)` : `${round(units)}vh`;
}

const round = (value: number): number => Math.round(value * 100) / 100;

import type { App } from '../model/app.ts';
import type { Element, Screen } from '../model/design.ts';
import { elementsByKey } from '../model/places.ts';
import { type PanelProposal, proposePanel } from '../overlays/cut.ts';
import type { DesignMatch } from '../match/design.ts';

/** What a screen is that came to be drawn over another one. */
export interface Overlaid {
  /** The newer screen beneath it. Where that is the screen's own drawing, both are drawn in one. */
  readonly under: Screen;
  /** What of the drawing is the overlay. */
  readonly panel: Element;
  readonly proposal: PanelProposal;
}

/** Least share of what a screen showed that has to be in the panel of the one it went into. */
const MOST_IN_PANEL = 0.6;

/**
 * Screens that became overlays, by the older screen: the newer drawing shows another screen with this one over it; or the
 * screen went into another's drawing, and stands there over the rest.
 */
export function overlaidIn(app: App, match: DesignMatch): ReadonlyMap<Screen, Overlaid> {
  const found = new Map<Screen, Overlaid>();
  for (const { old, now, kinship, over } of match.screens) {
    if (app.screens[old.key]?.use !== 'screen') continue;
    if (kinship === 'same' && over) {
      const overlaid = panelOf(now, over, over);
      // What was drawn over something before is none the more an overlay.
      if (overlaid && !proposePanel(old, null)) found.set(old, overlaid);
    } else if (kinship === 'joined') {
      const before = match.screens.find((pair) => pair.now === now && pair.kinship === 'same')?.old ?? null;
      const overlaid = panelOf(now, before, now);
      if (!overlaid) continue;
      const inPanel = elementsWithin(overlaid.panel);
      const here = match.pairs.filter(({ from, to }) => from === old && to === now);
      const within = here.filter((pair) => inPanel.has(pair.now)).length;
      if (here.length && within >= here.length * MOST_IN_PANEL) found.set(old, overlaid);
    }
  }
  return found;
}

/** @param beneath what is known to have been drawn without the panel */
function panelOf(screen: Screen, beneath: Screen | null, under: Screen): Overlaid | null {
  const proposal = proposePanel(screen, beneath);
  const panel = proposal && elementsByKey(screen).get(proposal.panel);
  return panel ? { under, panel, proposal } : null;
}

/** An element and all within it. */
export function elementsWithin(element: Element): ReadonlySet<Element> {
  const all = new Set<Element>([element]);
  for (const one of all) one.children.forEach((child) => all.add(child));
  return all;
}

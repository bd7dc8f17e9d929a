import type { Screen } from '../../model/design.ts';
import { walkElements } from '../../model/project.ts';
import { hasParent } from '../../roles/sight.ts';
import type { Evidence, Pressed } from './evidence.ts';

/** Which step of how many a screen shows, in the sequence of those that count to the same number. */
export interface Step {
  readonly n: number;
  readonly of: number;
}

const STEP = /^(?:step|page|part)?\s*(\d{1,2})\s*(?:of|\/)\s*(\d{1,2})$/i;

/** Reads `2 of 3`, `Step 2 / 3`; null where a screen says nothing of the kind. */
export function stepOf(screen: Screen): Step | null {
  let found: Step | null = null;
  walkElements(screen.root, (element) => {
    if (found || element.hidden) return false;
    const said = STEP.exec(element.text?.trim() ?? '');
    if (said) {
      const [n, of] = [Number(said[1]), Number(said[2])];
      if (of > 1 && of < 20 && n >= 1 && n <= of) found = { n, of };
    }
    return !found;
  });
  return found;
}

const NEXT = /^(next|continue|proceed|go on|get started|start|let.?s go|weiter)\b|^(›|→|»)$/i;
const PREVIOUS = /^(previous|prev|go back|back)\b|^(‹|←|«)$/i;
const SKIP = /^(skip|not now|maybe later|later)\b/i;
const BACK = /^(back|go back|cancel|close|dismiss)( button| icon)?$|^(‹|←|×|✕|✖)$/i;
const BACK_ICON = / (back|arrow left|chevron left|angle left|caret left) /;
const CLOSE_ICON = / (close|times|xmark|dismiss) /;
/** A control of a slide show turns its pictures and leads nowhere. */
const CAROUSEL = / (carousel|slider|swiper|pagination|page item|page link) /;

/** What stands in a dialog closes that, and what is hidden leads nowhere yet. */
const isInOverlay = ({ sight }: Pressed): boolean =>
  !!sight.element.hidden ||
  hasParent(
    sight,
    (parent) => !!parent.element.hidden || / (modal|dialog|drawer|offcanvas|alert|toast) /.test(parent.words),
  );

/** What elements that go on, back or past say, by the steps that screens count and by their order. */
export function fromSequence(
  element: Pressed,
  screens: readonly Screen[],
  steps: ReadonlyMap<string, Step>,
  leadsHere: ReadonlyMap<string, readonly string[]>,
): Evidence[] {
  const { label, screen, sight } = element;
  const words = `${sight.words}${sight.children.map((child) => child.words).join('')}`;
  if (CAROUSEL.test(words) || sight.parent?.words.match(CAROUSEL)) return [];
  const own = steps.get(screen);
  const at = (n: number): string | undefined =>
    own && screens.find(({ key }) => steps.get(key)?.n === n && steps.get(key)?.of === own.of)?.key;
  const order = screens.findIndex(({ key }) => key === screen);
  if (NEXT.test(label)) {
    const next = own && at(own.n + 1);
    if (next)
      return [{ kind: 'sequence', to: next, strength: 0.88, reason: `it is step ${own.n + 1} of ${own.of}` }];
    const after = own && own.n === own.of ? screens[order + 1]?.key : undefined;
    return after
      ? [{ kind: 'sequence', to: after, strength: 0.4, reason: 'it comes after the last step' }]
      : [];
  }
  if (SKIP.test(label) && own) {
    const last = at(own.of);
    const past = screens[screens.findIndex(({ key }) => key === last) + 1]?.key;
    return past && past !== screen
      ? [{ kind: 'sequence', to: past, strength: 0.5, reason: `it comes after the ${own.of} steps` }]
      : [];
  }
  if (PREVIOUS.test(label) && own) {
    const before = at(own.n - 1);
    if (before)
      return [
        { kind: 'sequence', to: before, strength: 0.85, reason: `it is step ${own.n - 1} of ${own.of}` },
      ];
  }
  const isBack =
    BACK.test(label) ||
    (!sight.text && (BACK_ICON.test(words) || (CLOSE_ICON.test(words) && sight.element.box.y < 120)));
  if (!isBack || element.menu || isInOverlay(element)) return [];
  const [from] = leadsHere.get(screen) ?? [];
  return from && from !== screen
    ? [
        {
          kind: 'sequence',
          to: from,
          strength: 0.72,
          reason: `“${label}” leads back, and that screen leads here`,
          isBack: true,
        },
      ]
    : [];
}

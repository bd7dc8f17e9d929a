/** How a page is looked at that moves: by the reader of pages and by what draws them, so that both see the same. */

/** Chains of transitions that are brought to their end. */
const MOST_CHAINED = 3;
/** At this part of its time what never ends is looked at where it begins unseen. */
const MIDWAY = 0.5;
const UNSEEN = /^0(\.0\d*)?$/;

/**
 * Brings what moves to where it ends: a side bar that slides out of a narrow window is out of it. What never ends stands
 * still as it begins, so that the same is seen the same, whenever that is.
 */
export function settle(document: Document): void {
  for (let i = 0; i < MOST_CHAINED; i++) {
    const moving = document.getAnimations().filter(({ playState }) => playState === 'running');
    if (!moving.length) return;
    for (const animation of moving) {
      const timing = animation.effect?.getComputedTiming();
      if (timing && Number.isFinite(timing.endTime)) animation.finish();
      else stopAtStart(animation, timing);
    }
  }
}

function stopAtStart(animation: Animation, timing: ComputedEffectTiming | undefined): void {
  const start = timing?.delay ?? 0;
  animation.pause();
  animation.currentTime = start;
  const target = targetOf(animation);
  const style = target?.ownerDocument.defaultView?.getComputedStyle(target);
  if (style && UNSEEN.test(style.opacity))
    animation.currentTime = start + Number(timing?.duration ?? 0) * MIDWAY;
}

/** Lets everything be at once what it is to become, until that is taken back. @returns takes it back */
export function withoutTransitions(document: Document): () => void {
  const sheet = new document.defaultView!.CSSStyleSheet();
  // Ids that nothing has let it count more than what the page says.
  sheet.replaceSync('*:is(*, #no#no#no#no) { transition: none !important }');
  const before = document.adoptedStyleSheets;
  document.adoptedStyleSheets = [...before, sheet];
  return () => void (document.adoptedStyleSheets = before);
}

/** Lets what stands still as it is, even where nothing moves any more: it says itself how it looks. */
export function hold(document: Document): void {
  for (const animation of document.getAnimations()) {
    if (animation.playState !== 'paused') continue;
    try {
      animation.commitStyles();
    } catch {
      // What is written before or after an element has no style of its own.
    }
    animation.cancel();
  }
}

function targetOf({ effect }: Animation): Element | null {
  return effect && 'target' in effect ? (effect.target as Element | null) : null;
}

import type { Answer, Difference, IterationReport, ReportedAsk, RoundScreen } from '@tovel/core';
import { useEffect, useMemo, useState } from 'react';
import { useQueryParam } from '../ui/use_query_param';
import { isEitherOr } from './Decisions';
import type { OpenRound } from './use_round';

/** An element of the newer picture, by the key that came in with it. */
export type Pointed = RoundScreen['named'][number];

const none = { olds: [], nows: [] } as const;

/**
 * The screen that is shown where none was chosen: that of the decision that is open, else the first that is not as it was.
 * @returns its place among the screens; null as long as nothing is known
 */
export function screenAtFirst(report: IterationReport | null, ask: ReportedAsk | null): number | null {
  if (!report) return null;
  return ask
    ? report.screens.findIndex(({ old }) => old === ask.screen)
    : Math.max(
        0,
        report.screens.findIndex(({ standing }) => standing !== 'same'),
      );
}

/** What of a round is chosen, shown and marked, and what can be answered about it. */
export function useChosen({ report, answer, screen: openScreen }: OpenRound) {
  const [screenKey, setScreenKey] = useQueryParam('screen', '');
  const [chosen, setChosen] = useState<string | null>(null);
  const [pointed, setPointed] = useState<Pointed | null>(null);
  const [marked, setMarked] = useState<Difference | null>(null);
  const [pages, setPages] = useState<{ readonly at: number; readonly screen: RoundScreen } | null>(null);

  const found = report?.screens.findIndex(({ old, now }) => [old, now].includes(screenKey)) ?? -1;
  const at = screenKey && found >= 0 ? found : null;
  const asks = useMemo(
    () => (report?.asks ?? []).filter((ask) => at === null || ask.screen === report?.screens[at]?.old),
    [report, at],
  );
  const ask = asks.find(({ id }) => id === chosen) ?? asks[0] ?? null;
  const shownAt = at ?? screenAtFirst(report, ask);
  useEffect(() => {
    if (shownAt === null || shownAt < 0 || !report) return;
    let isStale = false;
    openScreen(shownAt).then(
      (screen) => void (isStale || setPages({ at: shownAt, screen })),
      () => {},
    );
    return () => {
      isStale = true;
    };
  }, [openScreen, shownAt, report]);

  const current = shownAt === null ? null : (report?.screens[shownAt] ?? null);
  const page = pages && pages.at === shownAt ? pages.screen : null;
  const kept = (at !== null && page?.kept) || [];
  const ofKept = kept.find(({ element }) => element === chosen) ?? null;
  const ofAsk = !ofKept && ask && ask.screen === current?.old ? ask : null;
  const subject = ofKept ?? ofAsk;
  const target = pointed?.key ?? ofKept?.to ?? ofAsk?.candidates[0]?.element ?? null;
  const marks = marked ?? {
    olds: subject ? [subject.element] : none.olds,
    nows: target && page?.shown[target] ? [page.shown[target]] : none.nows,
  };

  const setElement = (element: string | null): void => {
    setChosen(element);
    setPointed(null);
    setMarked(null);
  };
  return {
    /** The place of the screen that was chosen; null where the round is seen as a whole. */
    at,
    asks,
    ask,
    current,
    page,
    kept,
    ofKept,
    ofAsk,
    /** Whether what is chosen can be pointed at in the newer picture. */
    isPointing: ofKept !== null || (ofAsk !== null && !isEitherOr(ofAsk)),
    pointed,
    setPointed,
    marked,
    setMarked,
    marks,
    chooseElement: setElement as (element: string) => void,
    chooseScreen(index: number | null) {
      const screen = index === null ? null : report?.screens[index];
      setScreenKey(screen?.now ?? screen?.old ?? '');
      setElement(null);
    },
    /** Points at an element by its key in the newer picture. */
    point(key: string) {
      const came = page?.incoming[key];
      if (!came) return;
      setMarked(null);
      setPointed({
        key: came,
        label: page.named.find((one) => one.key === came)?.label ?? 'this element',
      });
    },
    onAnswer(element: string, one: Answer | null) {
      answer(element, one);
      setPointed(null);
      setMarked(null);
    },
  };
}

export type Chosen = ReturnType<typeof useChosen>;

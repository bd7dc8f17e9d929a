import type { Answer, Answers, Difference, RoundScreen, WaitingRound } from '@tovel/core';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject } from '../project/context';
import { newName } from '../project/identity';
import { color } from '../theme/theme';
import { Button, Segments } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { useQueryParam } from '../ui/use_query_param';
import { BeforeAfter, type Laid, LaidChoice } from './BeforeAfter';
import { Decisions, isEitherOr } from './Decisions';
import { DifferenceList } from './DifferenceList';
import { EffectsList } from './EffectsList';
import { KeptList } from './KeptList';
import { PointByName } from './PointByName';
import { RoundMap } from './RoundMap';
import { RoundScreens } from './RoundScreens';
import { screensInWords, tallyInWords } from './standings';
import { forgetAnswers, useRound } from './use_round';

const View = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: 232px minmax(0, 1fr) 340px;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Bar = styled.header`
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  flex-wrap: wrap;
  gap: 6px 8px;
  padding: 8px 16px;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
  > div:first-child {
    flex: 1;
    min-width: 320px;
  }
  h2 {
    font-size: 15px;
  }
  p {
    color: ${color.ink2};
    font-variant-numeric: tabular-nums;
  }
`;

const Middle = styled.section`
  display: flex;
  flex-direction: column;
  overflow: auto;
  padding: 10px 16px 16px;
  > header {
    display: flex;
    align-items: center;
    gap: 10px;
    padding-bottom: 10px;
    h3 {
      font-size: 13px;
      margin-right: auto;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  }
`;

const Side = styled.aside`
  overflow: auto;
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
  h3 {
    display: flex;
    justify-content: space-between;
    font-size: 13px;
    padding: 12px 16px 6px;
  }
  > p {
    padding: 0 16px 8px;
    color: ${color.ink2};
  }
  > form {
    padding: 0 16px 12px;
  }
`;

const SHOWN = [
  { id: 'pictures', label: 'Pictures' },
  { id: 'lines', label: 'Lines' },
  { id: 'grid', label: 'Grid' },
] as const;

const none = { olds: [], nows: [] } as const;
/** A next round of screens before anything of it is taken in: what it changes, and what only a person can decide. */
export function RoundView({ round }: { round: NonNullable<WaitingRound> }) {
  const { id, base, session } = useProject();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const opened = useRound(round);
  const { report, progress, problem, isWhole, setWhole, answers, answer, answerAll, effects } = opened;
  const [screenKey, setScreenKey] = useQueryParam('screen', '');
  const [asked, setShown] = useQueryParam('show', 'pictures');
  const shows = SHOWN.find((one) => one.id === asked)?.id ?? 'pictures';
  const [chosen, setChosen] = useState<string | null>(null);
  const [pointed, setPointed] = useState<{ key: string; label: string } | null>(null);
  const [marked, setMarked] = useState<Difference | null>(null);
  const [laid, setLaid] = useState<Laid>('beside');
  const [pages, setPages] = useState<{ readonly at: number; readonly screen: RoundScreen } | null>(null);
  const [busy, setBusy] = useState<'take' | 'drop' | null>(null);
  const [failure, setFailure] = useState<string | null>(null);

  const found = report?.screens.findIndex(({ old, now }) => [old, now].includes(screenKey)) ?? -1;
  const at = screenKey && found >= 0 ? found : null;
  const asks = useMemo(
    () => (report?.asks ?? []).filter((ask) => at === null || ask.screen === report?.screens[at]?.old),
    [report, at],
  );
  const ask = asks.find(({ id: one }) => one === chosen) ?? asks[0] ?? null;
  const shownAt =
    at ??
    (report && ask ? report.screens.findIndex(({ old }) => old === ask.screen) : null) ??
    (report
      ? Math.max(
          0,
          report.screens.findIndex(({ standing }) => standing !== 'same'),
        )
      : null);
  const isChosen = at === null ? ask !== null : asks.length > 0;

  const { screen: openScreen } = opened;
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

  const choose = (index: number | null): void => {
    const chosenScreen = index === null ? null : report?.screens[index];
    setScreenKey(chosenScreen?.now ?? chosenScreen?.old ?? '');
    setChosen(null);
    setPointed(null);
    setMarked(null);
  };
  const chooseElement = (element: string): void => {
    setChosen(element);
    setPointed(null);
    setMarked(null);
  };
  const leave = async (): Promise<void> => {
    forgetAnswers(id, round);
    await queries.invalidateQueries({ queryKey: ['round', id] });
  };
  const run = async (what: 'take' | 'drop', work: () => Promise<void>): Promise<void> => {
    setBusy(what);
    setFailure(null);
    try {
      await work();
      await leave();
    } catch (error) {
      setFailure((error as Error).message);
    } finally {
      setBusy(null);
    }
  };
  const [step] = useState(() => newName(16));
  const take = (): Promise<void> =>
    run('take', () =>
      session.accept((input) => api.takeRound(id, { ...input, whole: isWhole, answers }), step),
    );
  const drop = (): Promise<void> => run('drop', () => api.dropRound(id));

  if (problem && busy === null)
    return (
      <Empty title="This round cannot be compared" text={problem}>
        <Button onPress={() => void drop()}>Put it away</Button>
      </Empty>
    );
  if (!report)
    return (
      <Empty
        title="Comparing the screens with those that are there …"
        text={progress.total ? `${progress.done} of ${progress.total}` : 'Opening what came in.'}
      >
        {progress.total > 0 && (
          <progress value={progress.done} max={progress.total} aria-label="Screens compared" />
        )}
        <Button onPress={() => void navigate(`${base}/intake`)}>Leave it for later</Button>
      </Empty>
    );

  const likely: Answers = Object.fromEntries(
    report.asks.flatMap(({ id: one, proposed }) => (proposed ? [[one, proposed]] : [])),
  );
  const likelyCount = Object.keys(likely).length;
  const page = pages && pages.at === shownAt ? pages.screen : null;
  const current = shownAt === null ? null : report.screens[shownAt];
  const kept = (at !== null && page?.kept) || [];
  const ofKept = kept.find(({ element }) => element === chosen) ?? null;
  const ofAsk = !ofKept && isChosen && ask && ask.screen === current?.old ? ask : null;
  const subject = ofKept ?? ofAsk;
  const isPointing = ofKept !== null || (ofAsk !== null && !isEitherOr(ofAsk));
  const target = pointed?.key ?? ofKept?.to ?? ofAsk?.candidates[0]?.element ?? null;
  const marks = marked ?? {
    olds: subject ? [subject.element] : none.olds,
    nows: target && page?.shown[target] ? [page.shown[target]] : none.nows,
  };
  const point = (key: string): void => {
    const came = page?.incoming[key];
    if (!came) return;
    setMarked(null);
    setPointed({ key: came, label: page.named.find((one) => one.key === came)?.label ?? 'this element' });
  };
  const onAnswer = (element: string, one: Answer | null): void => {
    answer(element, one);
    setPointed(null);
    setMarked(null);
  };
  const count = Object.keys(answers).length;
  return (
    <View>
      <Bar>
        <div role="status">
          <h2>The next round, not taken in yet</h2>
          <p>
            {screensInWords(report.screens)} · {sum(report.links)}{' '}
            {sum(report.links) === 1 ? 'link' : 'links'}: {tallyInWords(report.links)}
          </p>
          {failure && <p style={{ color: color.red }}>{failure}</p>}
        </div>
        <Segments role="group" aria-label="What came in">
          <Button aria-pressed={!isWhole} onPress={() => setWhole(false)}>
            Only these screens
          </Button>
          <Button aria-pressed={isWhole} onPress={() => setWhole(true)}>
            All screens there are
          </Button>
        </Segments>
        {likelyCount > 0 && (
          <Button onPress={() => answerAll(likely)}>Take all that is sure, {likelyCount}</Button>
        )}
        {count > 0 && (
          <Button $kind="quiet" onPress={() => Object.keys(answers).forEach((key) => answer(key, null))}>
            Ask {count} again
          </Button>
        )}
        <Button $kind="quiet" isDisabled={busy !== null} onPress={() => void drop()}>
          Put away
        </Button>
        <Button
          $kind="primary"
          isDisabled={busy !== null}
          onPress={() => void take()}
          // What it says changes while one answers; nothing else may come to lie under the pointer.
          style={{ minWidth: 190 }}
        >
          {busy === 'take'
            ? 'Taking it in …'
            : report.asks.length
              ? `Take it in, decide ${report.asks.length} later`
              : 'Take it in'}
        </Button>
      </Bar>
      <RoundScreens report={report} at={at} onChoose={choose} />
      <Middle aria-label="Before and after">
        <header>
          <h3>{shows === 'pictures' ? (current?.name ?? 'No screen') : 'The Map as it would be'}</h3>
          {shows === 'pictures' && (
            <LaidChoice laid={laid} onLaid={setLaid} isDisabled={!page?.before || !page.after} />
          )}
          <Segments role="group" aria-label="Shown">
            {SHOWN.map(({ id: one, label }) => (
              <Button key={one} aria-pressed={shows === one} onPress={() => setShown(one)}>
                {label}
              </Button>
            ))}
          </Segments>
        </header>
        {shows !== 'pictures' ? (
          <RoundMap round={opened} view={shows} />
        ) : page ? (
          <BeforeAfter
            before={page.before}
            after={page.after}
            laid={laid}
            marked={marks}
            {...(isPointing ? { onPick: point } : {})}
            nothingBefore="It was not there."
            nothingAfter={
              current?.standing === 'gone'
                ? 'It is not among what came in, and goes with it.'
                : 'It has no picture of its own any more.'
            }
          />
        ) : (
          <p role="status">Drawing the screen …</p>
        )}
      </Middle>
      <Side aria-label="Decisions and differences">
        <h3>
          To decide <span>{asks.length}</span>
        </h3>
        {asks.length ? (
          <Decisions
            asks={asks}
            chosen={ofKept ? null : (ask?.id ?? null)}
            onChoose={chooseElement}
            pointed={pointed}
            onAnswer={onAnswer}
          />
        ) : (
          <p>{at === null ? 'Nothing: all that was decided goes along.' : 'Nothing on this screen.'}</p>
        )}
        {ofAsk && isPointing && page && (
          <PointByName key={ofAsk.element} named={page.named} onPoint={setPointed} />
        )}
        {at === null ? (
          <>
            <h3>What it does to the app</h3>
            <EffectsList effects={effects} report={report} />
          </>
        ) : (
          <>
            <h3>
              What differs <span>{page?.differences.length ?? ''}</span>
            </h3>
            <DifferenceList
              differences={page?.differences ?? []}
              marked={marked}
              onMark={setMarked}
              nothing={
                !page
                  ? 'Comparing …'
                  : current?.standing === 'new'
                    ? 'All of it is new.'
                    : current?.standing === 'gone'
                      ? 'It is gone.'
                      : 'Nothing: it is the same.'
              }
            />
            {kept.length > 0 && (
              <>
                <h3>
                  Goes along <span>{kept.length}</span>
                </h3>
                <p>Where one of them is another element now, choose it and press the right one.</p>
                {ofKept && page && (
                  <PointByName key={ofKept.element} named={page.named} onPoint={setPointed} />
                )}
                <KeptList
                  kept={kept}
                  chosen={ofKept?.element ?? null}
                  onChoose={chooseElement}
                  pointed={ofKept && pointed}
                  onAnswer={onAnswer}
                />
              </>
            )}
          </>
        )}
      </Side>
    </View>
  );
}

const sum = ({ kept, asked, letGo }: { kept: number; asked: number; letGo: number }): number =>
  kept + asked + letGo;

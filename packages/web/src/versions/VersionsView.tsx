import { orderedScreens, screenName, type TimelineStep } from '@tovel/core';
import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject, useStanding } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { useQueryParam } from '../ui/use_query_param';
import { Compared } from './Compared';
import { linesOf, momentInWords, stepInWords } from './sittings';
import { Timeline } from './Timeline';
import { useComparison } from './use_comparison';

const View = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(300px, 380px) minmax(0, 1fr);
`;

const Side = styled.div`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: ${color.sheet};
  border-right: 1px solid ${color.rule};
  > form {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 150px;
    gap: 8px;
    padding: 10px 16px;
    border-bottom: 1px solid ${color.rule};
  }
`;

const Place = styled.div`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  > header {
    padding: 10px 16px;
    background: ${color.sheet};
    border-bottom: 1px solid ${color.rule};
  }
  h2 {
    font-size: 15px;
    overflow-wrap: anywhere;
  }
  header p {
    color: ${color.ink2};
  }
`;

const With = styled.div`
  float: right;
  width: 230px;
`;

const Actions = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
  padding-top: 8px;
  form {
    display: flex;
    gap: 8px;
    align-items: end;
  }
`;

/** Every state that the project was in: to name, to look at, to compare, and to go back to. */
export function VersionsView() {
  const project = useProject();
  const { id, app, session } = project;
  const { history } = useStanding();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [words, setWords] = useState('');
  const [screen, setScreen] = useState('');
  const [at, setAt] = useQueryParam('at', '');
  const [against, setAgainst] = useState('now');
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);

  const { data: versions = [] } = useQuery({ queryKey: ['versions', id], queryFn: () => api.versions(id) });
  const pages = useInfiniteQuery({
    queryKey: ['timeline', id, history.seq, words, screen],
    queryFn: ({ pageParam }) =>
      api.timeline(id, {
        ...(pageParam === null ? {} : { before: pageParam }),
        ...(words.trim() ? { words: words.trim() } : {}),
        ...(screen ? { screen } : {}),
      }),
    initialPageParam: null as number | null,
    getNextPageParam: (page) => page.before,
    placeholderData: keepPreviousData,
  });
  const isSearch = words.trim() !== '' || screen !== '';
  const steps = useMemo(() => {
    const read = pages.data?.pages.flatMap((page) => page.steps) ?? [];
    const isAll = pages.data?.pages.at(-1)?.before === null && !isSearch;
    return isAll && read.length ? [...read, beginning(read.at(-1)!.madeAt)] : read;
  }, [pages.data, isSearch]);
  const lines = useMemo(() => linesOf(steps, versions), [steps, versions]);
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  const onEnd = useCallback(() => {
    if (hasNextPage && !isFetchingNextPage) void fetchNextPage();
  }, [hasNextPage, isFetchingNextPage, fetchNextPage]);
  const nameOf = useCallback(
    (key: string): string | null => (app.screens[key] ? screenName(project, key) : null),
    [app, project],
  );

  const chosen = at === '' ? history.seq : Number(at);
  const step = steps.find(({ seq }) => seq === chosen) ?? null;
  const here = versions.filter(({ seq }) => seq === chosen);
  const other =
    against === 'now' ? history.seq : against === 'before' ? Math.max(0, chosen - 1) : Number(against);
  const [from, to] = chosen <= other ? [chosen, other] : [other, chosen];
  const comparison = useComparison(id, from, to);
  const isNow = chosen === history.seq;
  const title = step ? stepInWords(step, nameOf) : chosen === 0 ? 'The beginning' : `Step ${chosen}`;

  const run = (work: () => Promise<unknown>): void => {
    setProblem(null);
    work().then(
      () => queries.invalidateQueries({ queryKey: ['versions', id] }),
      (error: Error) => setProblem(error.message),
    );
  };
  if (!history.seq && !versions.length)
    return (
      <Empty
        title="Nothing has happened yet"
        text="Every step that is made here can be looked at, named and returned to later."
      />
    );
  return (
    <View>
      <Side>
        <form role="search" onSubmit={(event) => event.preventDefault()}>
          <Field
            label="Words of a step"
            isLabelHidden
            placeholder="Words of a step"
            value={words}
            onChange={setWords}
          />
          <Choice
            label="Screen"
            isLabelHidden
            value={screen || 'all'}
            options={[
              { id: 'all', label: 'All screens' },
              ...orderedScreens(app).map((key) => ({ id: key, label: screenName(project, key) })),
            ]}
            onChange={(key) => setScreen(key === 'all' ? '' : key)}
          />
        </form>
        {lines.length ? (
          <Timeline
            lines={lines}
            chosen={chosen}
            nameOf={nameOf}
            onChoose={(seq) => setAt(seq === history.seq ? '' : String(seq))}
            onEnd={onEnd}
          />
        ) : (
          <Empty
            title={pages.isPending ? 'Opening the steps …' : 'No step is like that'}
            text={pages.isPending ? '' : 'Look for other words, or on all screens.'}
          />
        )}
      </Side>
      <Place>
        <header>
          <With>
            <Choice
              label="Compared with"
              value={against}
              options={[
                { id: 'now', label: 'how it is now' },
                { id: 'before', label: 'the step before' },
                ...versions.map((one) => ({ id: String(one.seq), label: `“${one.name}”` })),
              ].filter((one, i, all) => all.findIndex(({ id: same }) => same === one.id) === i)}
              onChange={setAgainst}
            />
          </With>
          <h2>{here.length ? here.map((one) => `“${one.name}”`).join(', ') : title}</h2>
          <p>
            {step && momentInWords(step.madeAt)}
            {here.length > 0 && ` · after: ${title}`}
            {step && saysOfStanding(step)}
            {isNow && ' · this is how it is now'}
          </p>
          <Actions>
            <form
              onSubmit={(event) => {
                event.preventDefault();
                if (!name.trim()) return setProblem('A version needs a name.');
                run(async () => {
                  await session.settled();
                  await api.nameVersion(id, name, chosen);
                  setName('');
                });
              }}
            >
              <Field
                label="Name of this version"
                isLabelHidden
                placeholder="Name of this version"
                value={name}
                onChange={setName}
              />
              <Button type="submit">Name it</Button>
            </form>
            {here.map((one) => (
              <Button key={one.id} $kind="quiet" onPress={() => run(() => api.forgetVersion(id, one.id))}>
                Take the name “{one.name}” off
              </Button>
            ))}
            {!isNow && (
              <>
                <Button onPress={() => void navigate(`/p/${id}/at/${chosen}/screens`)}>Look at it</Button>
                <Button
                  $kind="primary"
                  onPress={() =>
                    run(() =>
                      session
                        .accept((input) =>
                          api.goBack(id, {
                            ...input,
                            to: chosen,
                            label: `Go back to ${here[0] ? `“${here[0].name}”` : `after: ${title}`}`.slice(
                              0,
                              300,
                            ),
                          }),
                        )
                        .then(() => setAt('')),
                    )
                  }
                >
                  Go back to this
                </Button>
              </>
            )}
            {from !== to && to === history.seq && (
              <Button $kind="quiet" onPress={() => void navigate(`/p/${id}/map?since=${from}`)}>
                What became of it, on the Map
              </Button>
            )}
            {step?.role === 'do' && step.standing === 'done' && (
              <Button $kind="quiet" onPress={() => void session.undo(step)}>
                Take back this step alone
              </Button>
            )}
          </Actions>
          {problem && (
            <p role="alert" style={{ color: color.red }}>
              {problem}
            </p>
          )}
        </header>
        <Compared
          comparison={comparison}
          nothing={from === to ? 'Choose an earlier step, and what differs stands here.' : 'Nothing differs.'}
        />
      </Place>
    </View>
  );
}

/** What was before the first step. */
const beginning = (madeAt: string): TimelineStep => ({
  seq: 0,
  role: 'do',
  of: undefined,
  label: 'The beginning',
  author: undefined,
  madeAt,
  standing: null,
  screens: [],
  isIteration: false,
});

const saysOfStanding = ({ standing }: TimelineStep): string =>
  standing === 'undone' ? ' · taken back' : standing === 'dropped' ? ' · taken back, and left' : '';

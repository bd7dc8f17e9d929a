import { screensByKey, type View } from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Toolbar } from 'react-aria-components';
import styled from 'styled-components';
import { api } from '../api/client';
import { useFound, useProject } from '../project/context';
import { useScores } from '../project/use_compared_findings';
import { color } from '../theme/theme';
import { Button, Choice, Segments } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { useQueryParam } from '../ui/use_query_param';
import { AllScreens } from './AllScreens';
import { type Cause, Causes } from './Causes';
import { ComparedFindings } from './ComparedFindings';
import { LENSES, type Lens, Lenses } from './Lenses';
import { Sweep } from './Sweep';
import { HeardScreens } from './HeardScreens';
import { isReference, type Reference, useCompared, useViews, viewId } from './use_compared';
import { ViewList } from './ViewList';

const Whole = styled.div`
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Bar = styled(Toolbar)`
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 8px 16px;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
  p {
    color: ${color.ink2};
    margin-right: auto;
  }
`;

const Parts = styled.div`
  min-height: 0;
  display: grid;
  grid-template-columns: 216px minmax(0, 1fr) 300px;
  grid-template-rows: minmax(0, 1fr);
`;

const PLACES = [
  { id: 'screen', label: 'One screen' },
  { id: 'all', label: 'All screens' },
  { id: 'widths', label: 'Widths' },
  { id: 'heard', label: 'Read out' },
  { id: 'found', label: 'Findings' },
] as const;

/**
 * Whether what runs is what was drawn: one screen through a lens, all of them in a table, and each from narrow to wide; and what
 * it is to those who hear it; and what was found by all that.
 */
export function CompareView() {
  const { base, graph, id, drawn } = useProject();
  const { decisions } = useFound();
  const navigate = useNavigate();
  const views = useViews();
  const [place, setPlace] = useQueryParam('in', 'screen');
  const [lens, setLens] = useQueryParam('lens', 'beside');
  const [asked, setAsked] = useQueryParam('view', '');
  const [against, setAgainst] = useQueryParam('against', 'source');
  const [sweptScreen] = useQueryParam('screen', '');
  const reference: Reference = isReference(against) ? against : 'source';
  const versions = useQuery({ queryKey: ['versions', id], queryFn: () => api.versions(id) });
  if (!graph.screens.length || !views.length)
    return (
      <Empty
        title="Nothing to compare yet"
        text="Bring in the screens of the app; what runs is then held against them here."
      >
        <Button $kind="primary" onPress={() => void navigate(`${base}/intake`)}>
          Bring screens in
        </Button>
      </Empty>
    );
  const view = views.find((one) => viewId(one) === asked) ?? views[0];
  const screens = screensByKey(drawn);
  const hasPictures = views.some(({ drawing }) => screens.get(drawing)?.reference);
  const references = [
    { id: 'source' as const, label: 'What was drawn' },
    ...(hasPictures ? [{ id: 'picture' as const, label: 'Pictures that came along' }] : []),
    { id: 'pages' as const, label: 'Written as plain pages' },
    { id: 'vue' as const, label: 'Written in Vue' },
    ...(versions.data ?? []).map(({ name, seq }) => ({
      id: `version-${seq}` as const,
      label: `Version “${name}”`,
    })),
  ];
  const title = references.find(({ id: known }) => known === reference)?.label ?? 'The reference';
  return (
    <Whole>
      <Bar aria-label="Compare">
        <Segments role="group" aria-label="What is shown">
          {PLACES.map(({ id: which, label }) => (
            <Button key={which} aria-pressed={place === which} onPress={() => setPlace(which)}>
              {label}
              {which === 'found' && decisions.compared > 0 && ` ${decisions.compared}`}
            </Button>
          ))}
        </Segments>
        {(place === 'screen' || place === 'all') && (
          <Choice
            label="Held against"
            isLabelHidden
            value={reference}
            options={references}
            onChange={(next) => setAgainst(next)}
          />
        )}
        <p />
        {place === 'screen' && (
          <Segments role="group" aria-label="Lens">
            {LENSES.map(({ id: which, label }) => (
              <Button key={which} aria-pressed={lens === which} onPress={() => setLens(which)}>
                {label}
              </Button>
            ))}
          </Segments>
        )}
      </Bar>
      {place === 'all' ? (
        <AllScreens
          views={views}
          reference={reference}
          onOpen={(one) =>
            void navigate(
              `?view=${encodeURIComponent(viewId(one))}${against === 'source' ? '' : `&against=${against}`}`,
            )
          }
        />
      ) : place === 'widths' ? (
        <Sweep views={views} asked={sweptScreen} />
      ) : place === 'found' ? (
        <ComparedFindings
          views={views}
          onView={(one) => void navigate(`?view=${encodeURIComponent(viewId(one))}`)}
          onWidths={(screen) => void navigate(`?in=widths&screen=${encodeURIComponent(screen)}`)}
        />
      ) : place === 'heard' ? (
        <HeardScreens views={views} view={view} onView={(next) => setAsked(viewId(next))} />
      ) : (
        <OneScreen
          key={`${viewId(view)} ${reference}`}
          views={views}
          view={view}
          reference={reference}
          title={title}
          lens={LENSES.some(({ id: known }) => known === lens) ? (lens as Lens) : 'beside'}
          onView={(next) => setAsked(viewId(next))}
        />
      )}
    </Whole>
  );
}

function OneScreen({
  views,
  view,
  reference,
  title,
  lens,
  onView,
}: {
  views: readonly View[];
  view: View;
  reference: Reference;
  title: string;
  lens: Lens;
  onView: (view: View) => void;
}) {
  const { data, error, isFetching, refetch } = useCompared(view, reference);
  const [cause, setCause] = useState<Cause | null>(null);
  const { data: scores = [] } = useScores(useProject().id);
  const last = new Map(
    scores.filter((score) => score.reference === reference).map((score) => [viewId(score), score.percent]),
  );
  const noteOf = (one: View): readonly [short: string, long: string] => {
    const percent = last.get(viewId(one));
    return percent === undefined
      ? ['–', 'not compared']
      : [`${percent.toFixed(2)} %`, `${percent.toFixed(2)} %`];
  };
  return (
    <Parts>
      <ViewList views={views} selected={view} noteOf={noteOf} onSelect={onView} />
      {data ? (
        <Lenses compared={data} lens={lens} reference={title} chosen={cause?.box ?? null} />
      ) : error ? (
        <Empty title="This could not be compared" text={error.message}>
          <Button onPress={() => void refetch()}>Try again</Button>
        </Empty>
      ) : (
        <Empty
          title={isFetching ? 'Drawing both …' : 'Nothing yet'}
          text="A browser draws the source and the running app, and each pixel is held against the other."
        />
      )}
      {data ? <Causes compared={data} chosen={cause} onChoose={setCause} /> : <div />}
    </Parts>
  );
}

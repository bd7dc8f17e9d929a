import { useQuery } from '@tanstack/react-query';
import { type CodeDelivery, screenName, type Version } from '@tovel/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { api } from '../../api/client';
import { useProject, useStanding } from '../../project/context';
import { color } from '../../theme/theme';
import { Button, Choice, Segments } from '../../ui/controls';
import { Empty } from '../../ui/Empty';
import { useQueryParam } from '../../ui/use_query_param';
import { momentInWords, stepInWords } from '../../versions/sittings';
import { ChangedFiles } from './ChangedFiles';
import { DiffLines, FileColumn } from './DiffLines';
import { type Grouping, groupsOf, inFigures } from './groups';
import { useCodeChanges, useDeliveries } from './use_code_changes';
import { Side } from '../side';

const View = styled.div`
  grid-column: 1 / -1;
  min-height: 0;
  display: grid;
  grid-template-columns: 300px 260px minmax(0, 1fr);
`;

const Middle = styled.div`
  grid-column: 2 / -1;
  display: grid;
`;

const HOW: Readonly<Record<CodeDelivery['kind'], string>> = { zip: 'Zip', push: 'Pushed' };

/** So many of the steps since then are told; all of them stand under Versions. */
const MOST_STEPS = 20;

/** Files that say what is shown. */
const SHOWS = /\.(tsx|vue|html)$/;

const GROUPINGS = [
  { id: 'screen', label: 'By screen' },
  { id: 'fate', label: 'By kind' },
] as const satisfies readonly { id: Grouping; label: string }[];

/** Moments that the code of now can be held against, the newest first. */
const momentsOf = (deliveries: readonly CodeDelivery[], versions: readonly Version[]) => [
  ...deliveries.map(({ id, seq, name, kind, madeAt }) => ({
    id: `delivery ${id}`,
    seq,
    name,
    label: `${HOW[kind]}, ${momentInWords(madeAt)}`,
  })),
  ...versions.map(({ id, seq, name }) => ({
    id: `version ${id}`,
    seq,
    name: null,
    label: `Version “${name}”`,
  })),
];

/** What became of the code since it was handed over, file by file and line by line. */
export function ChangesView() {
  const project = useProject();
  const { id, app, design } = project;
  const { history } = useStanding();
  const deliveries = useDeliveries();
  const versions = useQuery({ queryKey: ['versions', id], queryFn: () => api.versions(id) });
  const moments = useMemo(
    () => momentsOf(deliveries.data ?? [], versions.data ?? []),
    [deliveries.data, versions.data],
  );
  const [since, setSince] = useQueryParam('since', '');
  const moment = moments.find((one) => one.id === since) ?? moments[0] ?? null;
  const { changes, problem, done, total } = useCodeChanges(moment);
  const [grouping, setGrouping] = useState<Grouping>('screen');
  const [path, setPath] = useState<string | null>(null);
  const steps = useQuery({
    queryKey: ['timeline', id, history.seq, 'since', moment?.seq],
    queryFn: () => api.timeline(id, {}),
    enabled: moment !== null,
  });
  if (deliveries.isPending || versions.isPending) return <Wide title="Looking …" text="" />;
  if (!moment)
    return (
      <Wide
        title="The code was not handed over yet"
        text="Once it has been downloaded as a zip or pushed, what became of it since then stands here, file by file. A place of the history with a name can be held against it, too."
      />
    );
  const nameOf = (key: string): string | null => (app.screens[key] ? screenName({ design, app }, key) : null);
  const groups = groupsOf(changes ?? [], grouping, nameOf);
  const files = groups.flatMap((group) => group.files);
  // What a screen shows says more than what belongs to it.
  const current =
    files.find((file) => file.path === path) ?? files.find((file) => SHOWS.test(file.path)) ?? files[0];
  const doneSince = (steps.data?.steps ?? []).filter(({ seq }) => seq > moment.seq);
  return (
    <View>
      <Side aria-label="What it is held against">
        <Choice
          label="Since"
          value={moment.id}
          options={moments}
          onChange={(next) => {
            setPath(null);
            setSince(next);
          }}
        />
        {changes && <p role="status">{inFigures(changes)}</p>}
        {problem !== null && <p role="alert">{problem}</p>}
        {doneSince.length > 0 && (
          <section>
            <h3>Done since then</h3>
            <ul aria-label="Steps since then">
              {doneSince.slice(0, MOST_STEPS).map((step) => (
                <li key={step.seq}>{stepInWords(step, nameOf)}</li>
              ))}
            </ul>
            {doneSince.length > MOST_STEPS && <small>and more, under Versions</small>}
          </section>
        )}
      </Side>
      {!changes ? (
        problem === null && (
          <Middle>
            <Empty title="Writing the code of both …" text={total ? `${done} of ${total} screens` : ''} />
          </Middle>
        )
      ) : current ? (
        <>
          <Files>
            <Segments role="group" aria-label="How files are grouped">
              {GROUPINGS.map(({ id: which, label }) => (
                <Button key={which} aria-pressed={grouping === which} onPress={() => setGrouping(which)}>
                  {label}
                </Button>
              ))}
            </Segments>
            <ChangedFiles
              label="Files that changed"
              groups={groups}
              selected={current.path}
              onSelect={setPath}
            />
          </Files>
          <FileColumn aria-label={`Changes of ${current.path}`}>
            <h3>{current.path}</h3>
            {current.movedFrom !== undefined && <p>It was {current.movedFrom}.</p>}
            {current.before === undefined && current.after === undefined ? (
              <p>{current.fate === 'removed' ? 'A picture that is gone.' : 'A picture.'}</p>
            ) : (
              <DiffLines before={current.before ?? ''} after={current.after ?? ''} />
            )}
          </FileColumn>
        </>
      ) : (
        <Middle>
          <Empty
            title="The code is what it was then"
            text="Nothing that was done since changes a line of it."
          />
        </Middle>
      )}
    </View>
  );
}

const Files = styled.div`
  min-height: 0;
  display: grid;
  grid-template: auto minmax(0, 1fr) / minmax(0, 1fr);
  background: ${color.side};
  > [role='group'] {
    margin: 8px 16px;
  }
`;

function Wide({ title, text }: { title: string; text: string }) {
  return (
    <div style={{ gridColumn: '1 / -1', display: 'grid' }}>
      <Empty title={title} text={text} />
    </div>
  );
}

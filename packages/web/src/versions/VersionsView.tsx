import { orderedScreens, screenName } from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject, useStanding } from '../project/context';
import { color } from '../theme/theme';
import { Choice, Field } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { useQueryParam } from '../ui/use_query_param';
import { stepInWords } from './sittings';
import { StateShown } from './StateShown';
import { Timeline } from './Timeline';
import { useTimeline } from './use_timeline';

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

/** Every state that the project was in: to name, to look at, to compare, and to go back to. */
export function VersionsView() {
  const project = useProject();
  const { id, app } = project;
  const { history } = useStanding();
  const [words, setWords] = useState('');
  const [screen, setScreen] = useState('');
  const [at, setAt] = useQueryParam('at', '');
  const { data: versions = [] } = useQuery({ queryKey: ['versions', id], queryFn: () => api.versions(id) });
  const { steps, lines, isPending, onEnd } = useTimeline({ id, seq: history.seq, words, screen, versions });
  const nameOf = useCallback(
    (key: string): string | null => (app.screens[key] ? screenName(project, key) : null),
    [app, project],
  );
  const chosen = at === '' ? history.seq : Number(at);
  const step = steps.find(({ seq }) => seq === chosen) ?? null;
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
            title={isPending ? 'Opening the steps …' : 'No step is like that'}
            text={isPending ? '' : 'Look for other words, or on all screens.'}
          />
        )}
      </Side>
      <StateShown
        at={chosen}
        step={step}
        title={step ? stepInWords(step, nameOf) : chosen === 0 ? 'The beginning' : `Step ${chosen}`}
        versions={versions}
        onNow={() => setAt('')}
      />
    </View>
  );
}

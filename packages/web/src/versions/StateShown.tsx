import type { TimelineStep, Version } from '@tovel/core';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject, useStanding } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';
import { Compared } from './Compared';
import { momentInWords } from './sittings';
import { useComparison } from './use_comparison';

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

interface StateShownProps {
  /** The place in the history. */
  at: number;
  /** The step that led there; null where it is not known. */
  step: TimelineStep | null;
  /** That step in words. */
  title: string;
  versions: readonly Version[];
  /** Told once the project went back to it. */
  onNow: () => void;
}

/** A state that the project was in, held against another one. */
export function StateShown({ at, step, title, versions, onNow }: StateShownProps) {
  const { id } = useProject();
  const { history } = useStanding();
  const [against, setAgainst] = useState('now');
  const [problem, setProblem] = useState<string | null>(null);
  const here = versions.filter(({ seq }) => seq === at);
  const other =
    against === 'now' ? history.seq : against === 'before' ? Math.max(0, at - 1) : Number(against);
  const [from, to] = at <= other ? [at, other] : [other, at];
  const comparison = useComparison(id, from, to);
  return (
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
          {at === history.seq && ' · this is how it is now'}
        </p>
        <StateActions
          at={at}
          since={from !== to && to === history.seq ? from : null}
          step={step}
          title={title}
          here={here}
          onNow={onNow}
          onProblem={setProblem}
        />
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
  );
}

interface StateActionsProps extends Pick<StateShownProps, 'at' | 'step' | 'title' | 'onNow'> {
  /** The place that the Map can be held against; null where that shows nothing. */
  since: number | null;
  /** The versions that the state is called. */
  here: readonly Version[];
  onProblem: (problem: string | null) => void;
}

/** What can be done with a state: name it, look at it, go back to it, take its step back alone. */
function StateActions({ at, since, step, title, here, onNow, onProblem }: StateActionsProps) {
  const { id, session } = useProject();
  const { history } = useStanding();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const [name, setName] = useState('');
  const run = (work: () => Promise<unknown>): void => {
    onProblem(null);
    work().then(
      () => queries.invalidateQueries({ queryKey: ['versions', id] }),
      (error: Error) => onProblem(error.message),
    );
  };
  const nameIt = (): void => {
    if (!name.trim()) return onProblem('A version needs a name.');
    run(async () => {
      await session.settled();
      await api.nameVersion(id, name, at);
      setName('');
    });
  };
  const goBack = (): void => {
    const label = `Go back to ${here[0] ? `“${here[0].name}”` : `after: ${title}`}`.slice(0, 300);
    run(() => session.accept((input) => api.goBack(id, { ...input, to: at, label })).then(onNow));
  };
  return (
    <Actions>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          nameIt();
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
      {at !== history.seq && (
        <>
          <Button onPress={() => void navigate(`/p/${id}/at/${at}/screens`)}>Look at it</Button>
          <Button $kind="primary" onPress={goBack}>
            Go back to this
          </Button>
        </>
      )}
      {since !== null && (
        <Button $kind="quiet" onPress={() => void navigate(`/p/${id}/map?since=${since}`)}>
          What became of it, on the Map
        </Button>
      )}
      {step?.role === 'do' && step.standing === 'done' && (
        <Button $kind="quiet" onPress={() => void session.undo(step)}>
          Take back this step alone
        </Button>
      )}
    </Actions>
  );
}

const saysOfStanding = ({ standing }: TimelineStep): string =>
  standing === 'undone' ? ' · taken back' : standing === 'dropped' ? ' · taken back, and left' : '';

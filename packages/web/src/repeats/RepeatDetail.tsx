import {
  type Component,
  extractionOf,
  holdsContent,
  previewComponent,
  putComponent,
  type TheirProposal,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Field } from '../ui/controls';
import { Row } from '../workbench/panel';
import { toggled } from '../ui/toggled';
import { freeId, isComponentName, joining, splitting, withoutPlaces, withPropNamed } from './repeat_changes';
import { PickedActions, RepeatPlaces } from './RepeatPlaces';
import { RepeatProps } from './RepeatProps';
import type { Repeat } from './RepeatsView';
import { TheirsPart } from './TheirsPart';

const Column = styled.section`
  min-height: 0;
  overflow: auto;
  padding: 16px 20px 28px;
  display: grid;
  gap: 16px;
  align-content: start;
  h2 {
    font-size: 15px;
  }
  h3 {
    font-size: 13px;
    padding-top: 10px;
    border-top: 1px solid ${color.ink};
  }
  p {
    color: ${color.ink2};
  }
`;

const Problem = styled.p`
  && {
    color: ${color.red};
  }
`;

interface RepeatDetailProps {
  repeat: Repeat;
  /** The team's own components that it may be. */
  theirs: readonly TheirProposal[];
  others: readonly Repeat[];
  problem: string | null;
  onTake: () => void;
  onRefuse: () => void;
  onGone: (next: string | null) => void;
}

/** What a component would be in code: as it is made, or as it would be where it cannot or is only proposed. */
function useMade({ id, component, proposal }: Repeat) {
  const { plan } = useProject();
  const made = proposal ? undefined : extractionOf(plan).components.find((other) => other.id === id);
  const preview = useMemo(() => (made ? null : previewComponent(plan, component)), [made, plan, component]);
  return {
    props: made?.props ?? preview?.props ?? [],
    /** Whether something else stands within it in each place. */
    holds: made ? holdsContent(made.root) : !!preview?.holds,
    problem: preview?.problem ?? null,
  };
}

/** One thing that repeats: its name, its props, its places. */
export function RepeatDetail({
  repeat,
  theirs,
  others,
  problem,
  onTake,
  onRefuse,
  onGone,
}: RepeatDetailProps) {
  const { app, session } = useProject();
  const { id, component, proposal } = repeat;
  const { props, holds, problem: unmade } = useMade(repeat);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const trouble = problem ?? unmade;
  const put = (words: string, next: Component): void => session.change(words, putComponent(id, next));
  return (
    <Column aria-label={component.name}>
      <Row>
        <h2 style={{ marginRight: 'auto' }}>
          {component.name}{' '}
          <span style={{ fontWeight: 400, color: color.ink2 }}>
            {component.kind === 'list' ? 'list' : 'component'}
          </span>
        </h2>
        {proposal ? (
          <>
            <Button $kind="primary" onPress={onTake} isDisabled={!!trouble} aria-keyshortcuts="Enter">
              Take it
            </Button>
            <Button onPress={onRefuse} aria-keyshortcuts="Backspace">
              Refuse
            </Button>
          </>
        ) : (
          <Button
            onPress={() => {
              session.change(`Give ${component.name} up`, putComponent(id, null));
              onGone(null);
            }}
          >
            Give it up
          </Button>
        )}
      </Row>
      {proposal && (
        <p>
          {Math.round(proposal.confidence * 100)} % sure, because {proposal.reason}. It saves {proposal.saves}{' '}
          elements.
        </p>
      )}
      {trouble && (
        <Problem role="alert">
          It cannot be made: {trouble}. {proposal ? '' : 'Let places go their own way, or split it.'}
        </Problem>
      )}
      {!proposal && <NameField component={component} onPut={put} />}
      <h3>
        {props.length || holds ? 'What differs from place to place' : 'Nothing differs from place to place'}
      </h3>
      {holds && <p>What stands within it: that is written where it is used, between its tags.</p>}
      {props.length > 0 && (
        <RepeatProps
          component={component}
          props={props}
          {...(proposal
            ? {}
            : {
                onRename: (prop, next) => {
                  const named = withPropNamed(component, props, prop, next);
                  if (named) put(`Rename ${prop.name} to ${next}`, named);
                },
              })}
        />
      )}
      {!proposal && <TheirsPart id={id} component={component} proposals={theirs} props={props} onPut={put} />}
      <h3>
        {component.places.length} {component.kind === 'list' ? 'rows' : 'places'}
      </h3>
      <RepeatPlaces
        places={component.places}
        picked={proposal ? null : picked}
        onPick={(key) => setPicked(toggled(picked, key))}
      />
      {!proposal && (
        <PickedActions
          repeat={repeat}
          others={others}
          count={picked.size}
          onOwnWay={() => {
            const words = `Let ${picked.size} places of ${component.name} go their own way`;
            put(words, withoutPlaces(component, picked));
            setPicked(new Set());
          }}
          onSplit={() => {
            const other = freeId(app.components);
            const words = `Split ${picked.size} places off ${component.name}`;
            session.change(words, splitting(id, component, picked, other));
            onGone(other);
          }}
          onJoin={(other) =>
            session.change(
              `Join ${component.name} and ${other.component.name}`,
              joining(id, component, { ...other, id: other.proposal ? null : other.id }),
            )
          }
        />
      )}
    </Column>
  );
}

/** What it is called in code. */
function NameField({
  component,
  onPut,
}: {
  component: Component;
  onPut: (words: string, next: Component) => void;
}) {
  const [name, setName] = useState(component.name);
  const typed = name.trim();
  const save = (): void => {
    if (isComponentName(typed) && typed !== component.name)
      onPut(`Rename ${component.name} to ${typed}`, { ...component, name: typed });
  };
  return (
    <div style={{ maxWidth: 300 }}>
      <Field
        label="Name in the code"
        isCode
        value={name}
        onChange={setName}
        onBlur={save}
        problem={isComponentName(typed) ? null : 'Letters and digits, a letter first'}
        onKeyDown={(event) => event.key === 'Enter' && save()}
      />
    </div>
  );
}

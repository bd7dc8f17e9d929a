import {
  type ActionProposal,
  describeTarget,
  grouped,
  type Interaction,
  type MadeWork,
  screenName,
} from '@tovel/core';
import { type KeyboardEvent, useMemo, useRef, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { PlacePicture } from '../repeats/PlacePicture';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { SideColumn } from '../ui/SideColumn';
import { toggled } from '../ui/toggled';
import { Head, Middle } from './middle';

const Rows = styled.div`
  min-height: 0;
  overflow: auto;
  padding-bottom: 28px;
  h4 {
    margin: 0;
    position: sticky;
    top: 0;
    z-index: 1;
    padding: 10px 18px 5px;
    font-size: 12.5px;
    background: ${color.sheet};
    border-bottom: 1px solid ${color.ink};
  }
`;

const Row = styled.div<{ $isAt: boolean }>`
  display: grid;
  grid-template-columns: 16px minmax(0, 3fr) minmax(0, 4fr) 56px;
  gap: 10px;
  align-items: center;
  min-height: 33px;
  padding: 3px 18px;
  border-bottom: 1px solid ${color.rule};
  cursor: pointer;
  outline-offset: -3px;
  background: ${({ $isAt }) => ($isAt ? color.lakeTint : 'none')};
  b,
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  b {
    font-weight: 600;
  }
  small {
    color: ${color.ink2};
    text-align: right;
  }
  i {
    width: 13px;
    height: 13px;
    border: 1.5px solid ${color.fieldRule};
  }
  &[aria-selected='true'] i {
    background: ${color.lake};
    border-color: ${color.lake};
    box-shadow: inset 0 0 0 2px ${color.sheet};
  }
`;

const Left = styled.ul`
  padding: 2px 18px;
  li {
    padding: 7px 0;
    border-bottom: 1px solid ${color.rule};
    color: ${color.ink2};
    font-size: 12.5px;
  }
  b {
    color: ${color.ink};
    font-weight: 600;
  }
`;

/** Controls that are at least as sure as this are chosen at first. */
const SURE = 0.6;
/** So many controls are called by name where the others of their kind are only counted. */
const MOST_NAMED = 4;

interface ControlsShownProps {
  /** What would become of all of them. */
  readonly work: MadeWork;
  /** Not there where nothing can be changed. */
  readonly onMake?: (actions: readonly ActionProposal[]) => void;
}

/** What controls most likely do: those that can do it now, to be chosen, and the others with what they wait for. */
export function ControlsShown({ work, onMake }: ControlsShownProps) {
  const project = useProject();
  const { left } = work;
  const after = { design: project.design, app: work.app };
  const made = useMemo(() => [...grouped(work.made, ({ action }) => action.screen).values()].flat(), [work]);
  const [off, setOff] = useState<ReadonlySet<string>>(
    () => new Set(made.flatMap(({ action }) => (action.confidence < SURE ? [action.element] : []))),
  );
  const [wanted, setWanted] = useState<string | null>(null);
  const list = useRef<HTMLDivElement>(null);
  const at = made.find(({ action }) => action.element === wanted) ?? made[0];
  const chosen = made.flatMap(({ action }) => (off.has(action.element) ? [] : [action]));
  const make = (): void => {
    if (chosen.length) onMake?.(chosen);
  };
  const toggle = (key: string): void => setOff(toggled(off, key));
  const onKeyDown = (event: KeyboardEvent): void => {
    const now = made.indexOf(at);
    const step = { ArrowDown: 1, ArrowUp: -1 }[event.key];
    if (step !== undefined) {
      event.preventDefault();
      const next = made[Math.max(0, Math.min(made.length - 1, now + step))].action.element;
      setWanted(next);
      list.current?.querySelector<HTMLElement>(`[data-key="${CSS.escape(next)}"]`)?.focus();
    } else if (event.key === ' ') {
      event.preventDefault();
      if (at) toggle(at.action.element);
    } else if (event.key === 'Enter') make();
  };
  const waits = useMemo(() => byReason(left), [left]);
  return (
    <>
      <Middle aria-label="Controls">
        <Head>
          <h3>Controls</h3>
          {onMake && (
            <div>
              <Button $kind="quiet" isDisabled={!off.size} onPress={() => setOff(new Set())}>
                Choose all
              </Button>
              <Button
                $kind="quiet"
                isDisabled={off.size === made.length}
                onPress={() => setOff(new Set(made.map(({ action }) => action.element)))}
              >
                Choose none
              </Button>
              <Button $kind="primary" isDisabled={!chosen.length} onPress={make} aria-keyshortcuts="Enter">
                {chosen.length === 1 ? 'Make this one work' : `Make these ${chosen.length} work`}
              </Button>
            </div>
          )}
          <p>
            What they most likely do, by their looks, words and places, with the records of their screens.
            Space chooses one or not, Enter makes the chosen ones work.
          </p>
        </Head>
        <Rows>
          <div
            ref={list}
            role="listbox"
            aria-multiselectable="true"
            aria-label="Controls that can work"
            onKeyDown={onKeyDown}
          >
            {made.map(({ action, interaction }, i) => (
              <div key={action.element} role="presentation">
                {made[i - 1]?.action.screen !== action.screen && (
                  <h4>{screenName(project, action.screen)}</h4>
                )}
                <Row
                  role="option"
                  data-key={action.element}
                  aria-selected={!off.has(action.element)}
                  aria-label={`${action.label}: ${wordsOf(after, interaction)}`}
                  tabIndex={at.action.element === action.element ? 0 : -1}
                  $isAt={at.action.element === action.element}
                  onFocus={() => setWanted(action.element)}
                  onClick={() => {
                    setWanted(action.element);
                    toggle(action.element);
                  }}
                >
                  <i aria-hidden="true" />
                  <b>{action.label || 'nameless'}</b>
                  <span>{wordsOf(after, interaction)}</span>
                  <small>{Math.round(action.confidence * 100)} %</small>
                </Row>
              </div>
            ))}
          </div>
          {waits.length > 0 && (
            <>
              <h4>Not yet</h4>
              <Left>
                {waits.map(([why, actions]) => (
                  <li key={why}>
                    {actions.slice(0, MOST_NAMED).map((action, i) => (
                      <span key={action.element}>
                        {i > 0 && ', '}
                        <Link
                          to={`${project.base}/junction/${action.screen}?element=${encodeURIComponent(action.element)}`}
                        >
                          {action.label || 'nameless'}
                        </Link>
                      </span>
                    ))}
                    {actions.length > MOST_NAMED && ` and ${actions.length - MOST_NAMED} more`}: {why}
                  </li>
                ))}
              </Left>
            </>
          )}
        </Rows>
      </Middle>
      <SideColumn aria-label="Control">
        {at && (
          <>
            <h3>{at.action.label || 'nameless'}</h3>
            <p>
              {Math.round(at.action.confidence * 100)} % sure: {at.action.reason}.
            </p>
            <PlacePicture element={at.action.element} width={250} height={120} least={0.6} />
            <Link
              to={`${project.base}/junction/${at.action.screen}?element=${encodeURIComponent(at.action.element)}`}
            >
              {screenName(project, at.action.screen)}
            </Link>
          </>
        )}
      </SideColumn>
    </>
  );
}

/** What an interaction would do, in words: `Sort by name · members`. */
function wordsOf(
  project: Parameters<typeof describeTarget>[0],
  { target, before = [] }: Interaction,
): string {
  return [...before, target]
    .map((step) => {
      const { label, detail } = describeTarget(project, step);
      return detail && step.kind !== 'list' ? `${label}, ${detail}` : label;
    })
    .join(', then ');
}

const byReason = (left: MadeWork['left']): [string, ActionProposal[]][] =>
  [...grouped(left, ({ why }) => why)]
    .map(([why, all]): [string, ActionProposal[]] => [why, all.map(({ action }) => action)])
    .sort(([, a], [, b]) => b.length - a.length);

import { findElement, hostOf, labelOf, screenName } from '@tovel/core';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Button, Choice } from '../ui/controls';
import { Row } from '../workbench/panel';
import { PlacePicture } from './PlacePicture';
import type { Repeat } from './RepeatsView';

const Places = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  align-items: flex-end;
  li {
    display: grid;
    gap: 4px;
    max-width: 260px;
  }
  label {
    display: flex;
    gap: 6px;
    align-items: center;
    font-size: 12px;
  }
  label a {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

/** So many places are shown as pictures at first. */
const SHOWN = 12;

interface RepeatPlacesProps {
  places: readonly string[];
  /** Which of them are chosen, by key; null where none can be. */
  picked: ReadonlySet<string> | null;
  onPick: (key: string) => void;
}

/** Pictures of the places where something stands. */
export function RepeatPlaces({ places, picked, onPick }: RepeatPlacesProps) {
  const project = useProject();
  const { base, design } = project;
  const [showsAll, setShowsAll] = useState(false);
  const shown = showsAll ? places : places.slice(0, SHOWN);
  return (
    <>
      <Places>
        {shown.map((key) => {
          const element = findElement(design, key);
          const host = hostOf(project, key);
          return (
            <li key={key}>
              <PlacePicture element={key} width={240} height={150} />
              <label>
                {picked && (
                  <input
                    type="checkbox"
                    checked={picked.has(key)}
                    aria-label={`Choose the place on ${screenName(project, host)}, ${element ? labelOf(element) : ''}`}
                    onChange={() => onPick(key)}
                  />
                )}
                <Link to={`${base}/screens/at/${host}?element=${encodeURIComponent(key)}`}>
                  {screenName(project, host)}
                  {element ? `: ${labelOf(element)}` : ', gone'}
                </Link>
              </label>
            </li>
          );
        })}
      </Places>
      {places.length > SHOWN && !showsAll && (
        <Button onPress={() => setShowsAll(true)}>Show all {places.length}</Button>
      )}
    </>
  );
}

interface PickedActionsProps {
  repeat: Repeat;
  others: readonly Repeat[];
  /** How many places are chosen. */
  count: number;
  onOwnWay: () => void;
  onSplit: () => void;
  onJoin: (other: Repeat) => void;
}

/** What can be done with the places that are chosen, or with all of them. */
export function PickedActions({ repeat, others, count, onOwnWay, onSplit, onJoin }: PickedActionsProps) {
  const { places, kind } = repeat.component;
  return (
    <Row>
      <Button isDisabled={!count || count === places.length} onPress={onOwnWay}>
        Let {count || 'the chosen'} go their own way
      </Button>
      <Button isDisabled={count < 2 || places.length - count < 2} onPress={onSplit}>
        Split {count || 'the chosen'} off
      </Button>
      {others.length > 0 && (
        <div style={{ width: 230 }}>
          <Choice
            label="Join with another"
            isLabelHidden
            value=""
            options={[
              { id: '', label: 'Join with …' },
              ...others
                .filter((other) => other.component.kind === kind)
                .map((other) => ({ id: other.id, label: other.component.name })),
            ]}
            onChange={(id) => {
              const other = others.find((one) => one.id === id);
              if (other) onJoin(other);
            }}
          />
        </div>
      )}
    </Row>
  );
}

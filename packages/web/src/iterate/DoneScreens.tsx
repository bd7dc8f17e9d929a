import {
  decidedAbout,
  describeDecided,
  elementsByKey,
  type IterationRecord,
  labelOf,
  screenName,
  screensByKey,
} from '@tovel/core';
import { useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { STANDINGS } from './standings';

const Screens = styled.ul`
  list-style: none;
  margin: 0 0 18px;
  padding: 0;
  > li {
    display: grid;
    grid-template-columns: 96px minmax(0, 1fr) auto;
    align-items: center;
    gap: 10px;
    padding: 3px 18px;
    border-top: 1px solid ${color.rule};
    > span {
      color: ${color.ink2};
    }
    > ul {
      grid-column: 1 / -1;
    }
  }
`;

const Went = styled.li<{ $isOn: boolean }>`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  margin: 0 -18px;
  padding: 6px 18px;
  border-top: 1px solid ${color.rule};
  background: ${({ $isOn }) => ($isOn ? color.lakeTint : 'none')};
  > button:first-child {
    border: 0;
    padding: 0;
    background: none;
    color: inherit;
    font-weight: 600;
    text-align: left;
    cursor: pointer;
  }
  > span {
    color: ${color.ink2};
  }
`;

interface DoneScreensProps {
  record: IterationRecord;
  /** The element that is looked at. */
  chosen: string | null;
  onChoose: (element: string | null) => void;
  /** The other element that was pressed in the picture. */
  pointed: { readonly key: string; readonly label: string } | null;
  onMove: (from: string, to: string) => void;
}

/** What became of the screens of an iteration; what went along with one can be put on another element still. */
export function DoneScreens({ record, chosen, onChoose, pointed, onMove }: DoneScreensProps) {
  const project = useProject();
  const { app, base, drawn } = project;
  const [opened, setOpened] = useState<string | null>(null);
  const screens = screensByKey(drawn);
  const decided = decidedAbout(app);
  const wentWith = (key: string): { element: string; label: string; about: string }[] => {
    const screen = screens.get(key);
    if (!screen) return [];
    return [...elementsByKey(screen).values()].flatMap((element) => {
      const about = decided.get(element.key);
      return about?.own.length
        ? [{ element: element.key, label: labelOf(element), about: describeDecided(project, about) }]
        : [];
    });
  };
  return (
    <Screens>
      {record.screens.map(({ screen, name, standing }) => {
        const went = wentWith(screen);
        const isOpen = opened === screen;
        return (
          <li key={`${screen} ${standing}`}>
            <span>{STANDINGS[standing]}</span>
            {screens.has(screen) ? (
              <Link to={`${base}/junction/${screen}`}>{screenName(project, screen)}</Link>
            ) : (
              name
            )}
            {went.length > 0 && (
              <Button
                $kind="quiet"
                aria-expanded={isOpen}
                aria-label={`What went along with ${screenName(project, screen)}`}
                onPress={() => {
                  setOpened(isOpen ? null : screen);
                  onChoose(isOpen ? null : went[0].element);
                }}
              >
                {went.length} went along
              </Button>
            )}
            {isOpen && (
              <ul aria-label="What went along">
                {went.map(({ element, label, about }) => (
                  <Went key={element} $isOn={element === chosen}>
                    <button type="button" aria-current={element === chosen} onClick={() => onChoose(element)}>
                      “{label}”
                    </button>
                    <span>{about}</span>
                    {element === chosen &&
                      (pointed ? (
                        <Button $kind="primary" onPress={() => onMove(element, pointed.key)}>
                          It is “{pointed.label}”
                        </Button>
                      ) : (
                        <span>If it is another element, press that in the picture.</span>
                      ))}
                  </Went>
                ))}
              </ul>
            )}
          </li>
        );
      })}
    </Screens>
  );
}

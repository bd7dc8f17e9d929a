import type { ComparedScreen, Difference, ProjectDifference } from '@tovel/core';
import { useEffect, useMemo, useState } from 'react';
import styled from 'styled-components';
import { BeforeAfter, type Laid, LaidChoice } from '../iterate/BeforeAfter';
import { DifferenceList } from '../iterate/DifferenceList';
import { color } from '../theme/theme';
import { type OpenComparison } from './use_comparison';

const Both = styled.div`
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(220px, 300px) minmax(0, 1fr);
`;

const List = styled.div`
  overflow: auto;
  border-right: 1px solid ${color.rule};
  h4 {
    margin: 0;
    padding: 12px 16px 4px;
    font-size: 12.5px;
  }
  li button,
  li p {
    display: block;
    width: 100%;
    padding: 5px 16px;
    border: 0;
    border-top: 1px solid ${color.rule};
    background: none;
    text-align: left;
    overflow-wrap: anywhere;
  }
  li button {
    cursor: pointer;
  }
  li button:hover,
  li button[aria-pressed='true'] {
    background: ${color.lakeTint};
  }
  span {
    color: ${color.ink2};
  }
  > p {
    padding: 12px 16px;
    color: ${color.ink2};
  }
`;

const Pictures = styled.div`
  overflow: auto;
  padding: 10px 16px 16px;
  > header {
    display: flex;
    justify-content: flex-end;
    padding-bottom: 8px;
  }
  > section {
    margin: 12px -16px 0;
  }
`;

const PARTS: readonly (readonly [ProjectDifference['part'], string])[] = [
  ['screens', 'Screens'],
  ['routes', 'Routes'],
  ['links', 'Links'],
  ['components', 'Components'],
  ['tokens', 'Tokens'],
  ['journeys', 'Journeys'],
  ['variables', 'Variables'],
];
const MOST = 200;

/** What differs between two places of a history, by part; a screen of it with both pictures. */
export function Compared({ comparison, nothing }: { comparison: OpenComparison; nothing: string }) {
  const { list, problem, screen: open } = comparison;
  const [chosen, setChosen] = useState<string | null>(null);
  const [laid, setLaid] = useState<Laid>('beside');
  const [shown, setShown] = useState<{ key: string; screen: ComparedScreen } | null>(null);
  const [marked, setMarked] = useState<Difference | null>(null);
  const screens = useMemo(() => new Set(list?.flatMap(({ screen }) => screen ?? [])), [list]);
  const current = chosen && screens.has(chosen) ? chosen : ([...screens][0] ?? null);
  useEffect(() => {
    if (!current || !list) return;
    let isStale = false;
    setMarked(null);
    open(current).then(
      (screen) => void (isStale || setShown({ key: current, screen })),
      () => {},
    );
    return () => {
      isStale = true;
    };
  }, [current, list, open]);
  if (problem) return <p role="alert">{problem}</p>;
  const page = shown?.key === current ? shown.screen : null;
  return (
    <Both>
      <List aria-label="What differs between both">
        {!list && <p role="status">Comparing …</p>}
        {list?.length === 0 && <p>{nothing}</p>}
        {PARTS.map(([part, title]) => {
          const some = (list ?? []).filter((one) => one.part === part);
          if (!some.length) return null;
          return (
            <section key={part}>
              <h4>
                {title} <span>{some.length}</span>
              </h4>
              <ul>
                {some.slice(0, MOST).map((one, i) => (
                  <li key={i}>
                    {one.screen ? (
                      <button
                        type="button"
                        aria-pressed={one.screen === current}
                        onClick={() => setChosen(one.screen)}
                      >
                        <Line one={one} />
                      </button>
                    ) : (
                      <p>
                        <Line one={one} />
                      </p>
                    )}
                  </li>
                ))}
                {some.length > MOST && (
                  <li>
                    <p>and {some.length - MOST} more</p>
                  </li>
                )}
              </ul>
            </section>
          );
        })}
      </List>
      <Pictures>
        {page && (
          <>
            <header>
              <LaidChoice laid={laid} onLaid={setLaid} isDisabled={!page?.before || !page.after} />
            </header>
            <BeforeAfter
              before={page.before}
              after={page.after}
              laid={laid}
              marked={marked ?? { olds: [], nows: [] }}
              nothingBefore="It was not there."
              nothingAfter="It is not there."
            />
            <section>
              <DifferenceList
                differences={page.differences}
                marked={marked}
                onMark={setMarked}
                nothing="The picture is the same."
              />
            </section>
          </>
        )}
      </Pictures>
    </Both>
  );
}

const Line = ({ one: { label, became, says } }: { one: ProjectDifference }) => (
  <>
    {label}
    <span>
      {became === 'changed' ? '' : ` ${became}`}
      {says && `${became === 'changed' ? ' ' : ', '}${says}`}
    </span>
  </>
);

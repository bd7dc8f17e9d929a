import {
  decideBoth,
  describeEntries,
  findElement,
  type IterationRecord,
  labelOf,
  letGoOf,
  moveDecided,
  putOn,
  screensByKey,
  screenWith,
  type SetAside,
} from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { ElementPicture } from '../picture/ElementPicture';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { DoneScreens } from './DoneScreens';
import { screensInWords, tallyInWords } from './standings';

const View = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(320px, 460px);
  grid-template-rows: auto minmax(0, 1fr);
`;

const Bar = styled.header`
  grid-column: 1 / -1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  > h2,
  > p {
    grid-column: 1;
  }
  > div {
    grid-row: 1 / span 2;
    grid-column: 2;
  }
  padding: 10px 18px;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
  h2 {
    font-size: 15px;
  }
  p {
    color: ${color.ink2};
    font-variant-numeric: tabular-nums;
  }
`;

const Lists = styled.div`
  overflow: auto;
  h3 {
    font-size: 13px;
    padding: 14px 18px 6px;
  }
  > p {
    padding: 0 18px 8px;
    color: ${color.ink2};
    max-width: 70ch;
  }
`;

const Item = styled.div<{ $isOn: boolean }>`
  display: grid;
  gap: 6px;
  padding: 10px 18px;
  border-top: 1px solid ${color.rule};
  background: ${({ $isOn }) => ($isOn ? color.lakeTint : 'none')};
  p {
    color: ${color.ink2};
  }
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 8px;
  }
`;

const Title = styled.button`
  border: 0;
  padding: 0;
  background: none;
  color: inherit;
  text-align: left;
  font-weight: 600;
  cursor: pointer;
`;

/** What the last iteration did, in one line: `9 the same, 3 changed, 1 new · 53 kept, 1 to decide`. */
const inWords = (record: IterationRecord): string =>
  `${screensInWords(record.screens)} · decided elements: ${tallyInWords(record)}`;

/** What the next round of screens changed, and what only a person can say where it belongs now. */
export function DoneView() {
  const project = useProject();
  const { app, drawn, session } = project;
  const number = Math.max(0, ...Object.keys(app.iterations).map(Number));
  const record = app.iterations[String(number)];
  const waiting = useMemo(
    () => Object.entries(app.setAside).sort(([, a], [, b]) => b.iteration - a.iteration),
    [app.setAside],
  );
  const asked = waiting.filter(([, one]) => one.standing === 'asked');
  const both = waiting.filter(([, one]) => one.standing === 'both');
  const letGo = waiting.filter(([, one]) => one.standing === 'letGo');
  const [chosen, setChosen] = useState<string | null>(null);
  const [pointed, setPointed] = useState<string | null>(null);
  /** An element that something went along with, which is looked at. */
  const [went, setWent] = useState<string | null>(null);
  const current =
    chosen && app.setAside[chosen] ? chosen : (asked[0]?.[0] ?? both[0]?.[0] ?? letGo[0]?.[0] ?? null);
  const about = current ? app.setAside[current] : null;
  const own = went ?? (about?.standing === 'both' ? about.element : undefined);
  const element = pointed ?? own ?? about?.candidates.find((key) => findElement(drawn, key)) ?? null;
  const screen =
    (element && screenWith(drawn, element)) ?? (about && screensByKey(drawn).get(about.screen)) ?? null;
  if (!record && !waiting.length)
    return (
      <Empty
        title="No second round yet"
        text="When screens come in again, what changed stands here, and what only you can decide. Bring them in at Intake."
      >
        <NextRound />
      </Empty>
    );
  const choose = (key: string): void => {
    setChosen(key);
    setPointed(null);
    setWent(null);
  };
  const moveTo = (from: string, to: string): void => {
    session.change(`What was decided of “${nameOf(from)}” is of “${nameOf(to)}”`, moveDecided(app, from, to));
    setWent(to);
    setPointed(null);
  };
  const nameOf = (key: string): string => {
    const found = findElement(drawn, key);
    return found ? labelOf(found) : 'an element';
  };
  const take = (key: string, target: string): void => {
    session.change(`Put “${app.setAside[key].label}” on “${nameOf(target)}”`, putOn(app, key, target));
    setChosen(null);
    setPointed(null);
  };
  const row = ([key, one]: readonly [string, SetAside]) => (
    <Waiting
      key={key}
      id={key}
      one={one}
      isOn={key === current && !went}
      pointed={key === current && !went ? pointed : null}
      nameOf={nameOf}
      onChoose={() => choose(key)}
      onTake={(target) => take(key, target)}
    />
  );
  return (
    <View>
      <Bar>
        <h2>{record ? `Iteration ${Object.keys(app.iterations).length + 1}` : 'Iterate'}</h2>
        <p>{record ? inWords(record) : 'What earlier rounds let go.'}</p>
        <NextRound />
      </Bar>
      <Lists>
        <h3>To decide {asked.length}</h3>
        <p>
          {asked.length
            ? 'Each may be another element now. Take what is offered, or press the right one in the picture.'
            : 'Nothing: all that was decided went along, or was let go.'}
        </p>
        {asked.map(row)}
        {both.length > 0 && (
          <>
            <h3>Changed by hand and by the design {both.length}</h3>
            <p>It stays as you made it until you decide.</p>
            {both.map(row)}
          </>
        )}
        <h3>Let go {letGo.length}</h3>
        <p>
          {letGo.length
            ? 'It waits here for as long as the project lives. Choose it, and press the element in the picture that it belongs to.'
            : 'Nothing.'}
        </p>
        {letGo.map(row)}
        {record && (
          <>
            <h3>Screens</h3>
            <DoneScreens
              record={record}
              chosen={went}
              onChoose={(key) => {
                setWent(key);
                setPointed(null);
              }}
              pointed={went && pointed && pointed !== went ? { key: pointed, label: nameOf(pointed) } : null}
              onMove={moveTo}
            />
          </>
        )}
      </Lists>
      {screen ? (
        <ElementPicture screen={screen} element={element} onPick={setPointed} />
      ) : (
        <Empty title="No picture" text="Choose something on the left, and its screen stands here." />
      )}
    </View>
  );
}

interface WaitingProps {
  id: string;
  one: SetAside;
  isOn: boolean;
  /** The element that it may be put on, where one was pointed at for it. */
  pointed: string | null;
  nameOf: (key: string) => string;
  onChoose: () => void;
  onTake: (target: string) => void;
}

/** Something that was decided and has no place, or two; and what can be done with it. */
function Waiting({ id, one, isOn, pointed, nameOf, onChoose, onTake }: WaitingProps) {
  const project = useProject();
  const { app, drawn, session } = project;
  return (
    <Item $isOn={isOn} role="group" aria-label={one.label}>
      <Title type="button" aria-current={isOn} onClick={onChoose}>
        “{isRows(one) ? nameOfRows(one) : one.label}”
      </Title>
      <p>
        {one.element === undefined ? 'A screen' : `On ${one.on}`}:{' '}
        {one.element === undefined
          ? 'its name and route'
          : isRows(one)
            ? 'its places are built otherwise now'
            : describeEntries(project, one.entries)}
      </p>
      <div>
        {one.standing === 'both' && (
          <>
            <Button
              onPress={() =>
                session.change(`Keep what was changed of “${one.label}”`, decideBoth(app, id, 'own'))
              }
            >
              {isRows(one) ? 'Keep it one' : 'Keep yours'}
            </Button>
            <Button
              onPress={() =>
                session.change(`Take the design’s of “${one.label}”`, decideBoth(app, id, 'design'))
              }
            >
              {isRows(one) ? 'Take it apart' : 'Take the design’s'}
            </Button>
          </>
        )}
        {one.element !== undefined &&
          one.candidates
            .filter((target) => findElement(drawn, target))
            .map((target, i) => (
              <Button key={target} $kind={i ? undefined : 'primary'} onPress={() => onTake(target)}>
                It is “{nameOf(target)}”
              </Button>
            ))}
        {pointed && one.element !== undefined && one.standing !== 'both' && (
          <Button $kind="primary" onPress={() => onTake(pointed)}>
            Put it on “{nameOf(pointed)}”
          </Button>
        )}
        {one.standing === 'asked' && (
          <Button onPress={() => session.change(`Let go of “${one.label}”`, letGoOf(app, id))}>Let go</Button>
        )}
      </div>
    </Item>
  );
}

/** Whether it is about a list or component whose places are built otherwise now. */
const isRows = ({ standing, entries }: SetAside): boolean =>
  standing === 'both' && entries[0].table === 'components';
const nameOfRows = ({ entries }: SetAside): string => (entries[0].value as { readonly name: string }).name;

const Ways = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  max-width: 620px;
`;

/** The ways to a next round: what came by an address is one press away. */
function NextRound() {
  const { id, base } = useProject();
  const navigate = useNavigate();
  const { data: sources = [] } = useQuery({ queryKey: ['sources', id], queryFn: () => api.sources(id) });
  return (
    <Ways>
      {sources.map((source) => (
        <Button
          key={source.id}
          $kind="primary"
          onPress={() => void navigate(`${base}/intake?refresh=${source.id}`)}
        >
          Ask {shortAddress(source.address)} for the next round
        </Button>
      ))}
      <Button onPress={() => void navigate(`${base}/intake`)}>Bring screens in</Button>
    </Ways>
  );
}

/** The end of an address, which says most. */
const shortAddress = (address: string): string => {
  const { host, pathname } = new URL(address);
  const whole = host + pathname;
  return whole.length > 44 ? `…${whole.slice(-43)}` : whole;
};

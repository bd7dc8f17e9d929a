import {
  all,
  defaultTurn,
  nameProblem,
  hasAddress,
  normaliseRoute,
  orderedScreens,
  putScreen,
  putUse,
  roleProposals,
  rerouted,
  reroutedProblem,
  routeFormProblem,
  type Screen,
  type Use,
  type ScreenEntry,
  screensByKey,
  sentenceCase,
  setStart,
  takeRoles,
} from '@tovel/core';
import { type KeyboardEvent, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import styled from 'styled-components';
import { pictureSize } from '../picture/picture_size';
import { LazyPicture } from '../picture/ScreenPicture';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { SavedField } from '../ui/SavedField';
import { ScreensNav } from './ScreensNav';
import { useQueryParam } from '../ui/use_query_param';
import { SizeSlider } from '../ui/SizeSlider';

const View = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  grid-template-rows: auto minmax(0, 1fr);
  > div:first-child {
    grid-column: 1 / -1;
  }
`;

const Board = styled.div`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Head = styled.div`
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 10px 18px;
  h2 {
    font-size: 15px;
    margin-right: auto;
  }
`;

const Cards = styled.div`
  overflow: auto;
  padding: 4px 18px 24px;
  display: flex;
  flex-wrap: wrap;
  gap: 18px 14px;
  align-content: flex-start;
  align-items: flex-start;
`;

const Card = styled.div<{ $isOn: boolean; $isSkipped: boolean }>`
  cursor: pointer;
  min-width: 104px;
  outline: none;
  > div:first-child {
    width: fit-content;
    overflow: hidden;
    border: 1px solid ${color.rule};
    outline: ${({ $isOn }) => ($isOn ? `2px solid ${color.ink}` : 'none')};
    outline-offset: 2px;
    opacity: ${({ $isSkipped }) => ($isSkipped ? 0.45 : 1)};
  }
  &:focus-visible > div:first-child {
    outline: 3px solid ${color.lake};
    outline-offset: 2px;
  }
  b {
    display: block;
    margin-top: 7px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    display: block;
    font: 11.5px ${font.code};
    color: ${color.ink2};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Panel = styled.aside`
  min-height: 0;
  overflow: auto;
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
  padding: 14px 18px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  h2 {
    font-size: 15px;
  }
  dl {
    display: grid;
    grid-template-columns: 76px 1fr;
    gap: 4px 10px;
    padding-top: 12px;
    border-top: 1px solid ${color.rule};
  }
  dt {
    color: ${color.ink2};
  }
  dd {
    overflow-wrap: anywhere;
  }
`;

const Buttons = styled.div`
  display: flex;
  gap: 8px;
  flex-wrap: wrap;
`;

const SCALES = { min: 0.08, max: 0.5, first: 0.2 };

/** All screens side by side at their true relative size; the chosen one can be named, routed, skipped and moved. */
export function ScreensView() {
  const { app, design, graph, base, session } = useProject();
  const navigate = useNavigate();
  const [chosen, select] = useQueryParam('screen', '');
  const [scale, setScale] = useState(SCALES.first);
  const screens = screensByKey(design);
  const order = orderedScreens(app).filter((key) => screens.has(key));
  const selected = order.find((key) => key === chosen) ?? order[0];
  if (!selected) {
    return (
      <Empty
        title="No screens yet"
        text="Bring in the drawings and pages of the app; they will stand here side by side."
      >
        <Button $kind="primary" onPress={() => void navigate(`${base}/intake`)}>
          Bring screens in
        </Button>
      </Empty>
    );
  }
  const toggleUse = (key: string): void => {
    const entry = app.screens[key];
    // What has not been drawn can only be dropped.
    if (entry.use === 'planned') return;
    const use = entry.use === 'screen' ? 'skip' : 'screen';
    session.change(`${use === 'skip' ? 'Skip' : 'Use'} ${entry.name}`, putUse(app, key, use));
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    // The card with the focus, which may be further on than what has been drawn as chosen.
    const focused = (event.target as HTMLElement).id.replace(/^card-/, '');
    const at = order.indexOf(focused);
    const go = (to: number): void => {
      event.preventDefault();
      const key = order[Math.max(0, Math.min(order.length - 1, to))];
      select(key);
      document.getElementById(`card-${key}`)?.focus();
    };
    if (event.key === 'ArrowRight' || event.key === 'ArrowDown') go(at + 1);
    else if (event.key === 'ArrowLeft' || event.key === 'ArrowUp') go(at - 1);
    else if (event.key === 'Home') go(0);
    else if (event.key === 'End') go(order.length - 1);
    else if (event.key === 'Enter') void navigate(`${base}/junction/${focused}`);
    else if (event.key.toLowerCase() === 's' && !event.ctrlKey && !event.metaKey) toggleUse(focused);
  };
  const used = graph.screens.length;
  return (
    <View>
      <ScreensNav>
        <RolesOfAll />
      </ScreensNav>
      <Board>
        <Head>
          <h2>
            {used} {used === 1 ? 'screen' : 'screens'}
            {order.length > used && (
              <span style={{ fontWeight: 400, color: color.ink2 }}>
                {' '}
                and {order.length - used}{' '}
                {order.every((key) => app.screens[key].use === 'screen' || app.screens[key].use === 'skip')
                  ? 'skipped'
                  : 'others'}
              </span>
            )}
          </h2>
          <SizeSlider scales={SCALES} value={scale} onChange={setScale} />
        </Head>
        <Cards role="listbox" aria-label="Screens" aria-orientation="horizontal" onKeyDown={onKeyDown}>
          {order.map((key) => (
            <ScreenCard
              key={key}
              screen={screens.get(key)!}
              entry={app.screens[key]}
              scale={scale}
              isOn={key === selected}
              isStart={app.start === key}
              onSelect={() => select(key)}
              onOpen={() => void navigate(`${base}/junction/${key}`)}
            />
          ))}
        </Cards>
      </Board>
      <ScreenPanel
        key={selected}
        screen={screens.get(selected)!}
        order={order}
        onToggleUse={() => toggleUse(selected)}
      />
    </View>
  );
}

interface CardProps {
  screen: Screen;
  entry: ScreenEntry;
  scale: number;
  isOn: boolean;
  isStart: boolean;
  onSelect: () => void;
  onOpen: () => void;
}

function ScreenCard({ screen, entry, scale, isOn, isStart, onSelect, onOpen }: CardProps) {
  const { width, height } = pictureSize(screen, scale);
  const isSkipped = entry.use !== 'screen';
  return (
    <Card
      id={`card-${screen.key}`}
      role="option"
      aria-selected={isOn}
      aria-label={`${entry.name}${isSkipped ? ', skipped' : ''}${isStart ? ', start screen' : ''}`}
      tabIndex={isOn ? 0 : -1}
      $isOn={isOn}
      $isSkipped={isSkipped}
      onClick={onSelect}
      onDoubleClick={onOpen}
      style={{ width: Math.max(width + 2, 104) }}
    >
      <div>
        <LazyPicture screen={screen} width={width} height={height} />
      </div>
      <b title={entry.name}>{entry.name}</b>
      <small>
        {isSkipped
          ? entry.use === 'skip'
            ? 'skipped'
            : entry.use
          : isStart && entry.route !== '/'
            ? `${entry.route} · start`
            : isStart
              ? '/ · start'
              : entry.route}
      </small>
    </Card>
  );
}

/** Proposals of roles that are at least so sure are taken together. */
const SURE = 0.8;

/** Takes what is sure about the elements of all screens at once. */
function RolesOfAll() {
  const { app, drawn, session, graph } = useProject();
  const names = graph.screens.join();
  const sure = useMemo(() => {
    const screens = screensByKey(drawn);
    return graph.screens.flatMap((key) =>
      roleProposals(app, screens.get(key)!).filter(({ guess }) => guess.confidence >= SURE),
    );
    // Which screens are used is what their names say.
  }, [app, drawn, names]);
  return (
    <>
      <span style={{ marginLeft: 'auto', color: color.ink2 }}>
        {sure.length
          ? `${sure.length} roles are proposed that are sure`
          : 'All roles that are sure are decided'}
      </span>
      <Button
        isDisabled={!sure.length}
        onPress={() => session.change(`Take ${sure.length} roles on all screens`, takeRoles(app, sure, SURE))}
      >
        Take them on all screens
      </Button>
    </>
  );
}

/** What is said of another screen. */
const BELONGING: ReadonlySet<Use> = new Set(['counterpart', 'overlay', 'alternative', 'state']);

/** Where the layouts of a screen and its counterpart meet. */
function Turn({ screen, entry }: { screen: Screen; entry: ScreenEntry }) {
  const { app, drawn, session } = useProject();
  const main = screensByKey(drawn).get(entry.of!);
  const usual = main ? defaultTurn(main.width, screen.width) : 768;
  const [typed, setTyped] = useState(String(entry.turn ?? usual));
  const problem = /^\d{3,4}$/.test(typed) ? null : 'A width in px';
  const save = (): void => {
    const turn = Number(typed);
    if (problem || turn === (entry.turn ?? usual)) return;
    session.change(`${entry.name} takes over at ${turn} px`, putScreen(screen.key, { ...entry, turn }));
  };
  return (
    <Field
      label={`Takes over from ${app.screens[entry.of!]?.name ?? 'its screen'} at, in px`}
      value={typed}
      onChange={setTyped}
      onBlur={save}
      onKeyDown={(event) => event.key === 'Enter' && save()}
      problem={problem}
    />
  );
}

function ScreenPanel({
  screen,
  order,
  onToggleUse,
}: {
  screen: Screen;
  order: readonly string[];
  onToggleUse: () => void;
}) {
  const project = useProject();
  const { app, graph, base, session } = project;
  const entry = app.screens[screen.key];
  const saveName = (name: string): void =>
    session.change(
      `Rename ${entry.name} to ${name.trim()}`,
      putScreen(screen.key, { ...entry, name: name.trim() }),
    );
  const saveRoute = (route: string): void => {
    const next = normaliseRoute(route);
    if (next !== entry.route)
      session.change(`Route ${entry.name} to ${next}`, rerouted(project, screen.key, next));
  };
  const move = (by: 1 | -1): void => {
    const other = order[order.indexOf(screen.key) + by];
    const swap = [
      putScreen(screen.key, { ...entry, order: app.screens[other].order }),
      putScreen(other, { ...app.screens[other], order: entry.order }),
    ];
    session.change(`Move ${entry.name} ${by < 0 ? 'earlier' : 'later'}`, all(swap));
  };
  const remove = (): void =>
    session.change(
      `Delete ${entry.name}`,
      all([putScreen(screen.key, null), ...(app.start === screen.key ? [setStart(null)] : [])]),
    );
  const at = order.indexOf(screen.key);
  const arrivals = graph.arrivals.get(screen.key)?.length ?? 0;
  const states = graph.elements.get(screen.key) ?? [];
  return (
    <Panel aria-label="The chosen screen">
      <h2 style={{ overflow: 'hidden', textOverflow: 'ellipsis' }}>{entry.name}</h2>
      <SavedField
        key={`name ${screen.key}`}
        label="Name"
        value={entry.name}
        problemOf={(text) => nameProblem(app, screen.key, text)}
        isCheckedAlways
        onSave={saveName}
      />
      <SavedField
        key={`route ${screen.key}`}
        label="Route"
        isCode
        value={entry.route}
        problemOf={(text) =>
          hasAddress(entry) ? reroutedProblem(project, screen.key, text) : routeFormProblem(text)
        }
        isCheckedAlways
        onSave={saveRoute}
      />
      <Choice
        label="Use"
        value={entry.use}
        options={[
          { id: 'screen', label: 'A screen of the app' },
          { id: 'skip', label: 'Skip it' },
          ...(entry.use === 'planned' ? [{ id: 'planned' as const, label: 'Still to be drawn' }] : []),
          ...(BELONGING.has(entry.use)
            ? [
                {
                  id: entry.use,
                  label: `${sentenceCase(entry.use)} of ${app.screens[entry.of ?? '']?.name ?? 'a screen'}`,
                },
              ]
            : []),
        ]}
        onChange={(use) => use !== entry.use && onToggleUse()}
      />
      {entry.use === 'counterpart' && entry.of && <Turn key={screen.key} screen={screen} entry={entry} />}
      <Buttons>
        <Button
          isDisabled={app.start === screen.key || entry.use !== 'screen'}
          onPress={() => session.change(`Start with ${entry.name}`, setStart(screen.key))}
        >
          {app.start === screen.key ? 'Is the start' : 'Make it the start'}
        </Button>
        <Button isDisabled={at === 0} onPress={() => move(-1)}>
          Earlier
        </Button>
        <Button isDisabled={at === order.length - 1} onPress={() => move(1)}>
          Later
        </Button>
      </Buttons>
      <dl>
        <dt>Drawn</dt>
        <dd>
          {screen.width} × {Math.round(screen.height)}
        </dd>
        <dt>File</dt>
        <dd className="mono">{screen.source.file}</dd>
        <dt>Live</dt>
        <dd>
          {states.filter((state) => state.standing === 'live').length} of{' '}
          {states.filter((state) => state.standing !== 'still').length}
        </dd>
        <dt>Arrivals</dt>
        <dd>{arrivals || 'none'}</dd>
      </dl>
      <Buttons>
        {entry.use === 'screen' && <Link to={`${base}/screens/at/${screen.key}`}>Its elements</Link>}
        <Link to={`${base}/junction/${screen.key}`}>Open in Junction</Link>
      </Buttons>
      <Button $kind="danger" onPress={remove} style={{ alignSelf: 'flex-start', marginTop: 'auto' }}>
        Delete this screen
      </Button>
    </Panel>
  );
}

import { screensByKey } from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { screenAtPath } from './place';
import { AdaptPanel } from './AdaptPanel';
import { type PointedTold, usePointed } from './use_pointed';
import { OpenEndBoard, type Pressed, useOpenEnds } from './OpenEnds';
import { Recording } from './Recording';
import { StatePanel } from './StatePanel';
import { TapePanel } from './TapePanel';
import type { Told } from './recorded';
import { useRecorder } from './use_recorder';
import { type ReplayTold, useReplay } from './use_replay';
import { type TapeTold, useTape } from './use_tape';
import { Together } from './Together';
import { type StateTold, useRemembered } from './use_remembered';
import { Sized } from './Sized';
import { type FormEvent, useEffect, useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button, fieldBox, Segments } from '../ui/controls';
import { Empty } from '../ui/Empty';

const View = styled.div`
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 8px 16px;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
  form {
    flex: 1;
    min-width: 150px;
  }
`;

const Address = styled.input`
  ${fieldBox}
  font: 12px ${font.code};
`;

const Stage = styled.div`
  position: relative;
  overflow: auto;
  padding: 16px;
  display: flex;
  iframe {
    display: block;
    margin: 0 auto;
    flex: none;
    height: 100%;
    border: 1px solid ${color.fieldRule};
    background: white;
  }
`;

const Building = styled.p`
  position: absolute;
  /* Over the sheet, which is white until the app is there. */
  z-index: 1;
  inset: 0;
  margin: auto;
  width: max-content;
  height: max-content;
  display: grid;
  gap: 8px;
  padding: 10px 16px;
  color: ${color.ink2};
  background: ${color.sheet};
  border: 1px solid ${color.rule};
  font-variant-numeric: tabular-nums;
  animation: appear 0s 0.3s backwards;
  @keyframes appear {
    from {
      visibility: hidden;
    }
  }
`;

const Beside = styled.div<{ $side: number | null }>`
  min-height: 0;
  display: grid;
  grid-template-columns: ${({ $side }) => ($side === null ? 'minmax(0, 1fr)' : `minmax(0, 1fr) ${$side}px`)};
`;

const WIDTHS = [
  { label: '390', width: 390 },
  { label: '768', width: 768 },
  { label: '1280', width: 1280 },
  { label: 'Whole', width: null },
] as const;
/** Widths that are shown beside each other. */
const TOGETHER = [390, 768, 1280] as const;

const NOWHERE: readonly string[] = [];

/** What can be opened beside the running app, and how wide that is, in px. */
const PANELS = {
  adapt: { title: 'Adapt', width: 336 },
  state: { title: 'What it remembers', width: 286 },
  tape: { title: 'Tape', width: 286 },
} as const;

interface Place {
  readonly path: string;
  readonly canGoBack: boolean;
  readonly canGoForward: boolean;
}

/** All that the running app tells. */
type Heard = Place & Told & StateTold & TapeTold & ReplayTold & PointedTold;

/** What was pressed in a frame, which may be drawn smaller, placed in what the frame lies in. */
function placedIn(stage: HTMLElement, frame: HTMLElement, { key, x, y }: Pressed): Pressed {
  const [outer, inner] = [stage.getBoundingClientRect(), frame.getBoundingClientRect()];
  const scale = inner.width / frame.offsetWidth;
  return {
    key,
    x: inner.left - outer.left + stage.scrollLeft + x * scale,
    y: inner.top - outer.top + stage.scrollTop + y * scale,
  };
}

/** The generated app itself, on an origin of its own. */
export function RunView() {
  const project = useProject();
  const { id, base, past, graph, app, built, building, design } = project;
  const navigate = useNavigate();
  const { data: settings } = useQuery({ queryKey: ['settings'], queryFn: api.settings, staleTime: Infinity });
  const [params] = useSearchParams();
  const [isThere, setThere] = useState(false);
  const [place, setPlace] = useState<Place>({ path: '/', canGoBack: false, canGoForward: false });
  const [typed, setTyped] = useState<string | null>(null);
  const start = app.start ? design.screens.find((screen) => screen.key === app.start) : undefined;
  const askedWidth = Number(params.get('width'));
  const [isTogether, setTogether] = useState(false);
  const [width, setWidth] = useState<number | null>(
    askedWidth >= 200 && askedWidth <= 4000 ? askedWidth : start && start.width <= 600 ? 390 : null,
  );
  const frame = useRef<HTMLIFrameElement>(null);
  /** Where frames begin that are made anew. */
  const [first, setFirst] = useState(params.get('at') ?? '/');
  const origin = settings
    ? `${window.location.protocol}//${window.location.hostname}:${settings.runPort}`
    : null;

  const recorder = useRecorder(params.get('record') === '1');

  const remembered = useRemembered();
  const [panel, setPanel] = useState<'state' | 'tape' | 'adapt' | null>(null);
  const [isLit, setLit] = useState(false);
  const [pressed, setPressed] = useState<Pressed | null>(null);
  const [loads, setLoads] = useState(0);
  const stage = useRef<HTMLDivElement>(null);

  const tell = (message: object): void => frame.current?.contentWindow?.postMessage(message, origin ?? '');
  const tape = useTape();
  const replay = useReplay(tell);
  const here = screenAtPath(project, place.path);
  const seen = here ? [here, ...graph.overlays] : NOWHERE;
  const pointed = usePointed(seen, tell, loads);
  const listeners = useRef<readonly { readonly hear: (told: Heard) => void }[]>([]);
  listeners.current = [recorder, remembered, tape, replay, pointed];

  useEffect(() => {
    const hear = (event: MessageEvent): void => {
      const data = event.data as Heard | null;
      if (event.origin !== origin || event.source !== frame.current?.contentWindow || !data) return;
      for (const { hear: take } of listeners.current) take(data);
      if (data.tovel === 'open-end') {
        setPressed(placedIn(stage.current!, frame.current!, event.data as Pressed));
        return;
      }
      if (data.tovel !== 'place') return;
      setPressed(null);
      setLoads((count) => count + 1);
      setPlace(data);
      setThere(true);
      setTyped(null);
    };
    window.addEventListener('message', hear);
    return () => window.removeEventListener('message', hear);
  }, [origin]);

  const { marks, states } = useOpenEnds(seen);
  // What was loaded anew is lit anew.
  useEffect(() => {
    if (isThere) tell({ tovel: 'mark', marks: isLit ? marks : [] });
  }, [marks, isLit, isThere, loads]);
  // Those of what may open over it are lit when it does.
  const own = new Set((here ? graph.elements.get(here) : undefined)?.map(({ element }) => element.key));
  const count = marks.filter(({ key }) => own.has(key)).length;

  // A change was built: the frame takes it over where it is.
  useEffect(() => {
    if (built) frame.current?.contentWindow?.postMessage({ tovel: 'refresh' }, origin ?? '*');
  }, [built, origin]);

  if (!graph.screens.length) {
    return (
      <Empty title="Nothing to run yet" text="Bring in the screens of the app, and it runs here.">
        <Button $kind="primary" onPress={() => void navigate(`${base}/intake`)}>
          Bring screens in
        </Button>
      </Empty>
    );
  }
  const open = (next: typeof panel): void => {
    setPanel(next);
    pointed.turn(next === 'adapt');
    if (next === 'adapt') setLit(false);
  };
  const go = (event: FormEvent): void => {
    event.preventDefault();
    const path = (typed ?? place.path).trim();
    tell({ tovel: 'go', to: path.startsWith('/') ? path : `/${path}` });
  };
  return (
    <View>
      <Bar role="toolbar" aria-label="Run">
        <Button aria-label="Back" isDisabled={!place.canGoBack} onPress={() => tell({ tovel: 'back' })}>
          ←
        </Button>
        <Button
          aria-label="Forward"
          isDisabled={!place.canGoForward}
          onPress={() => tell({ tovel: 'forward' })}
        >
          →
        </Button>
        <Button onPress={() => tell({ tovel: 'reload' })}>Reload</Button>
        <Recording recorder={recorder} path={place.path} />
        <form onSubmit={go}>
          <Address
            aria-label="Address in the app"
            value={typed ?? place.path}
            onChange={(event) => setTyped(event.target.value)}
            onBlur={() => setTyped(null)}
            spellCheck={false}
          />
        </form>
        {here && <Link to={`${base}/junction/${here}`}>{app.screens[here].name} in Junction</Link>}
        <Button
          aria-pressed={isLit}
          isDisabled={past !== null}
          onPress={() => {
            setLit(!isLit);
            setPressed(null);
            if (!isLit && panel === 'adapt') open(null);
          }}
        >
          {count} {count === 1 ? 'open end' : 'open ends'} here
        </Button>
        {(['adapt', 'state', 'tape'] as const).map((one) => (
          <Button
            key={one}
            aria-pressed={panel === one}
            isDisabled={one === 'adapt' && (past !== null || !here)}
            onPress={() => open(panel === one ? null : one)}
          >
            {PANELS[one].title}
          </Button>
        ))}
        <Segments role="group" aria-label="Width in px">
          {WIDTHS.map((choice) => (
            <Button
              key={choice.label}
              aria-pressed={!isTogether && width === choice.width}
              onPress={() => {
                setWidth(choice.width);
                if (isTogether) setFirst(place.path);
                setTogether(false);
              }}
            >
              {choice.label}
            </Button>
          ))}
          <Button
            aria-pressed={isTogether}
            onPress={() => {
              if (!isTogether) setFirst(place.path);
              setTogether(true);
            }}
          >
            Three
          </Button>
        </Segments>
      </Bar>
      <Beside $side={panel && PANELS[panel].width}>
        <Stage ref={stage}>
          {(!isThere || building) && (
            <Building role="status">
              {building?.total
                ? `Writing the app: ${building.done} of ${building.total} screens`
                : 'Building the app …'}
              {building && <progress value={building.done} max={building.total} aria-hidden />}
            </Building>
          )}
          {origin && isTogether && (
            <Together
              widths={TOGETHER}
              src={`${origin}/${past === null ? id : `${id}~${past}`}${first}`}
              origin={origin}
              first={frame}
              built={built}
            />
          )}
          {origin && !isTogether && (
            <Sized
              width={width}
              screen={here ? screensByKey(design).get(here) : undefined}
              onWidth={setWidth}
            >
              <iframe
                ref={frame}
                title="The running app"
                src={`${origin}/${past === null ? id : `${id}~${past}`}${first}`}
                sandbox="allow-scripts allow-same-origin allow-forms"
              />
            </Sized>
          )}
          {pressed && states.has(pressed.key) && (
            <OpenEndBoard
              key={pressed.key}
              pressed={pressed}
              state={states.get(pressed.key)!}
              area={{
                width: stage.current!.scrollWidth,
                height: stage.current!.clientHeight,
              }}
              onClose={() => setPressed(null)}
            />
          )}
        </Stage>
        {panel === 'adapt' && here && (
          <AdaptPanel pointed={pointed} here={here} width={isTogether ? null : width} />
        )}
        {panel === 'state' && <StatePanel remembered={remembered} tell={tell} />}
        {panel === 'tape' && <TapePanel tape={tape} replay={replay} recorder={recorder} tell={tell} />}
      </Beside>
    </View>
  );
}

import { screensByKey } from '@tovel/core';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { AdaptPanel } from './AdaptPanel';
import { BuildNews } from './BuildNews';
import { OpenEndBoard } from './OpenEnds';
import { Recording } from './Recording';
import { PANELS, type PanelName, RunBar } from './RunBar';
import { Sized } from './Sized';
import { StatePanel } from './StatePanel';
import { TapePanel } from './TapePanel';
import { Together } from './Together';
import { useRunningApp } from './use_running_app';

const View = styled.div`
  height: 100%;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
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

const Beside = styled.div<{ $side: number | null }>`
  min-height: 0;
  display: grid;
  grid-template-columns: ${({ $side }) => ($side === null ? 'minmax(0, 1fr)' : `minmax(0, 1fr) ${$side}px`)};
`;

/** Widths that are shown beside each other. */
const TOGETHER = [390, 768, 1280] as const;

/** The generated app itself, on an origin of its own. */
export function RunView() {
  const project = useProject();
  const { id, base, past, graph, app, design } = project;
  const navigate = useNavigate();
  const { data: settings } = useQuery({ queryKey: ['settings'], queryFn: api.settings, staleTime: Infinity });
  const [params] = useSearchParams();
  const start = app.start ? design.screens.find((screen) => screen.key === app.start) : undefined;
  const askedWidth = Number(params.get('width'));
  const [isTogether, setTogether] = useState(false);
  const [width, setWidth] = useState<number | null>(
    askedWidth >= 200 && askedWidth <= 4000 ? askedWidth : start && start.width <= 600 ? 390 : null,
  );
  /** Where frames begin that are made anew. */
  const [first, setFirst] = useState(params.get('at') ?? '/');
  const origin = settings
    ? `${window.location.protocol}//${window.location.hostname}:${settings.runPort}`
    : null;

  const [panel, setPanel] = useState<PanelName | null>(null);
  const [isLit, setLit] = useState(false);
  const stage = useRef<HTMLDivElement>(null);
  const isRecording = params.get('record') === '1';
  const running = useRunningApp(origin, stage, { begins: first, isRecording, isLit });
  const { place, here, frames, pointed, pressed, recorder, tape, replay, remembered } = running;

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
  return (
    <View>
      <RunBar
        place={place}
        here={here}
        tell={frames.tell}
        recording={<Recording recorder={recorder} path={place.path} />}
        openEnds={{
          count: running.openEnds.count,
          isLit,
          onLit: () => {
            setLit(!isLit);
            running.setPressed(null);
            if (!isLit && panel === 'adapt') open(null);
          },
        }}
        panel={panel}
        onPanel={open}
        width={isTogether ? 'together' : width}
        onWidth={(next) => {
          // Frames that are made anew begin where the app was.
          if ((next === 'together') !== isTogether) setFirst(place.path);
          setTogether(next === 'together');
          if (next !== 'together') setWidth(next);
        }}
      />
      <Beside $side={panel && PANELS[panel].width}>
        <Stage ref={stage}>
          <BuildNews isThere={running.isThere} tell={frames.tellAll} />
          {origin && isTogether && (
            <Together
              widths={TOGETHER}
              src={`${origin}/${past === null ? id : `${id}~${past}`}${first}`}
              origin={origin}
              frames={frames}
            />
          )}
          {origin && !isTogether && (
            <Sized
              width={width}
              screen={here ? screensByKey(design).get(here) : undefined}
              onWidth={setWidth}
            >
              <iframe
                ref={frames.first}
                title="The running app"
                src={`${origin}/${past === null ? id : `${id}~${past}`}${first}`}
                sandbox="allow-scripts allow-same-origin allow-forms"
              />
            </Sized>
          )}
          {pressed && running.openEnds.states.has(pressed.key) && (
            <OpenEndBoard
              key={pressed.key}
              pressed={pressed}
              state={running.openEnds.states.get(pressed.key)!}
              area={{
                width: stage.current!.scrollWidth,
                height: stage.current!.clientHeight,
              }}
              onClose={() => running.setPressed(null)}
            />
          )}
        </Stage>
        {panel === 'adapt' && here && (
          <AdaptPanel
            pointed={pointed}
            here={here}
            width={isTogether ? (running.pointedWidth ?? TOGETHER[0]) : width}
          />
        )}
        {panel === 'state' && <StatePanel remembered={remembered} tell={frames.tell} />}
        {panel === 'tape' && <TapePanel tape={tape} replay={replay} recorder={recorder} tell={frames.tell} />}
      </Beside>
    </View>
  );
}

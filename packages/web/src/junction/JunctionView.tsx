import {
  type Arrival,
  describeTarget,
  type ElementState,
  type Interaction,
  isUsed,
  type LinkProposal,
  putInteraction,
  putStill,
  refuseLink,
  screenName,
  screensByKey,
  takeLinks,
  type Target,
} from '@tovel/core';
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { useElementInAddress } from '../project/element_in_address';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { Arrivals } from './Arrivals';
import { Departures } from './Departures';
import { EditPanel } from './EditPanel';
import { Stage } from './Stage';
import { useOpenLinks } from './use_open_links';

const View = styled.div<{ $isWide: boolean }>`
  height: 100%;
  display: grid;
  grid-template-columns: 196px ${({ $isWide }) => ($isWide ? 'minmax(0, 1fr) minmax(560px, 1fr)' : '400px minmax(0, 1fr)')};
  @media (max-width: 1180px) {
    grid-template-columns: 150px ${({ $isWide }) => ($isWide ? 'minmax(0, 1fr) minmax(440px, 1fr)' : '360px minmax(0, 1fr)')};
  }
`;

const Side = styled.section`
  min-height: 0;
  display: flex;
  flex-direction: column;
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
`;

/** Screens wider than this, in px, get the larger part of the window. */
const WIDE = 600;

/** Where the anchor of a link is being chosen: on which screen, for which element. */
export interface AnchorChoice {
  readonly screen: string;
  readonly element: string;
}

/** One screen: who leads here, what can be pressed, and where each of it leads. */
export function JunctionView() {
  const { screenKey } = useParams();
  const project = useProject();
  const { graph, app, id } = project;
  if (!graph.screens.length) return <NothingYet />;
  const first = app.start && isUsed(project, app.start) ? app.start : graph.screens[0];
  if (!screenKey || !isUsed(project, screenKey))
    return <Navigate to={`/p/${id}/junction/${first}`} replace />;
  return <Junction key={screenKey} screenKey={screenKey} />;
}

function NothingYet() {
  const { id } = useProject();
  const navigate = useNavigate();
  return (
    <Empty title="No screens to wire yet" text="Bring in the drawings and pages of the app first.">
      <Button $kind="primary" onPress={() => void navigate(`/p/${id}/intake`)}>
        Bring screens in
      </Button>
    </Empty>
  );
}

function Junction({ screenKey }: { screenKey: string }) {
  const project = useProject();
  const { graph, design, app, id, session } = project;
  const navigate = useNavigate();
  const screen = screensByKey(design).get(screenKey)!;
  const listed = graph.elements.get(screenKey)!;
  const [wanted, select] = useElementInAddress();
  const [extra, setExtra] = useState<ElementState | null>(null);
  const [anchor, setAnchor] = useState<AnchorChoice | null>(null);
  const states = useMemo(
    () =>
      extra && !listed.some((state) => state.element.key === extra.element.key)
        ? [...listed, { ...extra, number: listed.length + 1 }]
        : listed,
    [listed, extra],
  );
  const proposals = useOpenLinks();
  const selected = states.find((state) => state.element.key === wanted) ?? null;
  const field = useRef<HTMLInputElement>(null);
  /** A press on the stage goes on to typing where it leads; the field is there only after the next drawing. */
  const wantsField = useRef(false);
  const [typed, setTyped] = useState<string | null>(null);
  const [rowTops, setRowTops] = useState<ReadonlyMap<string, number>>(new Map());

  const wire = (state: ElementState, target: Target): void => {
    const arrival = state.interaction?.arrival ?? { kind: 'none' };
    const interaction: Interaction = { on: 'press', target, arrival };
    session.change(
      `Wire “${state.label}” to ${describeTarget(project, target).label}`,
      putInteraction(state.element.key, interaction),
    );
    setTyped(null);
  };
  const arrive = (state: ElementState, arrival: Arrival): void => {
    if (state.interaction)
      session.change(
        `Change how “${state.label}” arrives`,
        putInteraction(state.element.key, { ...state.interaction, arrival }),
      );
  };
  const unwire = (state: ElementState): void =>
    session.change(`Unwire “${state.label}”`, putInteraction(state.element.key, null));
  const toggleStill = (state: ElementState): void =>
    session.change(
      state.standing === 'still' ? `Open “${state.label}” again` : `Mark “${state.label}” still`,
      putStill(state.element.key, state.standing !== 'still'),
    );

  const takeAll = (list: readonly LinkProposal[]): void =>
    session.change(
      list.length === 1
        ? `Wire to ${screenName(project, list[0].to)}, as proposed`
        : `Take ${list.length} proposed links`,
      takeLinks(list),
    );
  const refuse = (proposal: LinkProposal): void =>
    session.change(`Do not wire to ${screenName(project, proposal.to)}`, refuseLink(proposal));

  const focusRow = (key: string): void => document.getElementById(`row-${key}`)?.focus();
  const toField = (state: ElementState): void => {
    if (state.element.key === selected?.element.key) field.current?.focus();
    else {
      wantsField.current = true;
      select(state.element.key);
    }
  };
  const onRowKey = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey) return;
    // The row with the focus, which may be further on than what has been drawn as chosen.
    const row = (event.target as HTMLElement).closest<HTMLElement>('[data-row]')?.dataset.row;
    const at = states.findIndex((state) => state.element.key === row);
    const focused = states[at];
    const go = (to: number): void => {
      event.preventDefault();
      const next = states[Math.max(0, Math.min(states.length - 1, to))];
      select(next.element.key);
      focusRow(next.element.key);
    };
    if (event.key === 'ArrowDown') go(at + 1);
    else if (event.key === 'ArrowUp') go(at - 1);
    else if (event.key === 'Home') go(0);
    else if (event.key === 'End') go(states.length - 1);
    else if (focused && event.key === 'Enter') {
      event.preventDefault();
      toField(focused);
    } else if (focused && (event.key === 'Delete' || event.key === 'Backspace') && focused.interaction)
      unwire(focused);
    else if (focused && event.key === '.' && !focused.interaction) toggleStill(focused);
    else if (focused && event.key === '+' && proposals.has(focused.element.key))
      takeAll([proposals.get(focused.element.key)!]);
    else if (focused && event.key === '-' && proposals.has(focused.element.key))
      refuse(proposals.get(focused.element.key)!);
    else if (focused && /^[\p{L}\p{N}/]$/u.test(event.key)) {
      event.preventDefault();
      setTyped(event.key);
      toField(focused);
    }
  };

  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent): void => {
      if (event.target instanceof HTMLElement && event.target.closest('input, textarea, [role=dialog]'))
        return;
      const by = event.key === ']' ? 1 : event.key === '[' ? -1 : 0;
      if (!by) return;
      const at = graph.screens.indexOf(screenKey);
      const next = graph.screens[(at + by + graph.screens.length) % graph.screens.length];
      void navigate(`/p/${id}/junction/${next}`);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [graph.screens, screenKey, id, navigate]);

  const pickOnStage = (state: ElementState): void => {
    setExtra(state);
    setTyped(null);
    toField(state);
  };

  useEffect(() => {
    if (!wantsField.current || !selected) return;
    wantsField.current = false;
    field.current?.focus();
  }, [selected]);

  const pickAnchor = (state: ElementState): void => {
    const wiring = states.find((other) => other.element.key === anchor?.element);
    if (anchor && wiring) wire(wiring, { kind: 'anchor', screen: anchor.screen, element: state.element.key });
    setAnchor(null);
  };

  return (
    <View $isWide={screen.width > WIDE}>
      <Arrivals screenKey={screenKey} />
      <Stage
        screen={anchor ? screensByKey(design).get(anchor.screen)! : screen}
        title={
          anchor ? `Press the place on ${screenName(project, anchor.screen)}` : app.screens[screenKey].name
        }
        route={anchor ? '' : app.screens[screenKey].route}
        states={anchor ? [] : states}
        selected={selected}
        rowTops={rowTops}
        onPick={anchor ? pickAnchor : pickOnStage}
        onCancel={anchor ? () => setAnchor(null) : undefined}
      />
      <Side aria-label="Departures">
        <Departures
          states={states}
          proposals={proposals}
          onTakeAll={takeAll}
          selected={selected}
          onSelect={(key) => (setTyped(null), select(key))}
          onKeyDown={onRowKey}
          onLayout={setRowTops}
        />
        {selected && (
          <EditPanel
            key={selected.element.key}
            state={selected}
            proposal={proposals.get(selected.element.key) ?? null}
            onTakeProposal={(proposal) => takeAll([proposal])}
            onRefuseProposal={refuse}
            field={field}
            typed={typed}
            onTyped={setTyped}
            onWire={(target) => {
              wire(selected, target);
              focusRow(selected.element.key);
            }}
            onArrival={(arrival) => arrive(selected, arrival)}
            onUnwire={() => unwire(selected)}
            onStill={() => toggleStill(selected)}
            onLeave={() => {
              setTyped(null);
              focusRow(selected.element.key);
            }}
            onAnchor={(screenOfAnchor) =>
              setAnchor({ screen: screenOfAnchor, element: selected.element.key })
            }
          />
        )}
      </Side>
    </View>
  );
}

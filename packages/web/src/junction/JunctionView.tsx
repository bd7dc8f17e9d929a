import { type ElementState, isOverlay, isUsed, screenName, screensByKey, targetChoices } from '@tovel/core';
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { Navigate, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { useQueryParam } from '../ui/use_query_param';
import { useElementInAddress } from '../project/element_in_address';
import { color } from '../theme/theme';
import type { MenuAction } from '../ui/ActionMenu';
import { Button } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { Arrivals } from './Arrivals';
import { CopySheet } from './CopySheet';
import { Departures } from './Departures';
import { EditPanel } from './EditPanel';
import { OverlaySheet } from './OverlaySheet';
import { ProposalsSheet } from './ProposalsSheet';
import { rowsOf } from './rows';
import { Stage } from './Stage';
import { TypedSheet } from './TypedSheet';
import { useOpenLinks } from './use_open_links';
import { useCopied } from './use_copied';
import { useWiring } from './use_wiring';
import { WordsSheet } from './WordsSheet';

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

/** Where the anchor of a link is being chosen: on which screen, for which line. */
interface AnchorChoice {
  readonly screen: string;
  readonly row: string;
}

/** One screen: who leads here, what can be pressed, and where each of it leads. */
export function JunctionView() {
  const { screenKey } = useParams();
  const project = useProject();
  const { graph, app, base } = project;
  if (!graph.screens.length) return <NothingYet />;
  const first = app.start && isUsed(project, app.start) ? app.start : graph.screens[0];
  if (!screenKey || !(isUsed(project, screenKey) || isOverlay(project, screenKey)))
    return <Navigate to={`${base}/junction/${first}`} replace />;
  return <Junction key={screenKey} screenKey={screenKey} />;
}

function NothingYet() {
  const { base } = useProject();
  const navigate = useNavigate();
  return (
    <Empty title="No screens to wire yet" text="Bring in the drawings and pages of the app first.">
      <Button $kind="primary" onPress={() => void navigate(`${base}/intake`)}>
        Bring screens in
      </Button>
    </Empty>
  );
}

type OpenSheet = 'typed' | 'copy' | 'overlay' | 'proposals' | 'words' | null;

function Junction({ screenKey }: { screenKey: string }) {
  const project = useProject();
  const { graph, design, app, base } = project;
  const navigate = useNavigate();
  const screen = screensByKey(design).get(screenKey)!;
  const listed = graph.elements.get(screenKey)!;
  const [wanted, select] = useElementInAddress();
  const [extra, setExtra] = useState<ElementState | null>(null);
  const [anchor, setAnchor] = useState<AnchorChoice | null>(null);
  const [marked, setMarked] = useState<ReadonlySet<string>>(new Set());
  const [asked, setAsked] = useQueryParam('sheet', '');
  const sheet = asked as OpenSheet | '';
  const setSheet = (next: OpenSheet): void => setAsked(next ?? '');
  const states = useMemo(
    () =>
      extra && !listed.some((state) => state.element.key === extra.element.key)
        ? [...listed, { ...extra, number: listed.length + 1 }]
        : listed,
    [listed, extra],
  );
  const rows = useMemo(() => rowsOf(states), [states]);
  const proposals = useOpenLinks();
  const actions = useWiring();
  const copied = useCopied();
  // A line that is gone leaves its element chosen.
  const selected =
    rows.find((row) => row.id === wanted) ??
    rows.find((row) => row.id === wanted?.replace(/\|\d+$/, '')) ??
    null;
  const chosen = selected ? [selected, ...rows.filter((row) => row !== selected && marked.has(row.id))] : [];
  const field = useRef<HTMLInputElement>(null);
  /** A press on the stage goes on to typing where it leads; the field is there only after the next drawing. */
  const wantsField = useRef(false);
  /** What was typed on a row before the field that it goes to was there. */
  const buffered = useRef<{ readonly row: string; readonly text: string } | null>(null);
  /** While the focus moves to a row that is chosen as one more. */
  const extending = useRef(false);
  const [typed, setTyped] = useState<string | null>(null);
  const [rowTops, setRowTops] = useState<ReadonlyMap<string, number>>(new Map());

  const focusRow = (row: string): void => document.getElementById(`row-${row}`)?.focus();
  const choose = (row: string, isMore: boolean): void => {
    setTyped(null);
    setMarked(isMore ? new Set([...marked, ...(selected ? [selected.id] : []), row]) : new Set());
    select(row);
  };
  const toField = (row: string): void => {
    if (row === selected?.id && field.current) {
      field.current.focus();
      buffered.current = null;
    } else {
      wantsField.current = true;
      select(row);
    }
  };
  const onRowKey = (event: KeyboardEvent): void => {
    if (event.altKey) return;
    // The row with the focus, which may be further on than what has been drawn as chosen.
    const row = (event.target as HTMLElement).closest<HTMLElement>('[data-row]')?.dataset.row;
    const at = rows.findIndex((one) => one.id === row);
    const focused = rows[at];
    const acted = focused && selected?.id === focused.id ? chosen : focused ? [focused] : [];
    if (event.ctrlKey || event.metaKey) {
      if (event.key === 'a') setMarked(new Set(rows.map((one) => one.id)));
      else if (event.key === 'c' && focused?.wired)
        copied.set(focused.state.wired.map((one) => one.interaction));
      else if (event.key === 'v' && copied.now.length) actions.paste(acted, copied.now);
      else return;
      event.preventDefault();
      return;
    }
    const go = (to: number): void => {
      event.preventDefault();
      const next = rows[Math.max(0, Math.min(rows.length - 1, to))];
      extending.current = event.shiftKey;
      choose(next.id, event.shiftKey);
      focusRow(next.id);
      extending.current = false;
    };
    const proposal = focused && proposals.get(focused.state.element.key);
    const isTyping = focused !== undefined && buffered.current?.row === focused.id;
    if (focused && (isTyping ? event.key.length === 1 : /^[\p{L}\p{N}/]$/u.test(event.key))) {
      event.preventDefault();
      const before = isTyping ? buffered.current!.text : '';
      buffered.current = { row: focused.id, text: before + event.key };
      setTyped(buffered.current.text);
      toField(focused.id);
    } else if (event.key === 'ArrowDown') go(at + 1);
    else if (event.key === 'ArrowUp') go(at - 1);
    else if (event.key === 'Home') go(0);
    else if (event.key === 'End') go(rows.length - 1);
    else if (event.key === 'Escape' && marked.size) setMarked(new Set());
    else if (focused && event.key === 'Enter') {
      event.preventDefault();
      const text = isTyping ? buffered.current!.text : '';
      const [choice] = text
        ? targetChoices(project, text, { screen: screen.key, element: focused.state.element.key })
        : [];
      // Whoever types faster than the field comes up means what was typed.
      if (choice) {
        buffered.current = null;
        wantsField.current = false;
        setTyped(null);
        actions.wire(acted, choice);
      } else toField(focused.id);
    } else if ((event.key === 'Delete' || event.key === 'Backspace') && acted.some((one) => one.wired))
      actions.unwire(acted);
    else if (event.key === '.' && acted.some((one) => !one.wired)) actions.toggleStill(acted);
    else if (event.key === '+' && proposal) actions.takeAll([proposal]);
    else if (event.key === '-' && proposal) actions.refuse(proposal);
  };

  useEffect(() => {
    const onKey = (event: globalThis.KeyboardEvent): void => {
      if (event.target instanceof HTMLElement && event.target.closest('input, textarea, [role=dialog]'))
        return;
      const by = event.key === ']' ? 1 : event.key === '[' ? -1 : 0;
      if (!by) return;
      const all = [...graph.screens, ...graph.overlays];
      const at = all.indexOf(screenKey);
      void navigate(`${base}/junction/${all[(at + by + all.length) % all.length]}`);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [graph, screenKey, base, navigate]);

  const pickOnStage = (state: ElementState): void => {
    setExtra(state);
    setTyped(null);
    setMarked(new Set());
    toField(state.element.key);
  };

  useEffect(() => {
    if (!wantsField.current || !selected) return;
    wantsField.current = false;
    buffered.current = null;
    field.current?.focus();
  }, [selected]);

  const pickAnchor = (state: ElementState): void => {
    const wiring = rows.find((row) => row.id === anchor?.row);
    if (anchor && wiring)
      actions.wire([wiring], {
        target: { kind: 'anchor', screen: anchor.screen, element: state.element.key },
      });
    setAnchor(null);
  };

  const overlay = isOverlay(project, screenKey);
  const menu: MenuAction[] = [
    { id: 'typed', label: 'Type it, line by line …', act: () => setSheet('typed') },
    { id: 'copy', label: 'Copy it from another screen …', act: () => setSheet('copy') },
    { id: 'proposals', label: 'All that is proposed …', act: () => setSheet('proposals') },
    { id: 'words', label: 'Words that mean the same …', act: () => setSheet('words') },
    {
      id: 'whole',
      label: 'Something the whole screen does',
      act: () => {
        const { root } = screen;
        pickOnStage({
          element: root,
          label: 'The whole screen',
          number: 0,
          parent: '',
          standing: 'open',
          wired: [],
          interaction: null,
          problem: null,
        });
      },
    },
    {
      id: 'overlay',
      label: overlay ? 'How this overlay opens and closes …' : 'Make it an overlay …',
      act: () => setSheet('overlay'),
    },
  ];

  return (
    <View $isWide={screen.width > WIDE}>
      <Arrivals screenKey={screenKey} />
      <Stage
        screen={anchor ? screensByKey(design).get(anchor.screen)! : screen}
        title={
          anchor ? `Press the place on ${screenName(project, anchor.screen)}` : app.screens[screenKey].name
        }
        route={anchor ? '' : overlay ? 'overlay' : app.screens[screenKey].route}
        states={anchor ? [] : states}
        selected={selected?.state ?? null}
        rowTops={rowTops}
        onPick={anchor ? pickAnchor : pickOnStage}
        onCancel={anchor ? () => setAnchor(null) : undefined}
      />
      <Side aria-label="Departures">
        <Departures
          rows={rows}
          proposals={proposals}
          onTakeAll={actions.takeAll}
          menu={menu}
          selected={selected}
          marked={marked}
          onSelect={choose}
          onFocusRow={(row) => !extending.current && choose(row, false)}
          onKeyDown={onRowKey}
          onLayout={setRowTops}
        />
        {selected && (
          <EditPanel
            key={selected.id}
            rows={chosen}
            screen={screenKey}
            proposal={selected.wired ? null : (proposals.get(selected.state.element.key) ?? null)}
            actions={actions}
            field={field}
            typed={typed}
            onTyped={setTyped}
            onDone={() => focusRow(selected.id)}
            onAnchor={(to) => setAnchor({ screen: to, row: selected.id })}
          />
        )}
      </Side>
      {sheet === 'typed' && <TypedSheet screen={screenKey} onClose={() => setSheet(null)} />}
      {sheet === 'copy' && <CopySheet screen={screenKey} onClose={() => setSheet(null)} />}
      {sheet === 'proposals' && <ProposalsSheet proposals={proposals} onClose={() => setSheet(null)} />}
      {sheet === 'words' && <WordsSheet onClose={() => setSheet(null)} />}
      {sheet === 'overlay' && <OverlaySheet screen={screenKey} onClose={() => setSheet(null)} />}
    </View>
  );
}

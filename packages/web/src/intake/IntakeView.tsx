import {
  findElement,
  all,
  baseName,
  type Finding,
  noticeCauses,
  orderedScreens,
  makeAlternatives,
  putUse,
  takeState,
  type DrawnState,
  screensByKey,
  setStart,
  stationOf,
  type Use,
} from '@tovel/core';
import { useQueryClient } from '@tanstack/react-query';
import {
  type ClipboardEvent,
  type DragEvent,
  type KeyboardEvent,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import styled from 'styled-components';
import { api, type FetchedFiles } from '../api/client';
import { useFound, useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice } from '../ui/controls';
import { Tabbed } from '../ui/Tabbed';
import { BringIn } from './BringIn';
import { ContactSheet } from './ContactSheet';
import { sheetCards, sheetRows, type SortBy, sortScreens } from './contact_rows';
import { FoundList } from '../findings/FoundList';
import { LeftOut } from './LeftOut';
import { LinkSheet } from './LinkSheet';
import { PasteSheet } from './PasteSheet';
import { intakeOf, useIntake } from './intake_run';
import { type Batch, type ChosenFile, filesInDrop } from './run_intake';
import { type BelongingUse, BelongsTo, isBelonging } from './BelongsTo';

const View = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 344px;
  grid-template-rows: auto minmax(0, 1fr);
  > section:first-child {
    grid-column: 1 / -1;
  }
  @media (max-width: 1100px) {
    grid-template-columns: minmax(0, 1fr) 300px;
  }
`;

const Sheet = styled.div`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Bar = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 46px;
  padding: 6px 18px;
  border-bottom: 1px solid ${color.rule};
  h2 {
    font-size: 15px;
    margin-right: auto;
    white-space: nowrap;
  }
  h2 span {
    font-weight: 400;
    color: ${color.ink2};
  }
  label {
    display: flex;
    gap: 8px;
    align-items: center;
    color: ${color.ink2};
  }
  input[type='range'] {
    accent-color: ${color.lake};
    width: 110px;
  }
`;

const Side = styled.aside`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
`;

const SCALES = { min: 0.06, max: 0.4, first: 0.16 };
const SORTS = [
  { id: 'order', label: 'In their order' },
  { id: 'name', label: 'By name' },
  { id: 'flow', label: 'By flow' },
  { id: 'trouble', label: 'By trouble' },
] as const;

/** Bring screens in, see all of them together with what was found in them, and decide what each is. */
export function IntakeView() {
  const project = useProject();
  const { session, drawn, design, app, id, base, graph } = project;
  const { findings, isLooking } = useFound();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const run = intakeOf(session);
  const intake = useIntake(session);
  const { last } = intake;
  const isHere = useRef(true);
  useEffect(() => {
    isHere.current = true;
    return () => void (isHere.current = false);
  }, []);
  const [isAsking, setAsking] = useState(false);
  const [isOver, setOver] = useState(false);
  const [isWhole, setWhole] = useState(false);
  const [sheet, setSheet] = useState<'link' | BelongingUse | { paste: string } | null>(null);
  const [scale, setScale] = useState(SCALES.first);
  const [sort, setSort] = useState<SortBy>('order');
  const [width, setWidth] = useState(800);
  const [selection, setSelection] = useState<ReadonlySet<string>>(new Set());
  const [tab, setTab] = useState<'found' | 'out'>('found');

  const onEnd = (batch: Batch): void => {
    void queries.invalidateQueries({ queryKey: ['sources', id] });
    if (batch.isHeld)
      void queries
        .invalidateQueries({ queryKey: ['round', id] })
        .then(() => (isHere.current ? navigate(`${base}/iterate`) : undefined));
  };
  const begin = (chosen: readonly ChosenFile[], ticket?: string): void => {
    run.begin(chosen, { whole: isWhole, ...(ticket ? { ticket } : {}) }, onEnd);
    setWhole(false);
  };
  // Bad news is shown first.
  useEffect(() => {
    if (last && (!last.screens.length || last.notices.some(({ level }) => level === 'error'))) setTab('out');
  }, [last]);
  const onFetched = ({ ticket, kind, bytes }: FetchedFiles, address: string): void => {
    if (kind === 'project') {
      bytes
        .arrayBuffer()
        .then((buffer) => api.openArchive(new Uint8Array(buffer), 'Fetched'))
        .then(
          (opened) => void navigate(`/p/${opened.id}/screens`),
          (error: Error) => run.fail(error.message),
        );
      return;
    }
    const name = baseName(address.replace(/[?#].*$/, '')) || 'fetched';
    begin([{ path: `${name}.zip`, file: bytes }], ticket);
  };
  // Asked for from elsewhere in the project: what came by an address is fetched again at once.
  const [params, setParams] = useSearchParams();
  const refresh = Number(params.get('refresh') ?? 0);
  const fetchAgain = useRef(onFetched);
  fetchAgain.current = onFetched;
  useEffect(() => {
    if (!refresh) return;
    setParams({}, { replace: true });
    setAsking(true);
    api
      .refreshSource(id, refresh)
      .then(
        (fetched) =>
          fetched
            ? fetchAgain.current(fetched, 'next round')
            : run.fail('Nothing has changed there since the last time.'),
        (error: Error) => run.fail(error.message),
      )
      .finally(() => setAsking(false));
  }, [refresh, id, setParams, run]);
  const onDrop = (event: DragEvent): void => {
    event.preventDefault();
    setOver(false);
    void filesInDrop(event.dataTransfer).then((files) => begin(files));
  };
  const onPaste = (event: ClipboardEvent): void => {
    if ((event.target as HTMLElement).closest('input, textarea, [role=dialog]')) return;
    const files = [...event.clipboardData.files];
    const text = event.clipboardData.getData('text/plain');
    if (files.length) begin(files.map((file) => ({ path: file.name, file })));
    else if (text.trim()) setSheet({ paste: text });
  };

  const screens = screensByKey(design);
  const keys = useMemo(() => {
    const known = orderedScreens(app).filter((key) => screens.has(key));
    return sortScreens(known, sort, { app, graph, findings });
  }, [app, screens, sort, graph, findings]);
  const cards = useMemo(() => sheetCards(app, keys), [app, keys]);
  const rows = useMemo(
    () => sheetRows(cards, (key) => screens.get(key)!, width, scale),
    [cards, screens, width, scale],
  );
  const intakeFindings = useMemo(
    () => findings.filter((finding) => stationOf(finding.code) === 'intake'),
    [findings],
  );
  const byScreen = useMemo(() => {
    const map = new Map<string, Finding[]>();
    for (const finding of intakeFindings)
      if (finding.screen) map.set(finding.screen, [...(map.get(finding.screen) ?? []), finding]);
    return map;
  }, [intakeFindings]);
  const selected = useMemo(() => new Set([...selection].filter((key) => app.screens[key])), [selection, app]);
  const shown = selected.size
    ? intakeFindings.filter((finding) => finding.screen && selected.has(finding.screen))
    : intakeFindings;
  // Notices of a batch that brought no screens are not part of the design, but still have to be read.
  const unkept = last && !last.screens.length ? last.notices : [];
  const files = new Set([...selected].map((key) => screens.get(key)?.source.file));
  const opened = new Set(
    Object.keys(app.disclosures).flatMap((key) => {
      const { source } = findElement(drawn, key) ?? {};
      return source ? [`${source.file} ${source.path}`] : [];
    }),
  );
  const notices = noticeCauses(
    [...unkept, ...drawn.notices].filter(
      ({ code, file, path = '' }) =>
        (!selected.size || files.has(file)) && !(code === 'hidden-layer' && opened.has(`${file} ${path}`)),
    ),
  );

  const setUse = (use: Use, of?: string, state?: DrawnState): void => {
    const chosen = keys.filter(
      (key) =>
        selected.has(key) &&
        key !== of &&
        (app.screens[key].use !== use || app.screens[key].of !== of || app.screens[key].state !== state),
    );
    if (!chosen.length) return;
    const names = chosen.length === 1 ? app.screens[chosen[0]].name : `${chosen.length} screens`;
    const words = {
      screen: 'Keep',
      skip: 'Skip',
      counterpart: 'Make a counterpart of',
      overlay: 'Make an overlay of',
      planned: 'Plan',
      alternative: 'Make an alternative of',
      state: 'Make a state of',
    };
    session.change(
      `${words[use]} ${names}`,
      all([
        ...(use === 'alternative' && of !== undefined
          ? [makeAlternatives(project, chosen, of)]
          : chosen.map((key) =>
              use === 'state' && of !== undefined && state !== undefined
                ? takeState(app, key, of, state)
                : putUse(app, key, use, of),
            )),
        ...(!['screen', 'alternative', 'state'].includes(use) && app.start && chosen.includes(app.start)
          ? [setStart(null)]
          : []),
      ]),
    );
  };
  const onKey = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey || !selected.size) return;
    const key = event.key.toLowerCase();
    if (key === 'k') setUse('screen');
    else if (key === 's') setUse('skip');
    else if (key === 'c') setSheet('counterpart');
    else if (key === 'o') setSheet('overlay');
    else if (key === 'a') setSheet('alternative');
    else if (key === 'e') setSheet('state');
    else if (key === 'escape') setSelection(new Set());
    else return;
    event.preventDefault();
  };
  const open = useCallback((key: string): void => void navigate(`${base}/intake/${key}`), [navigate, base]);
  const goTo = (finding: Finding): void => {
    if (finding.screen && finding.element)
      void navigate(`${base}/intake/${finding.screen}?element=${encodeURIComponent(finding.element)}`);
    else if (finding.screen) open(finding.screen);
  };
  const used = cards.used.length;
  const isEmpty = keys.length === 0;
  return (
    <View
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={(event) => event.currentTarget === event.target && setOver(false)}
      onDrop={onDrop}
      onPaste={onPaste}
    >
      <BringIn
        isOver={isOver}
        isEmpty={isEmpty}
        intake={intake}
        isAsking={isAsking}
        isWhole={isWhole}
        onWhole={setWhole}
        onFiles={begin}
        onPaste={() => setSheet({ paste: '' })}
        onLink={() => setSheet('link')}
      />
      <Sheet>
        {!isEmpty && (
          <Bar>
            {selected.size ? (
              <>
                <h2>
                  {selected.size} of {keys.length} <span>chosen</span>
                </h2>
                <Button onPress={() => setUse('screen')} aria-keyshortcuts="K">
                  Keep
                </Button>
                <Button onPress={() => setUse('skip')} aria-keyshortcuts="S">
                  Skip
                </Button>
                <Button onPress={() => setSheet('counterpart')} aria-keyshortcuts="C">
                  Counterpart of …
                </Button>
                <Button onPress={() => setSheet('overlay')} aria-keyshortcuts="O">
                  Overlay of …
                </Button>
                <Button onPress={() => setSheet('alternative')} aria-keyshortcuts="A">
                  Alternative of …
                </Button>
                <Button onPress={() => setSheet('state')} aria-keyshortcuts="E">
                  State of …
                </Button>
                {selected.size === 1 && (
                  <Button $kind="quiet" onPress={() => open([...selected][0])}>
                    Read
                  </Button>
                )}
              </>
            ) : (
              <>
                <h2>
                  {used} {used === 1 ? 'screen' : 'screens'}
                  {keys.length > used && (
                    <span>{othersInWords(keys.map((key) => app.screens[key].use))}</span>
                  )}
                </h2>
                <label>
                  Size
                  <input
                    type="range"
                    min={SCALES.min}
                    max={SCALES.max}
                    step={0.01}
                    value={scale}
                    onChange={(event) => setScale(Number(event.target.value))}
                  />
                </label>
                <div style={{ width: 150 }}>
                  <Choice label="Sorted" isLabelHidden value={sort} options={SORTS} onChange={setSort} />
                </div>
              </>
            )}
          </Bar>
        )}
        {!isEmpty && (
          <ContactSheet
            rows={rows}
            scale={scale}
            screens={screens}
            findings={byScreen}
            selected={selected}
            onSelect={setSelection}
            onOpen={open}
            onWidth={setWidth}
            onKey={onKey}
          />
        )}
      </Sheet>
      {(!isEmpty || notices.length > 0) && (
        <Side aria-label="Findings of the intake">
          <Tabbed
            label="Findings of the intake"
            tabs={[
              { id: 'found', label: `Found ${isLooking && !shown.length ? '…' : shown.length}` },
              { id: 'out', label: `Left out ${notices.length}` },
            ]}
            tab={tab}
            onTab={setTab}
            isFilled
          >
            {tab === 'found' ? (
              <FoundList
                findings={shown}
                onGo={goTo}
                nothing={
                  selected.size
                    ? 'Nothing to decide about what is chosen.'
                    : 'Nothing to decide: the pile is clean.'
                }
              />
            ) : (
              <LeftOut
                notices={notices}
                hasFile={(path) => !intake.running && run.hasFile(path)}
                onMakeScreen={(path) => void run.makeScreen(path, onEnd)}
              />
            )}
          </Tabbed>
        </Side>
      )}
      {sheet === 'link' && <LinkSheet onFetched={onFetched} onClose={() => setSheet(null)} />}
      {isBelonging(sheet) && (
        <BelongsTo
          use={sheet}
          chosen={selected}
          onTake={(of, state) => {
            setUse(sheet, of, state);
            setSheet(null);
          }}
          onClose={() => setSheet(null)}
        />
      )}
      {sheet !== null && typeof sheet === 'object' && (
        <PasteSheet first={sheet.paste} onFiles={begin} onClose={() => setSheet(null)} />
      )}
    </View>
  );
}

/** ` and 2 counterparts, 1 skipped`. */
function othersInWords(uses: readonly Use[]): string {
  const count = (use: Use): number => uses.filter((other) => other === use).length;
  const parts = [
    [count('counterpart'), 'counterpart'],
    [count('overlay'), 'overlay'],
    [count('alternative'), 'alternative'],
    [count('state'), 'state'],
  ].flatMap(([n, word]) => (n ? [`${n} ${word}${n === 1 ? '' : 's'}`] : []));
  if (count('skip')) parts.push(`${count('skip')} skipped`);
  return parts.length ? ` and ${parts.join(', ')}` : '';
}

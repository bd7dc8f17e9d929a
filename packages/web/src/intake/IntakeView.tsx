import { type Finding, orderedScreens, screensByKey, stationOf } from '@tovel/core';
import { type KeyboardEvent, useCallback, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useFound, useProject } from '../project/context';
import { type BelongingUse, BelongsTo, isBelonging } from './BelongsTo';
import { BringIn } from './BringIn';
import { type ChosenUse, stepToUse } from './chosen_use';
import { ContactSheet } from './ContactSheet';
import { sheetCards, sheetRows, type SortBy, sortScreens } from './contact_rows';
import { IntakeBar, SCALES } from './IntakeBar';
import { IntakeFindings } from './IntakeFindings';
import { LinkSheet } from './LinkSheet';
import { PasteSheet } from './PasteSheet';
import { useBringingIn } from './use_bringing_in';

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

/** The keys that make the chosen screens something. */
const USE_KEYS: Readonly<Record<string, 'screen' | 'skip' | BelongingUse>> = {
  k: 'screen',
  s: 'skip',
  c: 'counterpart',
  o: 'overlay',
  a: 'alternative',
  e: 'state',
};

/** Bring screens in, see all of them together with what was found in them, and decide what each is. */
export function IntakeView() {
  const project = useProject();
  const { session, design, app, base, graph } = project;
  const { findings } = useFound();
  const navigate = useNavigate();
  const [isOver, setOver] = useState(false);
  const [sheet, setSheet] = useState<'link' | BelongingUse | { paste: string } | null>(null);
  const [scale, setScale] = useState(SCALES.first);
  const [sort, setSort] = useState<SortBy>('order');
  const [width, setWidth] = useState(800);
  const [selection, setSelection] = useState<ReadonlySet<string>>(new Set());
  const bringing = useBringingIn((paste) => setSheet({ paste }));

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

  const setUse = (use: ChosenUse): void => {
    const chosen = keys.filter((key) => selected.has(key));
    const step = stepToUse(project, chosen, use);
    if (step) session.change(step.label, step.change);
  };
  const onKey = (event: KeyboardEvent): void => {
    if (event.ctrlKey || event.metaKey || event.altKey || !selected.size) return;
    const key = event.key.toLowerCase();
    const use = USE_KEYS[key];
    if (use === 'screen' || use === 'skip') setUse({ use });
    else if (use) setSheet(use);
    else if (key === 'escape') setSelection(new Set());
    else return;
    event.preventDefault();
  };
  const open = useCallback((key: string): void => void navigate(`${base}/intake/${key}`), [navigate, base]);
  const isEmpty = keys.length === 0;
  return (
    <View
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={(event) => event.currentTarget === event.target && setOver(false)}
      onDrop={(event) => {
        setOver(false);
        bringing.onDrop(event);
      }}
      onPaste={bringing.onPaste}
    >
      <BringIn
        isOver={isOver}
        isEmpty={isEmpty}
        intake={bringing.intake}
        isAsking={bringing.isAsking}
        isWhole={bringing.isWhole}
        onWhole={bringing.setWhole}
        onFiles={bringing.begin}
        onPaste={() => setSheet({ paste: '' })}
        onLink={() => setSheet('link')}
      />
      <Sheet>
        {!isEmpty && (
          <>
            <IntakeBar
              uses={keys.map((key) => app.screens[key].use)}
              used={cards.used.length}
              selected={selected}
              onUse={(use) => setUse({ use })}
              onBelonging={setSheet}
              onOpen={open}
              scale={scale}
              onScale={setScale}
              sort={sort}
              onSort={setSort}
            />
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
          </>
        )}
      </Sheet>
      <IntakeFindings
        findings={intakeFindings}
        selected={selected}
        last={bringing.intake.last}
        hasFile={bringing.hasFile}
        onMakeScreen={bringing.onMakeScreen}
      />
      {sheet === 'link' && <LinkSheet onFetched={bringing.onFetched} onClose={() => setSheet(null)} />}
      {isBelonging(sheet) && (
        <BelongsTo
          use={sheet}
          chosen={selected}
          onTake={(of, state) => {
            setUse({ use: sheet, of, ...(state ? { state } : {}) });
            setSheet(null);
          }}
          onClose={() => setSheet(null)}
        />
      )}
      {sheet !== null && typeof sheet === 'object' && (
        <PasteSheet first={sheet.paste} onFiles={bringing.begin} onClose={() => setSheet(null)} />
      )}
    </View>
  );
}

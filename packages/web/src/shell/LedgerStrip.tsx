import type { EntryHead } from '@tovel/core';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject, useStanding } from '../project/context';
import { useNotes } from '../publish/use_notes';
import { color } from '../theme/theme';

const Strip = styled.footer`
  grid-row: 4;
  display: flex;
  align-items: center;
  gap: 22px;
  padding: 0 18px;
  background: ${color.footer};
  color: ${color.footerText};
  font-size: 12.5px;
  white-space: nowrap;
  a {
    text-decoration: none;
  }
  a:hover {
    text-decoration: underline;
  }
  :focus-visible {
    outline-color: ${color.footerLake};
  }
`;

const Meter = styled.span`
  width: 160px;
  height: 8px;
  background: ${color.footerRule};
  i {
    display: block;
    height: 100%;
    background: ${color.footerLake};
    transition: width 0.2s;
  }
`;

const Saving = styled.span`
  margin-left: auto;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
`;

const Step = styled.button`
  flex: none;
  border: 0;
  padding: 4px 2px;
  background: none;
  color: inherit;
  cursor: pointer;
  max-width: 220px;
  overflow: hidden;
  text-overflow: ellipsis;
  &:disabled {
    color: ${color.footerRule};
    filter: brightness(1.9);
    cursor: default;
  }
`;

/** What a step is called where it stands; that of another window is said to be one. */
function named(what: string, step: EntryHead | null, isOwn: boolean): { label: string; title?: string } {
  if (!step) return { label: what };
  const title = isOwn ? step.label : `${step.label} (made in another window)`;
  return { label: `${what} ${title}`, title };
}

/** How the project stands, in numbers that lead to what they count; what is saved; undo and redo. */
export function LedgerStrip() {
  const { base, past, graph, session, app } = useProject();
  const { history, saving, waitsFor, waits, isArriving, savedAt } = useStanding();
  const undo = waits
    ? { label: `Undo ${waits}`, title: waits }
    : named('Undo', history.undo, !history.undo || session.isOwn(history.undo));
  const redo = named('Redo', history.redo, !history.redo || session.isOwn(history.redo));
  const { live, elements, open, broken, unreachable, deadEnds, planned } = graph.counts;
  const { waiting } = useNotes();
  const to = (code: string): string => `${base}/map?finding=${code}`;
  const time = new Date(savedAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });
  return (
    <Strip>
      <Link to={to('open-end')} title={`${open} still open`}>
        <b>
          {live} of {elements}
        </b>{' '}
        elements live
      </Link>
      <Meter aria-hidden="true">
        <i style={{ width: `${elements ? (100 * live) / elements : 0}%` }} />
      </Meter>
      {broken > 0 && (
        <Link to={to('broken-link')} style={{ color: color.footerRed }}>
          <b>{broken}</b> broken
        </Link>
      )}
      {unreachable > 0 && (
        <Link to={to('unreachable')}>
          <b>{unreachable}</b> {unreachable === 1 ? 'screen' : 'screens'} nobody reaches
        </Link>
      )}
      {deadEnds > 0 && (
        <Link to={to('dead-end')}>
          <b>{deadEnds}</b> {deadEnds === 1 ? 'dead end' : 'dead ends'}
        </Link>
      )}
      {planned > 0 && (
        <Link to={to('to-be-drawn')} style={{ color: color.footerOchre }}>
          <b>{planned}</b> to be drawn
        </Link>
      )}
      {waiting > 0 && (
        <Link to={`${base}/deliver?in=publish`}>
          <b>{waiting}</b> {waiting === 1 ? 'note' : 'notes'} of visitors
        </Link>
      )}
      <Saving role="status" title={waitsFor ?? undefined}>
        <Link to={past === null ? `${base}/versions` : base} title="Versions, and all steps">
          Iteration {Object.keys(app.iterations).length + 1}
        </Link>{' '}
        ·{' '}
        {past !== null
          ? `As it was at ${time}`
          : isArriving
            ? waits
              ? 'Kept here until all screens are read'
              : 'Reading screens …'
            : saving === 'saved'
              ? `Saved ${time}`
              : saving === 'saving'
                ? 'Saving …'
                : 'Not saved yet, but kept here; trying again'}
      </Saving>
      <Step
        type="button"
        disabled={!waits && (!history.undo || isArriving)}
        title={undo.title}
        aria-label={undo.label}
        aria-keyshortcuts="Control+Z"
        onClick={() => void session.undo()}
      >
        Undo
      </Step>
      <Step
        type="button"
        disabled={!history.redo || isArriving}
        title={redo.title}
        aria-label={redo.label}
        aria-keyshortcuts="Control+Shift+Z"
        onClick={() => void session.redo()}
      >
        Redo
      </Step>
    </Strip>
  );
}

import { baseName } from '@tovel/core';
import { useQueryClient } from '@tanstack/react-query';
import { type ClipboardEvent, type DragEvent, useEffect, useRef, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { api, type FetchedFiles } from '../api/client';
import { useProject } from '../project/context';
import { intakeOf, type IntakeStanding, useIntake } from './intake_run';
import { type Batch, type ChosenFile, filesInDrop } from './run_intake';

interface BringingIn {
  readonly intake: IntakeStanding;
  /** Whether an address is asked for its screens. */
  readonly isAsking: boolean;
  /** Whether the next batch is a whole round: what is not in it is gone. */
  readonly isWhole: boolean;
  readonly setWhole: (isWhole: boolean) => void;
  readonly begin: (chosen: readonly ChosenFile[], ticket?: string) => void;
  readonly onFetched: (fetched: FetchedFiles, address: string) => void;
  readonly onDrop: (event: DragEvent) => void;
  readonly onPaste: (event: ClipboardEvent) => void;
  readonly hasFile: (path: string) => boolean;
  readonly onMakeScreen: (path: string) => void;
}

/** The ways in, and what follows once a batch is there. @param onText told of a text that was pasted */
export function useBringingIn(onText: (text: string) => void): BringingIn {
  const { session, id, base } = useProject();
  const navigate = useNavigate();
  const queries = useQueryClient();
  const run = intakeOf(session);
  const intake = useIntake(session);
  const isHere = useRef(true);
  useEffect(() => {
    isHere.current = true;
    return () => void (isHere.current = false);
  }, []);
  const [isAsking, setAsking] = useState(false);
  const [isWhole, setWhole] = useState(false);

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

  return {
    intake,
    isAsking,
    isWhole,
    setWhole,
    begin,
    onFetched,
    onDrop: (event) => {
      event.preventDefault();
      void filesInDrop(event.dataTransfer).then((files) => begin(files));
    },
    onPaste: (event) => {
      if ((event.target as HTMLElement).closest('input, textarea, [role=dialog]')) return;
      const files = [...event.clipboardData.files];
      const text = event.clipboardData.getData('text/plain');
      if (files.length) begin(files.map((file) => ({ path: file.name, file })));
      else if (text.trim()) onText(text);
    },
    hasFile: (path) => !intake.running && run.hasFile(path),
    onMakeScreen: (path) => void run.makeScreen(path, onEnd),
  };
}

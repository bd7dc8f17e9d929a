import type { TimelineStep, Version } from '@tovel/core';

/** A pause after which somebody has sat down anew, in ms. */
const PAUSE = 30 * 60_000;

/** A line of a timeline: the head of a sitting, or a step with the names that were given to what it left. */
export type TimelineLine =
  | { readonly kind: 'sitting'; readonly from: string; readonly to: string; readonly steps: number }
  | { readonly kind: 'step'; readonly step: TimelineStep; readonly versions: readonly Version[] };

/**
 * Steps grouped by sitting: what was done without a long pause.
 * @param steps the newest first
 */
export function linesOf(steps: readonly TimelineStep[], versions: readonly Version[]): TimelineLine[] {
  const named = new Map<number, Version[]>();
  for (const version of versions) named.set(version.seq, [...(named.get(version.seq) ?? []), version]);
  const lines: TimelineLine[] = [];
  let sitting: TimelineStep[] = [];
  const end = (): void => {
    if (!sitting.length) return;
    lines.push({
      kind: 'sitting',
      from: sitting.at(-1)!.madeAt,
      to: sitting[0].madeAt,
      steps: sitting.length,
    });
    for (const step of sitting) lines.push({ kind: 'step', step, versions: named.get(step.seq) ?? [] });
    sitting = [];
  };
  for (const step of steps) {
    const last = sitting.at(-1);
    if (last && Date.parse(last.madeAt) - Date.parse(step.madeAt) > PAUSE) end();
    sitting.push(step);
  }
  end();
  return lines;
}

/** What a step did, in words, with the screen that it did it on. */
export function stepInWords(
  { role, label, screens }: TimelineStep,
  nameOf: (screen: string) => string | null,
): string {
  const name = screens.length === 1 ? nameOf(screens[0]) : null;
  const where = name && !label.includes(name) ? `${name}: ` : '';
  const what = role === 'undo' ? 'Took back ' : role === 'redo' ? 'Made again ' : '';
  return what ? `${what}“${where}${label}”` : `${where}${label}`;
}

/** `Today`, `Yesterday`, else the date; with the time. */
export function momentInWords(iso: string, now = new Date()): string {
  const date = new Date(iso);
  const days = Math.round(
    (new Date(now.toDateString()).getTime() - new Date(date.toDateString()).getTime()) / 86_400_000,
  );
  const day =
    days === 0
      ? 'Today'
      : days === 1
        ? 'Yesterday'
        : date.toLocaleDateString([], { day: 'numeric', month: 'short', year: 'numeric' });
  return `${day} ${timeOf(iso)}`;
}

export const timeOf = (iso: string): string =>
  new Date(iso).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' });

import type { Fate, PushPlan } from '@tovel/core';

/** What becomes of files, the most to be looked at first. */
const GROUPS: readonly { readonly fate: Fate | 'asked'; readonly title: string }[] = [
  { fate: 'asked', title: 'To be decided' },
  { fate: 'merged', title: 'Merged with theirs' },
  { fate: 'updated', title: 'Written anew' },
  { fate: 'new', title: 'New' },
  { fate: 'removed', title: 'Taken away' },
  { fate: 'kept', title: 'Theirs, left as they are' },
  { fate: 'left-out', title: 'Taken away by them, left out' },
];

/** Files of a plan in groups, by what becomes of them. */
export function filesByFate(plan: PushPlan, answered: (ask: string) => boolean) {
  const asked = new Set(plan.asks.filter(({ id }) => !answered(id)).map(({ path }) => path));
  return GROUPS.map(({ fate, title }) => ({
    title,
    files: plan.files.filter((file) => (asked.has(file.path) ? fate === 'asked' : file.fate === fate)),
  })).filter(({ files }) => files.length);
}

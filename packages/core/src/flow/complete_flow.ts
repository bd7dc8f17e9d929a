import type { Project } from '../model/project.ts';
import { wantedAt } from './read_flow.ts';
import { scanned } from './tokens.ts';

/** Something that can be written at a place of a sheet. */
export interface FlowCompletion {
  readonly text: string;
  /** What it is. */
  readonly says: string;
}

/**
 * What can be written where the cursor stands, with what of it is there already: words of the language, and names of what
 * the project has.
 * @param at the cursor, from 0 on
 */
export function completeFlow(
  project: Project,
  text: string,
  at: number,
): { readonly from: number; readonly completions: readonly FlowCompletion[] } {
  const lines = text.slice(0, at).split('\n');
  const before = lines.at(-1)!;
  const typed = typedAt(before);
  const from = at - typed.length;
  const done = before.slice(0, before.length - typed.length);
  // Only what stands further in belongs to the screen above it.
  const line = scanned(done, lines.length);
  const rest = text.slice(0, at - before.length);
  const completions = wantedAt(project, `${rest}${after(text, at)}`, line).flatMap(
    (wanted): FlowCompletion[] => {
      if ('word' in wanted) return [{ text: wanted.word, says: '' }];
      return 'name' in wanted ? wanted.all().map((one) => ({ text: one, says: wanted.name })) : [];
    },
  );
  const wish = typed.replace(/^"/, '').toLowerCase();
  const seen = new Set<string>();
  return {
    from,
    completions: completions.filter(({ text: one }) => {
      if (seen.has(one) || one === typed) return false;
      seen.add(one);
      const isOfKind = typed === '' || typed.startsWith('"') === one.startsWith('"');
      return isOfKind && one.replace(/^"/, '').toLowerCase().startsWith(wish);
    }),
  };
}

/** What of the last word or text is there: a text that is not closed, or what follows the last space. */
function typedAt(before: string): string {
  let open = -1;
  for (let i = 0; i < before.length; i++) {
    if (before[i] === '\\' && open >= 0) i++;
    else if (before[i] === '"') open = open < 0 ? i : -1;
  }
  return open >= 0 ? before.slice(open) : /[^\s"]*$/.exec(before)![0];
}

/** What follows the line of the cursor; the line itself is not finished. */
function after(text: string, at: number): string {
  const end = text.indexOf('\n', at);
  return end < 0 ? '' : text.slice(end);
}

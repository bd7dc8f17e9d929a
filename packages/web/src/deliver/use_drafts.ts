import type { CodeRead } from '@tovel/core';
import { useState } from 'react';
import { useProject } from '../project/context';

/** What came of writing into a file, in words. */
function toldOf({ offers, isKept }: CodeRead): string {
  const kept = isKept ? 'What means nothing in the project is kept as you wrote it.' : '';
  if (!offers.length) return kept;
  const [first, ...rest] = offers.map(({ says }) => says);
  const more = rest.length ? ` and ${rest.length} more` : '';
  return `Changed in the project: ${first}${more}. ${kept}`.trim();
}

/**
 * Files that are written into, and what that says of the project.
 * @param read reads a file as it was written into
 */
export function useDrafts(read: (file: string, text: string) => Promise<CodeRead>) {
  const { session } = useProject();
  const [drafts, setDrafts] = useState<ReadonlyMap<string, string>>(new Map());
  const [told, setTold] = useState<string | null>(null);
  const put = (file: string, text: string | null): void =>
    setDrafts((now) => {
      const next = new Map(now);
      if (text === null) next.delete(file);
      else next.set(file, text);
      return next;
    });
  return {
    /** How far each has come, by path. */
    of: drafts,
    /** What came of the last one, in words. */
    told,
    /** Writes on; null leaves the file as it was. */
    put,
    begin(file: string, text: string) {
      setTold(null);
      put(file, text);
    },
    async save(file: string, text: string): Promise<void> {
      const result = await read(file, text);
      if (result.change) session.change(`Write into ${file}`, result.change);
      setTold(result.change ? toldOf(result) : null);
      put(file, null);
    },
  };
}

export type Drafts = ReturnType<typeof useDrafts>;

import type { Notice, NoticeLevel } from '../model/design.ts';
import { grouped } from '../json/grouped.ts';

/** What was said of several files, said once. */
export interface NoticeCause {
  readonly level: NoticeLevel;
  readonly code: string;
  readonly message: string;
  /** Paths of the files that it was said of, each once. */
  readonly files: readonly string[];
}

const ORDER: Readonly<Record<NoticeLevel, number>> = { error: 0, warning: 1, info: 2 };
/** How often something was so in one file. */
const TIMES = / \(\d+ times\)$/;

/** Notices by what they say, those first that cost most: a style sheet that all pages miss is one thing to bring. */
export function noticeCauses(notices: readonly Notice[]): NoticeCause[] {
  const causes = grouped(
    notices,
    ({ level, code, message }) => `${level} ${code} ${message.replace(TIMES, '')}`,
  );
  return [...causes.values()]
    .map((said): NoticeCause => {
      const [{ level, code, message }] = said;
      return {
        level,
        code,
        message: said.length > 1 ? message.replace(TIMES, '') : message,
        files: [...new Set(said.map(({ file }) => file))],
      };
    })
    .sort((a, b) => ORDER[a.level] - ORDER[b.level]);
}

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

/** For sorting: what costs most first. */
export const worstFirst = (a: { readonly level: NoticeLevel }, b: { readonly level: NoticeLevel }): number =>
  ORDER[a.level] - ORDER[b.level];

/** How often something was so in one file. */
const TIMES = / \(\d+ times\)$/;

/** What a message is about. */
const QUOTED = /“[^”]*”|<[^>]*>|\(\d+ times\)/g;
/** What informs of more things than this, or misses more, is not said of each. */
const MOST_APART = 3;
/** So many of the others are named. */
const MOST_NAMED = 2;
const IS_MISSED = /(^|-)missing$/;

/** Notices by what they say, those first that cost most: a style sheet that all pages miss is one thing to bring. */
export function noticeCauses(notices: readonly Notice[]): NoticeCause[] {
  const alike = grouped(
    notices,
    ({ level, code, message }) => `${level} ${code} ${message.replace(QUOTED, '')}`,
  );
  const isMany = ([{ level, code }]: readonly Notice[], messages: ReadonlySet<string>): boolean =>
    (level === 'info' || IS_MISSED.test(code)) && messages.size > MOST_APART;
  const causes = [...alike.values()].flatMap((said) =>
    isMany(said, new Set(said.map(({ message }) => message)))
      ? [said]
      : [...grouped(said, ({ message }) => message.replace(TIMES, '')).values()],
  );
  return causes
    .map((said): NoticeCause => {
      const [{ level, code, message }] = said;
      const messages = [...new Set(said.map((one) => one.message.replace(TIMES, '')))];
      const others = messages.length - 1;
      const once = said.length > 1 ? message.replace(TIMES, '') : message;
      return {
        level,
        code,
        message: others ? `${once} The same is true of ${othersInWords(messages.slice(1), code)}.` : once,
        files: [...new Set(said.map(({ file }) => file))],
      };
    })
    .sort(worstFirst);
}

/** How many others there are; of what is missed, some of them by what they are called. */
function othersInWords(messages: readonly string[], code: string): string {
  const named = IS_MISSED.test(code)
    ? messages.slice(0, MOST_NAMED).flatMap((one) => /“[^”]*”/.exec(one) ?? [])
    : [];
  const rest = messages.length - named.length;
  return [...(named.length ? [named.join(', ')] : []), ...(rest ? [`${rest} more`] : [])].join(' and ');
}

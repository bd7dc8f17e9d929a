import Papa from 'papaparse';
import type { FieldType } from '../model/app.ts';
import type { TableProblem } from './records.ts';

/** A text as lines of cells, the heads first. */
export interface ReadTable {
  readonly lines: readonly (readonly string[])[];
  readonly problems: readonly TableProblem[];
}

/** A text longer than this is taken for no table. */
const MOST_CHARACTERS = 50_000_000;
const MOST_LINES = 200_000;

/** Reads CSV, what a spreadsheet copies (parted by tabs), or a JSON list of records. Never throws. */
export function readTable(text: string): ReadTable {
  if (text.length > MOST_CHARACTERS)
    return failed(`the table has ${text.length} characters; at most ${MOST_CHARACTERS} are read`);
  if (!text.trim()) return failed('there is nothing in it');
  return /^\s*[[{]/.test(text) ? readJson(text) : readCsv(text);
}

const failed = (message: string, line = 1): ReadTable => ({ lines: [], problems: [{ line, message }] });

/** What the reader of tables finds wrong, in words. */
const SAID: Readonly<Record<string, string>> = {
  MissingQuotes: 'a quote is opened that nothing closes; close it, or write it twice',
  InvalidQuotes: 'a quote stands within a value; put the value into quotes, and write this one twice',
};

function readCsv(text: string): ReadTable {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    preview: MOST_LINES,
  });
  return {
    lines: data,
    problems: errors
      // That it found nothing to part one column by is no problem.
      .filter(({ code }) => code !== 'UndetectableDelimiter')
      .slice(0, 20)
      .map(({ row, code }) => ({ line: (row ?? 0) + 1, message: SAID[code] ?? 'it cannot be read' })),
  };
}

function readJson(text: string): ReadTable {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    return failed(`it is no JSON: ${(error as Error).message}`);
  }
  const list = Array.isArray(value) ? value : [value];
  const records = list.filter(
    (one): one is Record<string, unknown> => typeof one === 'object' && one !== null && !Array.isArray(one),
  );
  if (!records.length) return failed('expected a list of records, as [{"name": "Saw"}]');
  const heads = [...new Set(records.flatMap((record) => Object.keys(record)))];
  const lines = records.slice(0, MOST_LINES).map((record) => heads.map((head) => cellOf(record[head])));
  const odd = list.length - records.length;
  return {
    lines: [heads, ...lines],
    problems: odd ? [{ line: 1, message: `${odd} of ${list.length} are no records, and were left out` }] : [],
  };
}

/** A value of JSON as records say it. */
export function cellOf(value: unknown): string {
  if (value === undefined || value === null) return '';
  return typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value);
}

/** Lines of cells as CSV (RFC 4180). */
export const csvOf = (lines: readonly (readonly string[])[]): string =>
  `${Papa.unparse(lines as string[][], { newline: '\n' })}\n`;

/**
 * Lines of cells, the heads first, as a JSON list of records.
 * @param types what the columns are: numbers and yes or no are written as such then, and what is empty is left out
 */
export const jsonOf = (
  [heads = [], ...lines]: readonly (readonly string[])[],
  types?: readonly FieldType[],
): string => {
  const valueOf = (cell: string, type: FieldType | undefined): unknown =>
    types && cell === '' ? undefined : asJson(cell, type);
  const records = lines.map((cells) =>
    Object.fromEntries(heads.map((head, i) => [head, valueOf(cells[i] ?? '', types?.[i])])),
  );
  return `${JSON.stringify(records, null, 2)}\n`;
};

/** A number that is written in another way stays a text, so that it comes back as it was. */
function asJson(cell: string, type: FieldType | undefined): unknown {
  if (type === 'number' && String(Number(cell)) === cell) return Number(cell);
  if (type === 'yes-no' && /^(yes|no)$/.test(cell)) return cell === 'yes';
  return cell;
}

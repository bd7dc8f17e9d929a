import { keptExample } from './samples.ts';
import { parse as parseYaml } from 'yaml';
import { isRecord } from '../json/json.ts';
import { type Api, LONGEST_API } from '../model/app.ts';
import { type ApiDescription, type ApiProblem, descriptionOf, LIMITS, nothingRead } from './description.ts';

/** Reads an OpenAPI document (3.0 or 3.1, JSON or YAML), as `descriptionOf` does. */
export function readApi(text: string): ApiDescription {
  if (text.length > LIMITS.characters)
    return nothingRead(`the document has ${text.length} characters; at most ${LIMITS.characters} are read`);
  let document: unknown;
  try {
    document = readDocument(text);
  } catch (error) {
    return nothingRead(`it is neither JSON nor YAML: ${(error as Error).message.split('\n')[0]}`);
  }
  return descriptionOf(document);
}

/** What a document holds, of whatever kind. @throws where it is neither JSON nor YAML */
const readDocument = (text: string): unknown =>
  /^\s*\{/.test(text) ? JSON.parse(text) : parseYaml(text, { maxAliasCount: 100 });

/** What nothing is read from. */
const UNREAD = /^(x-.*|externalDocs|tags|contact|license|termsOfService|xml|callbacks|links)$/;
/** What is left out where the document is too long with it. */
const WORDY = /^(description|summary|title)$/;
/** What is kept as far as it says what records look like. */
const EXAMPLE = /^examples?$/;
/** What has names of its own choice in it. */
const NAMED =
  /^(properties|paths|schemas|parameters|responses|requestBodies|pathItems|patternProperties|securitySchemes)$/;

/**
 * An API as it is kept with a project: what is read from its document, as JSON.
 * @returns no API where the document cannot be read or is too long; problems say where and what
 */
export function keptApi(text: string): {
  readonly api: Api | null;
  readonly problems: readonly ApiProblem[];
} {
  const read = readApi(text);
  if (!read.operations.length)
    return {
      api: null,
      problems: read.problems.length ? read.problems : [{ at: '/paths', message: 'there are no operations' }],
    };
  const whole = readDocument(text);
  const document = [0, 1]
    .map((step) => JSON.stringify(without(whole, false, step > 0)))
    .find(({ length }) => length <= LONGEST_API);
  if (document === undefined)
    return {
      api: null,
      problems: [
        {
          at: '',
          message: `even without its descriptions the document is longer than ${LONGEST_API} characters: leave out the paths that the app does not need`,
        },
      ],
    };
  return { api: { name: read.title.trim().slice(0, 200) || 'API', document }, problems: read.problems };
}

function without(value: unknown, isNamed: boolean, isShort: boolean): unknown {
  if (Array.isArray(value)) return value.map((one) => without(one, false, isShort));
  if (!isRecord(value)) return value;
  return Object.fromEntries(
    Object.entries(value).flatMap(([name, one]) =>
      !isNamed && (UNREAD.test(name) || (isShort && WORDY.test(name) && typeof one === 'string'))
        ? []
        : !isNamed && EXAMPLE.test(name)
          ? isShort
            ? []
            : [[name, keptExample(one)]]
          : [[name, without(one, !isNamed && NAMED.test(name), isShort)]],
    ),
  );
}

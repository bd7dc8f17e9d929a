import { array, boolean, mixed, number, object, string, type Schema } from 'yup';
import { editProblem } from '../layers/edit.ts';
import { isExternalAddress, isSafeCssValue } from '../model/safe.ts';
import type { Settings } from '../model/app.ts';
import { GESTURES } from '../model/interaction.ts';
import { isRecord } from '../model/json.ts';
import { routeFormProblem } from '../routes/pattern.ts';
import { CHART_KINDS, INPUT_TYPES } from '../roles/names.ts';
import type { TableName } from './change.ts';

/** What may stand in a change that came from outside. */

export const key = string().max(500).required();
const side = string().oneOf(['left', 'right', 'top', 'bottom']);
const title = string().trim().min(1).max(200).required();
const when = { condition: key, is: boolean().required() };
const texts = (most: number): Schema =>
  mixed().test(
    'texts',
    'expected texts by names',
    (value) =>
      value === undefined ||
      (isRecord(value) &&
        Object.entries(value).every(
          ([name, text]) =>
            /^[\w-]{1,60}$/.test(name) &&
            name !== '__proto__' &&
            typeof text === 'string' &&
            text.length <= most,
        )),
  );
const overlay = object({
  kind: string().oneOf(['dialog', 'drawer', 'sheet', 'popover', 'menu', 'toast']).required(),
  side,
  modal: boolean().required(),
  escape: boolean().required(),
  outside: boolean().required(),
  url: boolean().oneOf([true]),
  ms: number().integer().min(500).max(600_000),
  over: array().of(key).max(2000),
  panel: string().max(500),
})
  .noUnknown()
  .default(undefined);
const screenEntry = object({
  name: title,
  route: string().matches(/^\//).max(500).required(),
  use: string().oneOf(['screen', 'skip', 'counterpart', 'overlay', 'planned']).required(),
  of: string().max(500),
  turn: number().integer().min(1).max(10_000),
  order: number().required(),
  params: texts(200),
  guard: object({ ...when, otherwise: key })
    .noUnknown()
    .default(undefined),
  overlay,
}).noUnknown();
const role = string()
  .matches(/^[a-z]+$/)
  .max(40);
const layer = object({
  show: boolean(),
  name: string().trim().min(1).max(200),
  role,
  input: string().oneOf(INPUT_TYPES),
  level: number().integer().min(1).max(6),
  label: string().trim().max(500),
  chart: string().oneOf(CHART_KINDS),
  flat: boolean().oneOf([true]),
  through: boolean().oneOf([true]),
  scrolls: boolean().oneOf([true]),
}).noUnknown();
const length = number().min(-100_000).max(100_000).required();
const region = object({
  kind: string().oneOf(['box', 'row', 'text']).required(),
  box: object({ x: length, y: length, width: length.min(1), height: length.min(1) })
    .noUnknown()
    .required(),
  name: string().trim().min(1).max(200).required(),
  role,
  text: string().max(5000),
}).noUnknown();
const settings: Record<keyof Settings, readonly string[]> = {
  groups: ['container', 'picture'],
  names: ['role', 'plain'],
  hidden: ['out', 'in'],
};
const milliseconds = number().integer().min(0).max(10_000);
const timed = {
  kind: string(),
  ms: milliseconds.required(),
  easing: string().oneOf(['ease-out', 'ease-in', 'ease-in-out', 'linear']),
  delay: milliseconds,
};
const sided = object({ ...timed, from: side.required() }).noUnknown();
const arrivals: Record<string, Schema> = {
  none: object({ kind: string() }).noUnknown(),
  fade: object(timed).noUnknown(),
  slide: sided,
  push: sided,
  scale: object(timed).noUnknown(),
  shared: object({
    ...timed,
    pairs: array()
      .of(object({ from: key, to: key }).noUnknown())
      .max(40)
      .required(),
  }).noUnknown(),
};
const given = mixed().test(
  'given',
  'a parameter is given a text or a field of the row',
  (value) =>
    value === undefined ||
    (isRecord(value) &&
      Object.entries(value).every(
        ([name, one]) =>
          /^[\w-]{1,60}$/.test(name) &&
          name !== '__proto__' &&
          ((typeof one === 'string' && one.length <= 200) ||
            (isRecord(one) &&
              Object.keys(one).join() === 'field' &&
              /^[\d/]{0,200}$/.test(String(one.field)))),
      )),
);
const targets: Record<string, Schema> = {
  screen: object({ kind: string(), screen: key, params: given, query: texts(500) }).noUnknown(),
  back: object({ kind: string(), fallback: string().max(500) }).noUnknown(),
  anchor: object({ kind: string(), screen: key, element: key }).noUnknown(),
  open: object({ kind: string(), overlay: key }).noUnknown(),
  close: object({ kind: string() }).noUnknown(),
  drawer: object({ kind: string(), element: key }).noUnknown(),
  set: object({ kind: string(), condition: key, value: boolean().required() }).noUnknown(),
  file: object({
    kind: string(),
    asset: string()
      .matches(/^[0-9a-f]{64}$/)
      .required(),
    name: title,
  }).noUnknown(),
  external: object({
    kind: string(),
    href: string()
      .max(2000)
      .required()
      .test('safe', 'an external address starts with https:, http:, mailto: or tel:', (v) =>
        isExternalAddress(v ?? ''),
      ),
  }).noUnknown(),
};
const steps: Record<string, Schema> = { open: targets.open, close: targets.close, set: targets.set };
const windowWidth = number().integer().min(1).max(10_000);
const component = object({
  name: string().trim().min(1).max(100).required(),
  kind: string().oneOf(['component', 'list']).required(),
  places: array().of(key).min(1).max(20_000).required(),
  props: mixed().test(
    'names',
    'props: expected names by names',
    (value) =>
      value === undefined ||
      (isRecord(value) && Object.values(value).every((name) => /^[a-z]\w{0,60}$/i.test(String(name)))),
  ),
}).noUnknown();
const cssValue = string()
  .max(2000)
  .test('css', 'a value of a style is plain: no addresses, braces or semicolons', (v) =>
    isSafeCssValue(v ?? ''),
  );
const token = object({
  kind: string().oneOf(['color', 'size', 'weight', 'space', 'radius', 'shadow']).required(),
  value: cssValue.required(),
  from: array().of(cssValue.required()).max(500).required(),
}).noUnknown();
const added = object({
  kind: string().oneOf(['button', 'field', 'select', 'list', 'table', 'divider', 'message']).required(),
  text: string().max(2000).defined(),
  within: key,
  after: string().max(500),
}).noUnknown();
const drawer = object({
  below: windowWidth.required(),
  side: string().oneOf(['left', 'right']).required(),
  name: string().trim().min(1).max(100).required(),
  opener: string().max(500),
}).noUnknown();
const interaction = object({
  on: string().oneOf(GESTURES).required(),
  key: string().min(1).max(40),
  side,
  ms: number().integer().min(0).max(3_600_000),
  when: object(when).noUnknown().default(undefined),
  before: array().of(byKind(steps)).max(20),
  target: byKind(targets),
  arrival: byKind(arrivals),
  everywhere: boolean().oneOf([true]),
}).noUnknown();
const journeySteps: Record<string, Schema> = {
  do: object({ kind: string(), interaction: key, to: key }).noUnknown(),
  enter: object({ kind: string(), element: key, text: string().max(2000).defined() }).noUnknown(),
};
/** What each table of an app may hold. */
export const values: Record<TableName, Schema> = {
  screens: screenEntry,
  interactions: interaction,
  still: boolean().oneOf([true]).required(),
  layers: layer,
  regions: region,
  settings: string().required(),
  dismissed: mixed().test(
    'reason',
    'expected true or a reason',
    (value) => value === true || (typeof value === 'string' && value.length > 0 && value.length <= 500),
  ),
  edits: string().max(5000).defined(),
  components: component,
  tokens: token,
  added,
  drawers: drawer,
  defaults: role.required(),
  refused: boolean().oneOf([true]).required(),
  conditions: object({ name: title, initial: boolean().required() }).noUnknown(),
  redirects: object({ to: key }).noUnknown(),
  layouts: object({ name: title, screens: array().of(key).min(1).max(2000).required() }).noUnknown(),
  journeys: object({
    name: title,
    start: key,
    steps: array().of(byKind(journeySteps)).max(500).required(),
  }).noUnknown(),
  synonyms: string().trim().min(1).max(60).required(),
};

export const isSetting = (name: string, value: unknown): boolean =>
  Object.hasOwn(settings, name) &&
  (value === null || settings[name as keyof Settings].includes(String(value)));

function byKind(schemas: Record<string, Schema>): Schema {
  return mixed()
    .required()
    .test('kind', (value, context) => {
      const schema = isRecord(value) ? schemas[String(value.kind)] : undefined;
      if (!schema)
        return context.createError({
          message: `${context.path}.kind must be one of ${Object.keys(schemas).join(', ')}`,
        });
      try {
        schema.validateSync(value, { strict: true });
        return true;
      } catch (error) {
        return context.createError({ message: `${context.path}: ${(error as Error).message}` });
      }
    });
}

/** What is wrong with a key of a table, beyond its length; null when nothing is. */
export function keyProblem(table: TableName, name: string, value: unknown): string | null {
  if (name === '__proto__') return 'that key is not allowed';
  if (table === 'settings' && !isSetting(name, value)) return `there is no setting "${name}" of that value`;
  if (table === 'interactions' && !/^[^|]+(\|([2-9]|[1-9]\d{1,3}))?$/.test(name))
    return `"${name}" is no element with, at most, a number after it`;
  if (table === 'redirects') return routeFormProblem(name);
  if (table === 'edits') return editProblem(name, value);
  if (table === 'defaults' && !['text', 'image', 'vector', 'box'].includes(name))
    return `there is no kind of layer "${name}"`;
  if (table === 'tokens' && !/^[a-z][a-z0-9-]{0,60}$/.test(name))
    return `a token is named in small letters, digits and -, not "${name}"`;
  return null;
}

import { array, boolean, mixed, number, object, string, type Schema } from 'yup';
import { editProblem } from '../layers/edit.ts';
import { isExternalAddress, isSafeCssValue } from '../model/safe.ts';
import type { Settings } from '../model/app.ts';
import { isRecord } from '../model/json.ts';
import { CHART_KINDS, INPUT_TYPES } from '../roles/names.ts';
import type { TableName } from './change.ts';

/** What may stand in a change that came from outside. */

export const key = string().max(500).required();
const screenEntry = object({
  name: string().trim().min(1).max(200).required(),
  route: string().matches(/^\//).max(500).required(),
  use: string().oneOf(['screen', 'skip', 'counterpart', 'overlay']).required(),
  of: string().max(500),
  turn: number().integer().min(1).max(10_000),
  order: number().required(),
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
const milliseconds = number().integer().min(0).max(10_000).required();
const arrivals: Record<string, Schema> = {
  none: object({ kind: string() }).noUnknown(),
  fade: object({ kind: string(), ms: milliseconds }).noUnknown(),
  slide: object({
    kind: string(),
    ms: milliseconds,
    from: string().oneOf(['left', 'right', 'top', 'bottom']).required(),
  }).noUnknown(),
};
const targets: Record<string, Schema> = {
  screen: object({ kind: string(), screen: key }).noUnknown(),
  back: object({ kind: string(), fallback: string().max(500) }).noUnknown(),
  anchor: object({ kind: string(), screen: key, element: key }).noUnknown(),
  drawer: object({ kind: string(), element: key }).noUnknown(),
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
  on: string().oneOf(['press']).required(),
  target: byKind(targets),
  arrival: byKind(arrivals),
}).noUnknown();
/** What each table of an app may hold. */
export const values: Record<TableName, Schema> = {
  screens: screenEntry,
  interactions: interaction,
  still: boolean().oneOf([true]).required(),
  layers: layer,
  regions: region,
  settings: string().required(),
  dismissed: boolean().oneOf([true]).required(),
  edits: string().max(5000).defined(),
  components: component,
  tokens: token,
  added,
  drawers: drawer,
  defaults: role.required(),
  refused: boolean().oneOf([true]).required(),
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
  if (table === 'edits') return editProblem(name, value);
  if (table === 'defaults' && !['text', 'image', 'vector', 'box'].includes(name))
    return `there is no kind of layer "${name}"`;
  if (table === 'tokens' && !/^[a-z][a-z0-9-]{0,60}$/.test(name))
    return `a token is named in small letters, digits and -, not "${name}"`;
  return null;
}

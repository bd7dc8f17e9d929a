import { CHART_KINDS, INPUT_TYPES } from '../model/app.ts';

export { CHART_KINDS, INPUT_TYPES };

/** The roles that Tovel tells apart, in ARIA terms where ARIA has one. */
export const ROLES = [
  'button',
  'link',
  'textbox',
  'checkbox',
  'switch',
  'radio',
  'radiogroup',
  'combobox',
  'slider',
  'image',
  'icon',
  'heading',
  'paragraph',
  'list',
  'listitem',
  'table',
  'row',
  'columnheader',
  'cell',
  'navigation',
  'banner',
  'main',
  'contentinfo',
  'form',
  'dialog',
  'tablist',
  'tab',
  'menuitem',
  'progressbar',
  'chart',
  'avatar',
  'separator',
  'label',
  'none',
] as const;
export type Role = (typeof ROLES)[number];

const known: ReadonlySet<string> = new Set(ROLES);
export const isRole = (name: string | undefined): name is Role => name !== undefined && known.has(name);

export type InputType = (typeof INPUT_TYPES)[number];
export type ChartKind = (typeof CHART_KINDS)[number];

/** What more there is to say of a role. */
export interface RoleDetail {
  readonly role: Role;
  /** Of a text field. */
  readonly input?: InputType;
  /** Of a heading, 1 to 6. */
  readonly level?: number;
  /** The accessible name where the element shows none; of a picture its alternative text. */
  readonly label?: string;
  readonly chart?: ChartKind;
}

/** A role as the ARIA specification names it; roles that it does not have keep their own name. */
export function ariaName({ role, input }: RoleDetail): string {
  if (role === 'image') return 'img';
  if (role === 'textbox') return input === 'search' ? 'searchbox' : input === 'number' ? 'spinbutton' : role;
  return role;
}

/** Roles that ARIA or its authors write otherwise. */
const SYNONYMS: Readonly<Record<string, Role>> = {
  img: 'image',
  searchbox: 'textbox',
  spinbutton: 'textbox',
  listbox: 'combobox',
  presentation: 'none',
  complementary: 'none',
  region: 'none',
  group: 'none',
  alertdialog: 'dialog',
  grid: 'table',
  gridcell: 'cell',
  rowheader: 'columnheader',
  menuitemcheckbox: 'menuitem',
  menuitemradio: 'menuitem',
  figure: 'image',
  option: 'none',
};

/** The role that an authored name stands for; null for one that Tovel does not tell apart. */
export function roleFromAria(name: string | undefined): Role | null {
  if (name === undefined) return null;
  const first = name.trim().toLowerCase().split(/\s+/)[0];
  return isRole(first) ? first : (SYNONYMS[first] ?? null);
}

/** A role in people's words. */
export function roleInWords(detail: RoleDetail): string {
  switch (detail.role) {
    case 'textbox':
      return detail.input === 'multiline'
        ? 'text area'
        : detail.input && detail.input !== 'text'
          ? `${detail.input} field`
          : 'text field';
    case 'combobox':
      return 'select';
    case 'listitem':
      return 'list item';
    case 'radiogroup':
      return 'radio group';
    case 'banner':
      return 'header';
    case 'columnheader':
      return 'header cell';
    case 'contentinfo':
      return 'footer';
    case 'progressbar':
      return 'progress';
    case 'tablist':
      return 'tabs';
    case 'separator':
      return 'divider';
    case 'heading':
      return detail.level ? `heading ${detail.level}` : 'heading';
    case 'chart':
      return detail.chart ? `${detail.chart} chart` : 'chart';
    case 'none':
      return 'nothing';
    default:
      return detail.role;
  }
}

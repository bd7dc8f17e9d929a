import type { RoleDetail } from '@tovel/core';

/** A role that can be given by one key. */
export interface RoleKey {
  readonly key: string;
  readonly label: string;
  readonly detail: RoleDetail;
}

/** Roles by their keys, those that are given most often first. */
export const ROLE_KEYS: readonly RoleKey[] = [
  { key: 'b', label: 'Button', detail: { role: 'button' } },
  { key: 'l', label: 'Link', detail: { role: 'link' } },
  { key: 'f', label: 'Text field', detail: { role: 'textbox' } },
  { key: 'a', label: 'Text area', detail: { role: 'textbox', input: 'multiline' } },
  { key: 'h', label: 'Heading', detail: { role: 'heading', level: 2 } },
  { key: 'p', label: 'Paragraph', detail: { role: 'paragraph' } },
  { key: 'i', label: 'Image', detail: { role: 'image' } },
  { key: 'o', label: 'Icon', detail: { role: 'icon' } },
  { key: 'u', label: 'List', detail: { role: 'list' } },
  { key: 'm', label: 'List item', detail: { role: 'listitem' } },
  { key: 'n', label: 'Navigation', detail: { role: 'navigation' } },
  { key: 'k', label: 'Header', detail: { role: 'banner' } },
  { key: 'y', label: 'Footer', detail: { role: 'contentinfo' } },
  { key: 's', label: 'Select', detail: { role: 'combobox' } },
  { key: 'c', label: 'Checkbox', detail: { role: 'checkbox' } },
  { key: 'w', label: 'Switch', detail: { role: 'switch' } },
  { key: 'r', label: 'Radio', detail: { role: 'radio' } },
  { key: 'g', label: 'Slider', detail: { role: 'slider' } },
  { key: 'q', label: 'Progress', detail: { role: 'progressbar' } },
  { key: 'j', label: 'Chart', detail: { role: 'chart', chart: 'bar' } },
  { key: 'z', label: 'Avatar', detail: { role: 'avatar' } },
  { key: 'v', label: 'Divider', detail: { role: 'separator' } },
  { key: 'd', label: 'Dialog', detail: { role: 'dialog' } },
  { key: 't', label: 'Table', detail: { role: 'table' } },
  { key: 'e', label: 'Tab', detail: { role: 'tab' } },
  { key: 'x', label: 'Form', detail: { role: 'form' } },
  { key: '0', label: 'Nothing', detail: { role: 'none' } },
];

const byKey = new Map(ROLE_KEYS.map((entry) => [entry.key, entry]));
export const roleOfKey = (key: string): RoleKey | null => byKey.get(key.toLowerCase()) ?? null;

/** The next of some keys after one, in the order of all; the first of them where none follows. */
export function nextOf(
  order: readonly string[],
  wanted: Pick<ReadonlySet<string>, 'has'>,
  from: string | null,
  by: 1 | -1,
): string | null {
  const at = from === null ? (by > 0 ? -1 : order.length) : order.indexOf(from);
  for (let i = at + by; i >= 0 && i < order.length; i += by) if (wanted.has(order[i])) return order[i];
  return null;
}

import { assembleScreen } from '../intake/html/assemble.ts';
import type { ReadElement } from '../intake/html/reading.ts';
import type { Screen } from '../model/design.ts';
import type { Project } from '../model/project.ts';
import { projectOf } from './build.ts';

const MEMBERS = [
  ['Ines Okafor', 'Alder Lane', '2', 'active', '3 March 2026'],
  ['Marit Solberg', 'Mill Street', '1', 'active', '12 January 2024'],
  ['Teodor Banks', 'Quarry Road', '0', 'paused', '30 June 2025'],
  ['Wanda Pryce', 'Alder Lane', '10', 'active', '1 May 2023'],
  ['Jonas Ekwall', 'Station Yard', '3', 'paused', '2 February 2026'],
  ['Pia Lund', 'Mill Street', '4', 'active', '9 August 2025'],
];

type Say = (
  tag: string,
  attributes: Record<string, string>,
  ...children: (ReadElement | string)[]
) => ReadElement;

/** A page as a browser says that it is, of what `body` puts together. */
export function pageOf(key: string, title: string, body: (read: Say) => ReadElement[]): Screen {
  let n = 0;
  const read: Say = (tag, { x = '0', y, ...attributes }, ...children) => ({
    path: `1/${n++}`,
    tag,
    attributes,
    box: { x: Number(x), y: Number(y ?? 20 * n), width: 120, height: 20 },
    base: {
      display: 'block',
      ...(attributes.class?.includes('on') ? { 'background-color': 'rgb(30, 60, 40)' } : {}),
    },
    children,
  });
  return assembleScreen(
    { file: `${key}.html`, screenKey: key, title, asset: () => null },
    {
      width: 1280,
      height: 900,
      canvas: { 'background-color': 'white' },
      hidden: [],
      body: read('body', {}, ...body(read)),
    },
  ).screen;
}

/** A table, its heads over its columns; a cell is a text or what stands in it. */
export const tableOf = (
  read: Say,
  heads: readonly string[],
  rows: readonly (readonly (string | ReadElement)[])[],
): ReadElement => {
  const line = (tag: 'th' | 'td', cells: readonly (string | ReadElement)[], y: number): ReadElement =>
    read('tr', { y: `${y}` }, ...cells.map((cell, i) => read(tag, { x: `${150 * i}`, y: `${y}` }, cell)));
  return read(
    'table',
    { y: '190' },
    read('thead', { y: '190' }, line('th', heads, 190)),
    read('tbody', { y: '240' }, ...rows.map((cells, i) => line('td', cells, 240 + 30 * i))),
  );
};

/** The desk of a library: its members in a table with all that can be done to a list. */
export const members = (): Screen =>
  pageOf('members', 'Members', (read) => [
    read('h1', { y: '150' }, 'Members'),
    read('input', { type: 'search', placeholder: 'Find a member', 'aria-label': 'Find a member' }),
    read(
      'div',
      { class: 'filters' },
      ...['All', 'active', 'paused'].map((label, i) =>
        read('button', { class: i ? 'chip' : 'chip on', type: 'button' }, label),
      ),
    ),
    read(
      'select',
      { 'aria-label': 'Street' },
      ...['All streets', 'Alder Lane', 'Mill Street', 'Quarry Road', 'Station Yard'].map((label) =>
        read('option', {}, label),
      ),
    ),
    tableOf(read, ['Name', 'Street', 'Loans', 'Status', 'Since'], MEMBERS),
    read(
      'div',
      { class: 'pagination' },
      read('button', { type: 'button' }, 'Previous'),
      ...['1', '2', '3'].map((label, i) =>
        read('button', { type: 'button', class: i ? 'page' : 'page on' }, label),
      ),
      read('button', { type: 'button' }, 'Next'),
    ),
    read('p', {}, '1 to 6 of 214 members'),
  ]);

export const desk = (...more: Screen[]): Project => projectOf(members(), ...more);

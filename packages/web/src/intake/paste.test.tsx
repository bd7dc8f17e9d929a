import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { kindOfSource, PasteSheet } from './PasteSheet';
import type { ChosenFile } from './run_intake';

jest.mock('./run_intake', () => ({}));
afterEach(cleanup);

test.each([
  ['<svg width="9"/>', 'svg'],
  ['<?xml version="1.0"?>\n<!-- made by hand -->\n<svg>', 'svg'],
  ['\uFEFF <!DOCTYPE svg PUBLIC "x"><svg>', 'svg'],
  ['<!doctype html><html>', 'html'],
  ['<p>Just a piece', 'html'],
  ['<svgs>', 'html'],
  ['plain words', null],
  ['{"json": 1}', null],
  ['', null],
])('%j is %s', (source, kind) => expect(kindOfSource(source)).toBe(kind));

function paste(first: string): { taken: ChosenFile[]; closed: () => number } {
  const taken: ChosenFile[] = [];
  let closed = 0;
  render(<PasteSheet first={first} onFiles={(files) => taken.push(...files)} onClose={() => closed++} />);
  return { taken, closed: () => closed };
}
const bringIn = (): void => void fireEvent.click(screen.getByRole('button', { name: 'Bring it in' }));
const name = (): HTMLInputElement => screen.getByRole('textbox', { name: 'Name of the screen' });

test('a page is named by its title until somebody says otherwise', () => {
  const { taken, closed } = paste('<title>Notice board</title><h1>Closed</h1>');
  expect(name().value).toBe('Notice board');
  bringIn();
  expect(taken.map(({ path }) => path)).toEqual(['Notice board.html']);
  expect(closed()).toBe(1);
});

test('without a name, or with one that would be a path, nothing is taken and it is said why', () => {
  const { taken } = paste('<svg xmlns="http://www.w3.org/2000/svg"/>');
  bringIn();
  expect(screen.getByText('Give the screen a name.')).toBeTruthy();
  fireEvent.change(name(), { target: { value: '../up' } });
  bringIn();
  expect(screen.getByText('A name cannot hold a slash.')).toBeTruthy();
  fireEvent.change(name(), { target: { value: 'Shed' } });
  bringIn();
  expect(taken.map(({ path }) => path)).toEqual(['Shed.svg']);
});

test('what is neither is said to be so', () => {
  const { taken } = paste('words');
  fireEvent.change(name(), { target: { value: 'Words' } });
  bringIn();
  expect(screen.getByText(/neither HTML nor SVG/)).toBeTruthy();
  expect(taken).toEqual([]);
});

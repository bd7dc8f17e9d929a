import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { useState } from 'react';
import { Suggest, type Suggestion } from './Suggest';

const all = ['Catalogue', 'My loans', 'Members'].map((label, i) => ({
  id: String(i),
  label,
  detail: `/${i}`,
}));
let taken: string[] = [];
let left = 0;

function Example() {
  const [typed, setTyped] = useState('');
  const shown: Suggestion[] = all.filter(({ label }) => label.toLowerCase().includes(typed.toLowerCase()));
  return (
    <Suggest
      label="Goes to"
      value={typed}
      onType={setTyped}
      suggestions={shown}
      nothing="None"
      onTake={({ label }) => taken.push(label)}
      onLeave={() => left++}
    />
  );
}

beforeEach(() => {
  taken = [];
  left = 0;
  render(<Example />);
});
afterEach(cleanup);
const box = () => screen.getByRole('combobox', { name: 'Goes to' });
const type = (value: string) => fireEvent.change(box(), { target: { value } });
const press = (key: string) => fireEvent.keyDown(box(), { key });
const options = () => screen.queryAllByRole('option').map((option) => option.textContent);

test('typing opens what fits, and Enter takes the first', () => {
  expect(options()).toEqual([]);
  type('me');
  expect(options()).toEqual(['Members/2']);
  press('Enter');
  expect(taken).toEqual(['Members']);
  expect(box().getAttribute('aria-expanded')).toBe('false');
});

test('arrows move around, and a new letter begins at the first again', () => {
  type('m');
  press('ArrowDown');
  expect(screen.getByRole('option', { selected: true }).textContent).toBe('Members/2');
  expect(box().getAttribute('aria-activedescendant')).toBe(screen.getByRole('option', { selected: true }).id);
  press('ArrowDown');
  expect(screen.getByRole('option', { selected: true }).textContent).toBe('My loans/1');
  press('ArrowUp');
  type('a');
  expect(screen.getByRole('option', { selected: true }).textContent).toBe('Catalogue/0');
});

test('a press takes, Escape leaves, and nothing that fits is said', () => {
  type('m');
  fireEvent.click(screen.getByText('Members'));
  expect(taken).toEqual(['Members']);
  type('xyz');
  expect(screen.getByText('None')).toBeTruthy();
  press('Enter');
  expect(taken).toHaveLength(1);
  press('Escape');
  expect(left).toBe(1);
});

import { act } from 'react';
import { createRoot } from 'react-dom/client';
import { nextOf, ROLE_KEYS, roleOfKey } from './role_keys';
import { ValueField } from './ValueField';

describe('keys of roles', () => {
  test('each role has a key of its own', () => {
    expect(new Set(ROLE_KEYS.map((entry) => entry.key)).size).toBe(ROLE_KEYS.length);
    for (const entry of ROLE_KEYS) expect(roleOfKey(entry.key.toUpperCase())).toBe(entry);
    expect(roleOfKey('Enter')).toBeNull();
  });
});

describe('from one undecided element to the next', () => {
  const order = ['a', 'b', 'c', 'd'];
  const cases: readonly [from: string | null, by: 1 | -1, wanted: string[], next: string | null][] = [
    [null, 1, ['b', 'd'], 'b'],
    ['b', 1, ['b', 'd'], 'd'],
    ['d', 1, ['b', 'd'], null],
    ['d', -1, ['b', 'd'], 'b'],
    [null, -1, ['b', 'd'], 'd'],
    ['a', 1, [], null],
  ];
  test.each(cases)('from %s by %i among %j: %s', (from, by, wanted, next) => {
    expect(nextOf(order, new Set(wanted), from, by)).toBe(next);
  });
});

describe('a value', () => {
  let container: HTMLElement;
  let values: (string | null)[];
  let unmount: () => void;
  beforeEach(() => {
    container = document.body.appendChild(document.createElement('div'));
    values = [];
    const root = createRoot(container);
    unmount = () => root.unmount();
    act(() =>
      root.render(
        <ValueField
          label="Top"
          value="8px"
          isEdited
          unit="px"
          check={(value) => /^\d+px$/.test(value)}
          onValue={(value) => values.push(value)}
        />,
      ),
    );
  });
  afterEach(() => {
    act(() => unmount());
    container.remove();
  });
  const field = (): HTMLInputElement => container.querySelector('input[aria-label="Top"]')!;
  const type = (text: string): void => {
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!;
    act(() => {
      set.call(field(), text);
      field().dispatchEvent(new Event('input', { bubbles: true }));
    });
  };
  const press = (key: string): void =>
    act(() => void field().dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true })));

  test('a number alone is in px, taken with Enter', () => {
    type('12');
    press('Enter');
    expect(values).toEqual(['12px']);
  });
  test('what is wrong is marked and not taken', () => {
    type('wide');
    expect(field().getAttribute('aria-invalid')).toBe('true');
    press('Enter');
    expect(values).toEqual([]);
  });
  test('emptied, what was drawn holds again', () => {
    type('');
    press('Enter');
    expect(values).toEqual([null]);
  });
  test('arrows go a step', () => {
    press('ArrowUp');
    press('ArrowDown');
    expect(values).toEqual(['9px', '7px']);
  });
  test('Escape leaves it as it was', () => {
    type('99');
    press('Escape');
    expect(field().value).toBe('8px');
    expect(values).toEqual([]);
  });
});

import { act, render } from '@testing-library/react';
import { useQuiet } from './use_quiet';

function Said({ value, ms }: { value: string; ms: number }) {
  return <p>{useQuiet(value, ms)}</p>;
}

beforeEach(() => jest.useFakeTimers());
afterEach(() => jest.useRealTimers());

const pass = (ms: number): void => act(() => void jest.advanceTimersByTime(ms));

test('a value is told once it has not changed for a while', () => {
  const { container, rerender } = render(<Said value="one" ms={300} />);
  expect(container.textContent).toBe('one');
  rerender(<Said value="two" ms={300} />);
  pass(200);
  rerender(<Said value="three" ms={300} />);
  pass(200);
  expect(container.textContent).toBe('one');
  pass(100);
  expect(container.textContent).toBe('three');
});

test('where it is wanted at once it is told at once, and waited for from there', () => {
  const { container, rerender } = render(<Said value="one" ms={0} />);
  rerender(<Said value="two" ms={0} />);
  expect(container.textContent).toBe('two');
  rerender(<Said value="three" ms={300} />);
  expect(container.textContent).toBe('two');
  pass(300);
  expect(container.textContent).toBe('three');
});

test('what came back to what is shown is waited for no longer', () => {
  const { container, rerender } = render(<Said value="one" ms={300} />);
  rerender(<Said value="two" ms={300} />);
  rerender(<Said value="one" ms={300} />);
  pass(1000);
  expect(container.textContent).toBe('one');
});

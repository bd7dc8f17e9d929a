import { fireEvent, render, screen } from '@testing-library/react';
import { StationBoundary } from './StationBoundary';

let isBroken = true;
function View({ name }: { name: string }) {
  if (isBroken) throw new Error('no screen of that key');
  return <p>{name}</p>;
}
const show = (name: string, onLeave = () => {}) => (
  <StationBoundary name={name} onLeave={onLeave}>
    <View name={name} />
  </StationBoundary>
);

beforeEach(() => {
  isBroken = true;
  jest.spyOn(console, 'error').mockImplementation(() => {});
});
afterEach(() => jest.restoreAllMocks());

test('a view that breaks says what happened, and shows again when that is over', () => {
  const onLeave = jest.fn();
  render(show('Map', onLeave));
  expect(screen.getByRole('alert').textContent).toContain('no screen of that key');
  fireEvent.click(screen.getByRole('button', { name: 'Go to Screens' }));
  expect(onLeave).toHaveBeenCalled();
  isBroken = false;
  fireEvent.click(screen.getByRole('button', { name: 'Try again' }));
  expect(screen.getByText('Map')).toBeTruthy();
});

test('another view begins anew', () => {
  const { rerender } = render(show('Map'));
  isBroken = false;
  rerender(show('Run'));
  expect(screen.getByText('Run')).toBeTruthy();
});

test('a view that is no longer there under its name asks for the window to be loaded anew', () => {
  function Gone(): never {
    throw new Error('Failed to fetch dynamically imported module: /assets/Map-1.js');
  }
  render(
    <StationBoundary name="Map" onLeave={() => {}}>
      <Gone />
    </StationBoundary>,
  );
  expect(screen.getByRole('button', { name: 'Load anew' })).toBeTruthy();
});

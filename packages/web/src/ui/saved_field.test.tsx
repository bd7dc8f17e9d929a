import { fireEvent, render, screen } from '@testing-library/react';
import { SavedField } from './SavedField';

const field = (): HTMLInputElement => screen.getByRole('textbox');
const show = (value: string, onSave: (text: string) => void) => (
  <SavedField label="Name" value={value} onSave={onSave} />
);

test('half-typed text stays when the value changes elsewhere, and the other value is offered', () => {
  const onSave = jest.fn();
  const { rerender } = render(show('Home', onSave));
  fireEvent.change(field(), { target: { value: 'Home of to' } });
  rerender(show('Start', onSave));
  expect(field().value).toBe('Home of to');
  expect(screen.getByText(/Changed elsewhere to “Start”/)).toBeTruthy();
  fireEvent.click(screen.getByRole('button', { name: 'Take “Start” instead' }));
  expect(field().value).toBe('Start');
  expect(onSave).not.toHaveBeenCalled();
});

test('a value that nobody types over follows what others make of it', () => {
  const { rerender } = render(show('Home', () => {}));
  rerender(show('Start', () => {}));
  expect(field().value).toBe('Start');
  expect(screen.queryByText(/Changed elsewhere/)).toBeNull();
});

test('what was typed counts when it is entered, once', () => {
  const onSave = jest.fn();
  render(show('Home', onSave));
  fireEvent.change(field(), { target: { value: 'Start' } });
  fireEvent.keyDown(field(), { key: 'Enter' });
  expect(onSave.mock.calls).toEqual([['Start']]);
});

import type { Arrival, Easing, SharedPair, Side } from '@tovel/core';
import { useTyped } from '../ui/use_typed';
import { Choice, Field } from '../ui/controls';

type ArrivalKind = 'none' | 'fade' | 'scale' | 'shared' | `slide-${Side}` | `push-${Side}`;

const ARRIVALS: readonly { id: ArrivalKind; label: string }[] = [
  { id: 'none', label: 'No transition' },
  { id: 'fade', label: 'Fade' },
  { id: 'slide-right', label: 'Slide from right' },
  { id: 'slide-left', label: 'Slide from left' },
  { id: 'slide-bottom', label: 'Slide from bottom' },
  { id: 'slide-top', label: 'Slide from top' },
  { id: 'push-right', label: 'Push from right' },
  { id: 'push-left', label: 'Push from left' },
  { id: 'push-bottom', label: 'Push from bottom' },
  { id: 'push-top', label: 'Push from top' },
  { id: 'scale', label: 'Grow' },
  { id: 'shared', label: 'Shared elements' },
];
const EASINGS: readonly { id: Easing; label: string }[] = [
  { id: 'ease-out', label: 'Slows down' },
  { id: 'ease-in', label: 'Speeds up' },
  { id: 'ease-in-out', label: 'Both' },
  { id: 'linear', label: 'Even' },
];
const FIRST_MS = 240;
const MAX_MS = 10_000;

const kindOf = (arrival: Arrival): ArrivalKind =>
  arrival.kind === 'slide' || arrival.kind === 'push' ? `${arrival.kind}-${arrival.from}` : arrival.kind;

interface ArrivalProps {
  arrival: Arrival;
  isDisabled: boolean;
  /** Elements that both screens have, for a transition in which they move. */
  shared: readonly SharedPair[];
  onChange: (arrival: Arrival) => void;
}

/** How the screen arrives, and how long that takes. */
export function ArrivalFields({ arrival, isDisabled, shared, onChange }: ArrivalProps) {
  const kind = kindOf(arrival);
  const make = (next: ArrivalKind): Arrival => {
    if (next === 'none') return { kind: 'none' };
    const timed = arrival.kind === 'none' ? { ms: FIRST_MS } : timesOf(arrival);
    if (next === 'fade' || next === 'scale') return { kind: next, ...timed };
    if (next === 'shared') return { kind: 'shared', ...timed, pairs: shared };
    const [way, from] = next.split('-') as ['slide' | 'push', Side];
    return { kind: way, from, ...timed };
  };
  return (
    <>
      <Choice
        label="Arrives by"
        value={kind}
        options={shared.length || kind === 'shared' ? ARRIVALS : ARRIVALS.filter(({ id }) => id !== 'shared')}
        isDisabled={isDisabled}
        onChange={(next) => next !== kind && onChange(make(next))}
      />
      <Milliseconds
        label="Milliseconds"
        value={arrival.kind === 'none' ? null : arrival.ms}
        isDisabled={isDisabled}
        onChange={(ms) => arrival.kind !== 'none' && onChange({ ...arrival, ms })}
      />
    </>
  );
}

const timesOf = ({ ms, easing, delay }: Exclude<Arrival, { kind: 'none' }>) => ({
  ms,
  ...(easing ? { easing } : {}),
  ...(delay ? { delay } : {}),
});

/** How the transition speeds up and slows down, and when it begins. */
export function PaceFields({
  arrival,
  onChange,
}: {
  arrival: Exclude<Arrival, { kind: 'none' }>;
  onChange: (arrival: Arrival) => void;
}) {
  return (
    <>
      <Choice
        label="Pace"
        value={arrival.easing ?? 'ease-out'}
        options={EASINGS}
        onChange={(easing) => {
          const { easing: _easing, ...rest } = arrival;
          onChange(easing === 'ease-out' ? rest : { ...rest, easing });
        }}
      />
      <Milliseconds
        label="Begins after"
        value={arrival.delay ?? 0}
        onChange={(delay) => {
          const { delay: _delay, ...rest } = arrival;
          onChange(delay ? { ...rest, delay } : rest);
        }}
      />
    </>
  );
}

/** A number of milliseconds that counts when it is left or entered. */
export function Milliseconds({
  label,
  value,
  most = MAX_MS,
  isDisabled,
  onChange,
}: {
  label: string;
  value: number | null;
  most?: number;
  isDisabled?: boolean;
  onChange: (ms: number) => void;
}) {
  const { text, other, type, end } = useTyped(String(value ?? ''));
  const number = Number(text);
  const isWrong = value !== null && (!/^\d+$/.test(text.trim()) || number > most);
  const save = (): void => {
    if (value === null || isWrong) return;
    end();
    if (number !== value) onChange(number);
  };
  return (
    <Field
      label={label}
      value={text}
      onChange={type}
      other={other}
      onTakeOther={end}
      isDisabled={isDisabled || value === null}
      inputMode="numeric"
      onBlur={save}
      onKeyDown={(event) => event.key === 'Enter' && save()}
      problem={isWrong ? `0 to ${most}` : null}
    />
  );
}

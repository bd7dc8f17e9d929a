import { type Aspect, ASPECTS, dressesOf, type Screen, type Token } from '@tovel/core';
import { type ReactNode, useDeferredValue, useMemo, useState } from 'react';
import { Choice, Field } from '../ui/controls';
import { Block, Chip, Row } from '../workbench/panel';

const LABELS: Readonly<Record<Aspect, string>> = {
  colour: 'Colours',
  type: 'Type',
  space: 'Spaces',
  corners: 'Corners',
};
const COUNTS = ['3', '6', '9', '12'] as const;

/** What somebody wants to see otherwise, and the looks that are made for it from what is there. */
export function useWish(screens: readonly Screen[], tokens: Readonly<Record<string, Token>>) {
  const [aspects, setAspects] = useState<readonly Aspect[]>(ASPECTS);
  const [far, setFar] = useState(50);
  const [given, setGiven] = useState('');
  const [count, setCount] = useState<(typeof COUNTS)[number]>('6');
  const from = /^#([\da-f]{3}|[\da-f]{6})$/i.test(given.trim()) ? given.trim() : undefined;
  const wish = useDeferredValue(`${aspects.join()} ${far} ${count} ${from ?? ''}`);
  const dresses = useMemo(
    () =>
      dressesOf(screens, tokens, {
        aspects,
        far: far / 100,
        count: Number(count),
        ...(from ? { color: from } : {}),
      }),
    [wish, screens, tokens],
  );
  const set = { aspects: setAspects, far: setFar, given: setGiven, count: setCount };
  return { aspects, far, given, from, count, set, dresses };
}

interface WishPanelProps {
  wish: ReturnType<typeof useWish>;
  children: ReactNode;
}

/** Asks what may differ, how far, from which colour, and how many looks there shall be. */
export function WishPanel({ wish: { aspects, far, given, from, count, set }, children }: WishPanelProps) {
  return (
    <Block>
      <h3>What may differ</h3>
      <Row role="group" aria-label="What may differ">
        {ASPECTS.map((aspect) => (
          <Chip
            key={aspect}
            type="button"
            aria-pressed={aspects.includes(aspect)}
            onClick={() =>
              set.aspects(
                aspects.includes(aspect)
                  ? aspects.filter((one) => one !== aspect)
                  : ASPECTS.filter((one) => one === aspect || aspects.includes(one)),
              )
            }
          >
            {LABELS[aspect]}
          </Chip>
        ))}
      </Row>
      <label>
        <span>How far from what is there: {farInWords(far)}</span>
        <input
          type="range"
          min={5}
          max={100}
          step={5}
          value={far}
          onChange={(event) => set.far(Number(event.target.value))}
        />
      </label>
      <Field
        label="From one colour, as #rrggbb"
        value={given}
        placeholder="around the wheel"
        onChange={set.given}
        {...(given && !from ? { problem: 'Six digits after #, as in #2b4c9b.' } : {})}
      />
      <Choice
        label="How many"
        value={count}
        options={COUNTS.map((one) => ({ id: one, label: one }))}
        onChange={set.count}
      />
      {children}
    </Block>
  );
}

const farInWords = (far: number): string => (far < 35 ? 'a little' : far < 70 ? 'clearly' : 'much');

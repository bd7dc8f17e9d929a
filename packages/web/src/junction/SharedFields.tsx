import { type Arrival, findElement, labelOf, type SharedPair } from '@tovel/core';
import { useProject } from '../project/context';
import { Button } from '../ui/controls';
import { Chips } from './Chips';

type Shared = Extract<Arrival, { readonly kind: 'shared' }>;

const isSame = (a: SharedPair, b: SharedPair): boolean => a.from === b.from && a.to === b.to;

/** Which elements of the two screens move: those that were found on both, each to be left out or taken in. */
export function SharedFields({
  arrival,
  candidates,
  onChange,
}: {
  arrival: Shared;
  candidates: readonly SharedPair[];
  onChange: (arrival: Arrival) => void;
}) {
  const { design } = useProject();
  const all = [
    ...arrival.pairs,
    ...candidates.filter((one) => !arrival.pairs.some((pair) => isSame(pair, one))),
  ];
  const nameOf = ({ from, to }: SharedPair): string => {
    const [a, b] = [findElement(design, from), findElement(design, to)];
    if (!a || !b) return 'an element that is gone';
    return labelOf(a) === labelOf(b) ? labelOf(a) : `${labelOf(a)} to ${labelOf(b)}`;
  };
  return (
    <Chips role="group" aria-label="What moves">
      <span>What moves</span>
      {all.map((pair) => {
        const isOn = arrival.pairs.some((one) => isSame(one, pair));
        return (
          <Button
            key={`${pair.from} ${pair.to}`}
            $kind={isOn ? 'primary' : undefined}
            aria-pressed={isOn}
            onPress={() =>
              onChange({
                ...arrival,
                pairs: isOn ? arrival.pairs.filter((one) => !isSame(one, pair)) : [...arrival.pairs, pair],
              })
            }
          >
            {nameOf(pair)}
          </Button>
        );
      })}
    </Chips>
  );
}

import styled from 'styled-components';
import { color } from '../theme/theme';

/** One end of a cord at its pin, the other at its row: px within the stage's column. */
export interface CordEnd {
  readonly key: string;
  readonly x: number;
  readonly y: number;
  readonly toY: number;
  readonly look: 'live' | 'broken' | 'on';
}

const Drawing = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  overflow: hidden;
  z-index: 1;
`;

const LOOKS = {
  live: { stroke: color.lake, width: 1.5, dash: undefined },
  broken: { stroke: color.red, width: 1.5, dash: '5 3' },
  on: { stroke: color.ink, width: 3, dash: undefined },
};

/** Room for the upright parts of the cords at the right of the stage, in px. */
const CHANNELS = 34;

/** Draws each cord from its pin across to a channel of its own, along it, and out to its row. */
export function Cords({ ends, width }: { ends: readonly CordEnd[]; width: number }) {
  // Cords that go down take channels from the outside in, so that they cross as little as can be.
  const order = [...ends].sort((a, b) => a.toY - b.toY);
  const step = Math.min(6, CHANNELS / Math.max(order.length, 1));
  return (
    <Drawing aria-hidden="true">
      {order.map((end, i) => {
        const x = width - 5 - (end.toY >= end.y ? order.length - 1 - i : i) * step;
        const look = LOOKS[end.look];
        return (
          <path
            key={end.key}
            d={`M${end.x} ${end.y}H${Math.max(x, end.x + 3)}V${end.toY}H${width}`}
            fill="none"
            stroke={look.stroke}
            strokeWidth={look.width}
            strokeDasharray={look.dash}
          />
        );
      })}
    </Drawing>
  );
}

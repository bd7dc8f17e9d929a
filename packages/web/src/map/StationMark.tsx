import type { Station } from '@tovel/core';
import type { KeyboardEvent } from 'react';
import { color } from '../theme/theme';

/** Room for a name beside its station, in px of the drawing; letters are about so wide by their size. */
const NAME = 136;
const LETTER = 0.54;
/** A name is never smaller than this on the screen, in px; where no letters of it fit it shows when it is looked at. */
const LEAST_SIZE = 11;
const LEAST_LETTERS = 6;

interface MarkProps {
  station: Station;
  name: string;
  note: string;
  isOn: boolean;
  isFirst: boolean;
  isStart: boolean;
  isPlanned: boolean;
  isOverlay: boolean;
  isBad: boolean;
  /** Chosen or pointed at: shown whole. */
  isLooked: boolean;
  /** Of the drawing: names stay readable when it is small. */
  scale: number;
  onPress: () => void;
  onKeyDown: (event: KeyboardEvent) => void;
  onHover: (key: string | null) => void;
}

/** A station as it is drawn: a circle, a group as a square, an overlay on its corner, with its name and what is said of it. */
export function StationMark({
  station,
  name,
  note,
  isOn,
  isFirst,
  isStart,
  isPlanned,
  isOverlay,
  isBad,
  isLooked,
  scale,
  onPress,
  onKeyDown,
  onHover,
}: MarkProps) {
  const { x, y, key, members, isReached } = station;
  const size = Math.max(13, LEAST_SIZE / scale);
  const most = Math.floor(NAME / (size * LETTER));
  const cut = (text: string, to: number): string => (text.length > to ? `${text.slice(0, to - 1)}…` : text);
  const hasRoom = most >= LEAST_LETTERS;
  const short = hasRoom || isLooked ? cut(name, isLooked ? Math.max(most, NAME) : most) : '';
  const small = Math.max(11, LEAST_SIZE / scale);
  const told =
    size <= 15 || isLooked ? cut(note, isLooked ? note.length : Math.floor(NAME / (small * LETTER))) : '';
  const stroke = isBad ? color.red : color.ink;
  return (
    <g
      id={`station ${key}`}
      role="button"
      tabIndex={isOn || isFirst ? 0 : -1}
      aria-pressed={isOn}
      aria-label={`${name}${isStart ? ', start' : ''}${note ? `, ${note}` : ''}`}
      transform={`translate(${x} ${y})`}
      onClick={onPress}
      onKeyDown={onKeyDown}
      onPointerEnter={() => onHover(key)}
      onPointerLeave={() => onHover(null)}
    >
      <title>{note ? `${name}: ${note}` : name}</title>
      {members ? (
        <rect
          x={-12}
          y={-12}
          width={24}
          height={24}
          fill={isOn ? color.ink : color.sheet}
          stroke={stroke}
          strokeWidth={3}
        />
      ) : isOverlay ? (
        <rect
          x={-8}
          y={-8}
          width={16}
          height={16}
          transform="rotate(45)"
          fill={isOn ? color.ink : color.sheet}
          stroke={stroke}
          strokeWidth={2.5}
        />
      ) : (
        <circle
          r={9}
          fill={isOn ? stroke : isBad ? color.redTint : color.sheet}
          stroke={stroke}
          strokeWidth={3}
          strokeDasharray={isPlanned || !isReached ? '3 3' : undefined}
        />
      )}
      {isStart && <circle r={3.5} fill={isOn ? color.sheet : color.ink} />}
      {members && (
        <text x={0} y={4} textAnchor="middle" style={{ fontSize: 11, strokeWidth: 0 }}>
          {members.length}
        </text>
      )}
      <text
        x={15}
        y={-13}
        style={{ fontWeight: isOn ? 650 : 400, fontSize: size }}
        className={isBad ? 'bad' : undefined}
      >
        {short}
      </text>
      {told && (
        <text x={15} y={9 + size * 0.8} className={isBad ? 'note bad' : 'note'} style={{ fontSize: small }}>
          {told}
        </text>
      )}
    </g>
  );
}

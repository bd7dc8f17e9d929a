import type { Use } from '@tovel/core';
import styled from 'styled-components';
import { color } from '../theme/theme';
import { Button, Choice } from '../ui/controls';
import { SizeSlider } from '../ui/SizeSlider';
import { type BelongingUse } from './BelongsTo';
import { othersInWords } from './chosen_use';
import type { SortBy } from './contact_rows';

const Bar = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 46px;
  padding: 6px 18px;
  border-bottom: 1px solid ${color.rule};
  h2 {
    font-size: 15px;
    margin-right: auto;
    white-space: nowrap;
  }
  h2 span {
    font-weight: 400;
    color: ${color.ink2};
  }
`;

/** How large screens are shown, as parts of their size. */
export const SCALES = { min: 0.06, max: 0.4, first: 0.16 };
const SORTS = [
  { id: 'order', label: 'In their order' },
  { id: 'name', label: 'By name' },
  { id: 'flow', label: 'By flow' },
  { id: 'trouble', label: 'By trouble' },
] as const;
const BELONGING: readonly { readonly use: BelongingUse; readonly label: string; readonly key: string }[] = [
  { use: 'counterpart', label: 'Counterpart of …', key: 'C' },
  { use: 'overlay', label: 'Overlay of …', key: 'O' },
  { use: 'alternative', label: 'Alternative of …', key: 'A' },
  { use: 'state', label: 'State of …', key: 'E' },
];

interface IntakeBarProps {
  /** What each of the screens is. */
  readonly uses: readonly Use[];
  /** How many of them stand by themselves. */
  readonly used: number;
  readonly selected: ReadonlySet<string>;
  readonly onUse: (use: 'screen' | 'skip') => void;
  readonly onBelonging: (use: BelongingUse) => void;
  readonly onOpen: (key: string) => void;
  readonly scale: number;
  readonly onScale: (scale: number) => void;
  readonly sort: SortBy;
  readonly onSort: (sort: SortBy) => void;
}

/** What can be made of the screens that are chosen; where none is, how all of them are shown. */
export function IntakeBar(props: IntakeBarProps) {
  const { uses, used, selected, onUse, onBelonging, onOpen, scale, onScale, sort, onSort } = props;
  if (selected.size)
    return (
      <Bar>
        <h2>
          {selected.size} of {uses.length} <span>chosen</span>
        </h2>
        <Button onPress={() => onUse('screen')} aria-keyshortcuts="K">
          Keep
        </Button>
        <Button onPress={() => onUse('skip')} aria-keyshortcuts="S">
          Skip
        </Button>
        {BELONGING.map(({ use, label, key }) => (
          <Button key={use} onPress={() => onBelonging(use)} aria-keyshortcuts={key}>
            {label}
          </Button>
        ))}
        {selected.size === 1 && (
          <Button $kind="quiet" onPress={() => onOpen([...selected][0])}>
            Read
          </Button>
        )}
      </Bar>
    );
  return (
    <Bar>
      <h2>
        {used} {used === 1 ? 'screen' : 'screens'}
        {uses.length > used && <span>{othersInWords(uses)}</span>}
      </h2>
      <SizeSlider scales={SCALES} value={scale} onChange={onScale} />
      <div style={{ width: 150 }}>
        <Choice label="Sorted" isLabelHidden value={sort} options={SORTS} onChange={onSort} />
      </div>
    </Bar>
  );
}

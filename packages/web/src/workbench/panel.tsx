import styled from 'styled-components';
import { color } from '../theme/theme';

/** Blocks of a side panel, parted by lines. */
export const Block = styled.section`
  padding: 10px 16px 12px;
  border-top: 1px solid ${color.rule};
  display: grid;
  gap: 8px;
  h3 {
    font-size: 13px;
    display: flex;
    justify-content: space-between;
    align-items: baseline;
    gap: 8px;
  }
  h3 small {
    font-weight: 400;
    color: ${color.ink2};
  }
`;

export const Columns = styled.div<{ $n: number }>`
  display: grid;
  grid-template-columns: repeat(${({ $n }) => $n}, minmax(0, 1fr));
  gap: 7px;
  align-items: end;
`;

export const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
`;

/** One of several small choices, with the chosen one filled. */
export const Chip = styled.button`
  min-height: 26px;
  padding: 2px 8px;
  border: 1px solid ${color.fieldRule};
  background: ${color.field};
  color: ${color.ink};
  font-size: 12px;
  text-align: left;
  cursor: pointer;
  kbd {
    float: right;
    margin-left: 6px;
    font-size: 11px;
    color: ${color.ink2};
  }
  &:hover {
    border-color: ${color.ink};
  }
  &[aria-pressed='true'],
  &[aria-checked='true'] {
    background: ${color.ink};
    border-color: ${color.ink};
    color: ${color.onInk};
    kbd {
      color: ${color.onInk2};
    }
  }
  &:disabled {
    color: ${color.ink2};
    border-color: ${color.rule};
    cursor: default;
  }
`;

interface PickProps<K extends string> {
  label: string;
  value: K | null;
  options: readonly { readonly id: K; readonly label: string }[];
  onPick: (value: K) => void;
}

/** A few choices side by side. */
export function Pick<K extends string>({ label, value, options, onPick }: PickProps<K>) {
  return (
    <Row role="group" aria-label={label}>
      {options.map((option) => (
        <Chip
          key={option.id}
          type="button"
          aria-pressed={option.id === value}
          onClick={() => onPick(option.id)}
        >
          {option.label}
        </Chip>
      ))}
    </Row>
  );
}

import type { CollectionProposal, DataProposals } from '@tovel/core';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { StationBar } from '../screens/StationView';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { takeSure } from '../ui/take_sure';
import type { useDataChanges } from './use_data_changes';

const Bar = styled(StationBar)`
  h2 {
    font-size: 15px;
  }
  > span {
    color: ${color.ink2};
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  > :nth-child(2) {
    margin-right: auto;
  }
`;

/** Proposals from this on are taken together. */
const SURE = 0.8;

interface DataBarProps {
  found: DataProposals | null;
  open: readonly CollectionProposal[];
  changes: ReturnType<typeof useDataChanges>;
  canChange: boolean;
}

/** How many collections there are, and what can be done with all of them. */
export function DataBar({ found, open, changes, canChange }: DataBarProps) {
  const { app } = useProject();
  const sure = open.filter(({ confidence }) => confidence >= SURE);
  return (
    <Bar>
      <h2>Data</h2>
      <span role="status">
        {found === null
          ? 'Looking for records …'
          : `${Object.keys(app.collections).length} taken, ${open.length} proposed`}
      </span>
      {canChange && <Button onPress={changes.addCollection}>Add a collection</Button>}
      {canChange && found !== null && (
        <Button $kind="primary" isDisabled={!sure.length} onPress={() => changes.take(sure)}>
          {takeSure(sure.length)}
        </Button>
      )}
    </Bar>
  );
}

import styled from 'styled-components';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { Row } from '../workbench/panel';
import { Swatch } from './Swatch';
import type { TokensHeld } from './use_tokens';

const Side = styled.aside`
  min-height: 0;
  overflow: auto;
  padding: 12px 18px 24px;
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
  display: grid;
  gap: 12px;
  align-content: start;
  h3 {
    font-size: 13px;
  }
  li {
    display: grid;
    grid-template-columns: 44px 44px minmax(0, 1fr);
    gap: 4px 8px;
    align-items: center;
    padding: 7px 0;
    border-top: 1px solid ${color.rule};
  }
  li > div:last-child {
    grid-column: 1 / -1;
  }
  p {
    color: ${color.ink2};
  }
`;

/** Values of which one could do for the other. */
export function NearlySame({ held: { merges, merge, keepApart } }: { held: TokensHeld }) {
  return (
    <Side aria-label="Nearly the same">
      <h3>
        {merges.length
          ? `${merges.length} values are nearly the same as another`
          : 'No two values are nearly the same'}
      </h3>
      <p>Where one would do, take the other back to it. What was drawn stays; the token stands for both.</p>
      <ul>
        {merges.map((proposal) => (
          <li key={proposal.id}>
            <Swatch kind={proposal.kind} value={proposal.drop} isProposed />
            <Swatch kind={proposal.kind} value={proposal.keep} />
            <span>{proposal.reason}</span>
            <Row>
              <Button
                aria-label={`Make ${proposal.drop} be ${proposal.keep}`}
                onPress={() => merge(proposal)}
              >
                Merge
              </Button>
              <Button
                $kind="quiet"
                aria-label={`Keep ${proposal.drop} apart`}
                onPress={() => keepApart(proposal)}
              >
                Keep apart
              </Button>
            </Row>
          </li>
        ))}
      </ul>
    </Side>
  );
}

import {
  type LinkProposal,
  labelOf,
  findElement,
  refuseLink,
  screenName,
  screenOf,
  takeLinks,
} from '@tovel/core';
import { useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';

const List = styled.ul`
  max-height: 340px;
  overflow: auto;
  margin: 10px 0 14px;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 44px auto;
    gap: 10px;
    align-items: center;
    padding: 6px 0;
    border-top: 1px solid ${color.rule};
  }
  li[data-faint] {
    color: ${color.ink2};
  }
  small {
    display: block;
    font-size: 12px;
    color: ${color.ink2};
  }
`;

const Threshold = styled.label`
  display: flex;
  gap: 10px;
  align-items: center;
  input {
    flex: 1;
    accent-color: ${color.lake};
  }
`;

const STEP = 5;

/** All links that are proposed in the app, taken together above a chosen sureness. */
export function ProposalsSheet({
  proposals,
  onClose,
}: {
  proposals: ReadonlyMap<string, LinkProposal>;
  onClose: () => void;
}) {
  const project = useProject();
  const { session, design } = project;
  const [least, setLeast] = useState(80);
  const list = [...proposals.values()].sort((a, b) => b.confidence - a.confidence);
  const taken = list.filter((proposal) => Math.round(proposal.confidence * 100) >= least);
  const label = (key: string): string => {
    const element = findElement(design, key);
    return element ? labelOf(element) : key;
  };
  return (
    <Sheet title="Where open elements may lead" onClose={onClose}>
      <Threshold>
        At least {least} % sure
        <input
          type="range"
          min={35}
          max={95}
          step={STEP}
          value={least}
          onChange={(event) => setLeast(Number(event.target.value))}
        />
      </Threshold>
      <List>
        {list.map((proposal) => (
          <li key={proposal.element} data-faint={taken.includes(proposal) ? undefined : true}>
            <span>
              “{label(proposal.element)}” on {screenName(project, screenOf(project.design, proposal.element))}{' '}
              →{' '}
              <b>
                {proposal.isBack
                  ? `Back, or ${screenName(project, proposal.to)}`
                  : screenName(project, proposal.to)}
              </b>
              <small>because {proposal.reason}</small>
            </span>
            <span>{Math.round(proposal.confidence * 100)} %</span>
            <Button
              $kind="quiet"
              onPress={() =>
                session.change(`Do not wire to ${screenName(project, proposal.to)}`, refuseLink(proposal))
              }
            >
              Refuse
            </Button>
          </li>
        ))}
        {!list.length && <li>Nothing is proposed.</li>}
      </List>
      <Button
        $kind="primary"
        isDisabled={!taken.length}
        onPress={() => {
          session.change(`Take ${taken.length} proposed links`, takeLinks(taken));
          onClose();
        }}
      >
        Take {taken.length}
      </Button>
    </Sheet>
  );
}

import {
  all,
  findElement,
  labelOf,
  linkDecisions,
  type LinkDecision,
  type LinkProposal,
  refuseLink,
  screenName,
  screenOf,
  takeLinks,
} from '@tovel/core';
import { useMemo, useState } from 'react';
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
  const list = useMemo(() => {
    const label = (key: string): string => {
      const element = findElement(design, key);
      return element ? labelOf(element) : '';
    };
    return linkDecisions(proposals.values(), label, (key) => screenOf(design, key));
  }, [proposals, design]);
  const taken = list.filter((decision) => Math.round(decision.confidence * 100) >= least);
  const links = taken.flatMap((decision) => decision.proposals);
  const whereOf = ({ screens, proposals: all }: LinkDecision): string => {
    const on = screens.length === 1 ? screenName(project, screens[0]) : `${screens.length} screens`;
    return all.length > screens.length ? `${all.length} times on ${on}` : `on ${on}`;
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
        {list.map((decision) => (
          <li key={decision.proposals[0].element} data-faint={taken.includes(decision) ? undefined : true}>
            <span title={decision.screens.map((key) => screenName(project, key)).join(', ')}>
              “{decision.label}” →{' '}
              <b>
                {decision.isBack && decision.screens.length > 1
                  ? 'Back'
                  : decision.isBack
                    ? `Back, or ${screenName(project, decision.to)}`
                    : screenName(project, decision.to)}
              </b>
              , {whereOf(decision)}
              <small>because {decision.proposals[0].reason}</small>
            </span>
            <span>{Math.round(decision.confidence * 100)} %</span>
            <Button
              $kind="quiet"
              onPress={() =>
                session.change(
                  `Do not wire “${decision.label}” to ${screenName(project, decision.to)}`,
                  all(decision.proposals.map(refuseLink)),
                )
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
          session.change(`Take ${links.length} proposed links`, takeLinks(links));
          onClose();
        }}
      >
        {links.length > taken.length ? `Take ${taken.length}, ${links.length} links` : `Take ${taken.length}`}
      </Button>
    </Sheet>
  );
}

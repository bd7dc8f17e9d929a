import type { Screen } from '@tovel/core';
import styled from 'styled-components';
import { ElementTree } from '../reading/ElementTree';
import { color } from '../theme/theme';
import type { RoleDecisions } from './use_role_decisions';

const Left = styled.section`
  min-height: 0;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  > header {
    padding: 9px 12px;
    background: ${color.side};
    border-right: 1px solid ${color.rule};
    border-bottom: 1px solid ${color.rule};
    display: grid;
    gap: 6px;
  }
  progress {
    width: 100%;
    height: 6px;
    appearance: none;
    border: 0;
    background: ${color.rule};
    &::-webkit-progress-bar {
      background: ${color.rule};
    }
    &::-webkit-progress-value {
      background: ${color.lake};
    }
  }
`;

/** Which element is chosen and pointed at, by key. */
export interface Pointing {
  readonly selected: string | null;
  readonly hovered: string | null;
  readonly select: (key: string | null) => void;
  readonly hover: (key: string | null) => void;
}

interface ElementsListedProps {
  /** As it came in, and as it is. */
  drawn: Screen;
  screen: Screen;
  decisions: RoleDecisions;
  pointing: Pointing;
}

/** The elements of a screen, what each is, and how many are undecided. */
export function ElementsListed({ drawn, screen, decisions, pointing }: ElementsListedProps) {
  const { proposals, decided, noteOf } = decisions;
  const count = decided + proposals.length;
  return (
    <Left aria-label="Elements of the screen">
      <header>
        <span>
          <b>{proposals.length}</b> undecided{proposals.length > 0 && <small> · Tab: the next</small>}
        </span>
        <progress max={Math.max(1, count)} value={decided} aria-label={`${decided} of ${count} decided`} />
      </header>
      <ElementTree
        screen={drawn}
        settled={screen}
        selected={pointing.selected}
        hovered={pointing.hovered}
        onSelect={pointing.select}
        onHover={pointing.hover}
        noteOf={noteOf}
      />
    </Left>
  );
}

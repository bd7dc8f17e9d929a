import { all, type FoundRegion, putRegion, type Region, type Screen } from '@tovel/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { openRegions, textWithin } from './ReadingPicture';
import { newRegionKeys, regionsOn } from './regions';

const List = styled.ul`
  overflow: auto;
  min-height: 0;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    align-items: center;
    gap: 8px;
    padding: 4px 12px 4px 16px;
    border-top: 1px solid ${color.rule};
  }
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  small {
    color: ${color.ochre};
    margin-left: 6px;
  }
`;

const WORDS: Record<FoundRegion['kind'], string> = { box: 'Box', row: 'Row', text: 'Text' };

/** A found region as the element that it would be. A box that holds a text is called by it. */
export function regionOf(found: FoundRegion, all: readonly FoundRegion[]): Region {
  const name = found.text ?? textWithin(found.box, all) ?? WORDS[found.kind];
  return {
    kind: found.kind,
    box: found.box,
    name: name.slice(0, 200),
    ...(found.text ? { text: found.text } : {}),
  };
}

/** What was found in the picture that a screen is: proposals, each taken by itself or all that are sure. */
export function RegionsPanel({ screen, onTake }: { screen: Screen; onTake: (region: Region) => void }) {
  const { app, session } = useProject();
  const found = useMemo(() => screen.regions ?? [], [screen]);
  const open = useMemo(() => openRegions(found, regionsOn(app, screen.key)), [found, app, screen.key]);
  const sure = open.filter((region) => region.confidence >= 0.75);
  const takeAll = (): void => {
    const keys = newRegionKeys(app, screen.key, sure.length);
    session.change(
      `Take ${sure.length} elements of ${app.screens[screen.key].name}`,
      all(sure.map((region, i) => putRegion(keys[i], { ...regionOf(region, found), screen: screen.key }))),
    );
  };
  return (
    <section
      aria-label="Found in the picture"
      style={{ display: 'grid', gridTemplateRows: 'auto minmax(0, 1fr)', minHeight: 0, gridRow: 'span 2' }}
    >
      <h3 style={{ display: 'flex', justifyContent: 'space-between', alignItems: 'center', gap: 8 }}>
        <span>In the picture · {open.length}</span>
        {sure.length > 1 && (
          <Button $kind="quiet" onPress={takeAll}>
            Take the {sure.length} surest
          </Button>
        )}
      </h3>
      <List>
        {!open.length && <li style={{ color: color.ink2 }}>Nothing more was found. Draw frames by hand.</li>}
        {open.map((region, i) => (
          <li key={i}>
            <span title={region.text ?? textWithin(region.box, found) ?? ''}>
              {region.text ?? textWithin(region.box, found) ?? WORDS[region.kind]}
              <small>
                {WORDS[region.kind].toLowerCase()} {region.confidence.toFixed(2)}
              </small>
            </span>
            <Button $kind="quiet" onPress={() => onTake(regionOf(region, found))}>
              Take
            </Button>
          </li>
        ))}
      </List>
    </section>
  );
}

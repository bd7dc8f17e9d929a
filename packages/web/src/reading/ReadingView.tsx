import {
  elementsByKey,
  type Finding,
  orderedScreens,
  putRegion,
  type Region,
  type Screen,
  screensByKey,
  stationOf,
} from '@tovel/core';
import { type KeyboardEvent, useMemo, useState } from 'react';
import { Link, Navigate, useNavigate, useParams } from 'react-router';
import styled from 'styled-components';
import { assetUrl } from '../api/client';
import { FoundList } from '../findings/FoundList';
import { useFound, useProject } from '../project/context';
import { useElementInAddress } from '../project/element_in_address';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { ElementTree } from './ElementTree';
import { LayerPanel } from './LayerPanel';
import { ReadingPicture } from './ReadingPicture';
import { newRegionKeys } from './regions';
import { RegionsPanel } from './RegionsPanel';

const View = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: minmax(220px, 300px) minmax(0, 1fr) 320px;
  grid-template-rows: auto minmax(0, 1fr);
`;

const Bar = styled.div`
  grid-column: 1 / -1;
  display: flex;
  align-items: center;
  gap: 12px;
  min-height: 46px;
  padding: 6px 16px;
  background: ${color.sheet};
  border-bottom: 1px solid ${color.rule};
  h2 {
    font-size: 15px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
  .mono {
    color: ${color.ink2};
    margin-right: auto;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Side = styled.aside`
  min-height: 0;
  display: grid;
  grid-template-rows: auto auto minmax(0, 1fr);
  background: ${color.sheet};
  border-left: 1px solid ${color.rule};
  section > h3 {
    font-size: 13px;
    padding: 10px 16px 6px;
    border-top: 1px solid ${color.ink};
  }
`;

const Reference = styled.section`
  overflow: auto;
  padding: 18px;
  text-align: center;
  img {
    max-width: 100%;
    border: 1px solid ${color.fieldRule};
  }
`;

/** The reading of one screen: what was found in the file, beside its picture. */
export function ReadingView() {
  const { screenKey } = useParams();
  const { drawn, app, base } = useProject();
  const screen = screenKey ? screensByKey(drawn).get(screenKey) : undefined;
  if (!screen || !app.screens[screen.key]) return <Navigate to={`${base}/intake`} replace />;
  return <Reading key={screen.key} screen={screen} />;
}

function Reading({ screen }: { screen: Screen }) {
  const { drawn, design, app, base, session } = useProject();
  const { findings } = useFound();
  const navigate = useNavigate();
  const [hovered, setHovered] = useState<string | null>(null);
  const [showsReference, setShowsReference] = useState(false);
  const settled = screensByKey(design).get(screen.key)!;
  const [selected, select] = useElementInAddress();
  const element = selected
    ? (elementsByKey(screen).get(selected) ?? elementsByKey(settled).get(selected) ?? null)
    : null;
  const known = screensByKey(drawn);
  const order = orderedScreens(app).filter((key) => known.has(key));
  const at = order.indexOf(screen.key);
  const own = useMemo(
    () => findings.filter((finding) => finding.screen === screen.key && stationOf(finding.code) === 'intake'),
    [findings, screen.key],
  );
  const isPicture = screen.root.children.length === 1 && screen.root.children[0].asset !== undefined;
  const go = (by: 1 | -1): void => {
    const next = order[at + by];
    if (next) void navigate(`${base}/intake/${next}`);
  };
  const addRegion = (region: Region): void => {
    const [key] = newRegionKeys(app, screen.key, 1);
    session.change(`Add ${region.name}`, putRegion(key, { ...region, screen: screen.key }));
    select(key);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    if ((event.target as HTMLElement).closest('input, textarea, select') || event.ctrlKey || event.metaKey)
      return;
    if (event.key === ']') go(1);
    else if (event.key === '[') go(-1);
    else if (event.key === 'Escape') void navigate(`${base}/intake`);
  };
  const entry = app.screens[screen.key];
  return (
    <View onKeyDown={onKeyDown}>
      <Bar>
        <Link to={`${base}/intake`}>All screens</Link>
        <h2 title={entry.name}>{entry.name}</h2>
        <span className="mono" title={screen.source.file}>
          {screen.source.file}
        </span>
        {screen.reference && (
          <Button aria-pressed={showsReference} onPress={() => setShowsReference(!showsReference)}>
            {showsReference ? 'As it is' : 'As it should look'}
          </Button>
        )}
        <Button $kind="quiet" isDisabled={at <= 0} onPress={() => go(-1)} aria-keyshortcuts="[">
          Before
        </Button>
        <Button $kind="quiet" isDisabled={at >= order.length - 1} onPress={() => go(1)} aria-keyshortcuts="]">
          Next
        </Button>
        <Button
          onPress={() => void navigate(`${base}/junction/${screen.key}`)}
          isDisabled={entry.use !== 'screen'}
        >
          Open in Junction
        </Button>
      </Bar>
      <ElementTree
        screen={screen}
        settled={settled}
        selected={element?.key ?? null}
        hovered={hovered}
        onSelect={select}
        onHover={setHovered}
      />
      {showsReference && screen.reference ? (
        <Reference aria-label="How it should look">
          <img src={assetUrl(screen.reference)} alt={`How ${entry.name} should look`} />
        </Reference>
      ) : (
        <ReadingPicture
          screen={settled}
          selected={element?.key ?? null}
          hovered={hovered}
          onSelect={select}
          onHover={setHovered}
          onDraw={isPicture ? addRegion : undefined}
        />
      )}
      <Side aria-label="Details">
        {element ? (
          <LayerPanel element={element} screen={screen} onGone={() => select(null)} />
        ) : (
          <p style={{ padding: '12px 16px', color: color.ink2 }}>
            {isPicture
              ? 'Draw a frame on the picture to make an element of what is there, or take what was found.'
              : 'Choose an element in the list or on the picture.'}
          </p>
        )}
        {isPicture ? <RegionsPanel screen={screen} onTake={addRegion} /> : <span />}
        {!isPicture && (
          <section style={{ display: 'grid', gridTemplateRows: 'auto minmax(0, 1fr)', minHeight: 0 }}>
            <h3>Found here</h3>
            <FoundList
              findings={own}
              onGo={(finding: Finding) => select(finding.element)}
              nothing="Nothing to decide on this screen."
            />
          </section>
        )}
      </Side>
    </View>
  );
}

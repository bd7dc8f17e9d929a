import { matchText, stationOf } from '@tovel/core';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { api } from '../api/client';
import { useFound, useProject } from '../project/context';
import { toggleScheme } from '../theme/scheme';
import { Suggest, type Suggestion } from '../ui/Suggest';
import { Sheet } from './Sheet';
import { stations } from './stations';

interface Destination extends Suggestion {
  readonly go: () => void;
}

const SHOWN = 9;

/** Where one went from here lately, the last first: for as long as the tab is open. */
const LATELY = 'tovel.lately';
const MOST_KEPT = 20;
const readLately = (): readonly string[] => {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(LATELY) ?? '[]');
    return Array.isArray(kept) ? kept.filter((one) => typeof one === 'string') : [];
  } catch {
    return [];
  }
};
const keepLately = (id: string, lately: readonly string[]): void =>
  sessionStorage.setItem(
    LATELY,
    JSON.stringify([id, ...lately.filter((other) => other !== id)].slice(0, MOST_KEPT)),
  );

/** The type-to-go box: any screen, element, route, finding, view or command. */
export function Jump({ onClose, onShortcuts }: { onClose: () => void; onShortcuts: () => void }) {
  const project = useProject();
  const navigate = useNavigate();
  const [typed, setTyped] = useState('');
  const all = useMemo(
    () => destinations(project, (path) => void navigate(path), onShortcuts),
    [project, navigate, onShortcuts],
  );
  const [lately] = useState(readLately);
  const shown = useMemo(() => best(all, typed, lately), [all, typed, lately]);
  return (
    <Sheet title="Jump to" onClose={onClose}>
      <Suggest
        label="A screen, element, route, finding, view or command"
        isLabelHidden
        isStatic
        autoFocus
        placeholder="A screen, an element, a route, a finding, a command"
        value={typed}
        onType={setTyped}
        suggestions={shown}
        nothing="Nothing is called that."
        onLeave={onClose}
        onTake={(taken) => {
          onClose();
          keepLately(taken.id, lately);
          all.find((destination) => destination.id === taken.id)?.go();
        }}
      />
    </Sheet>
  );
}

/** From this score on letters are only found somewhere in a text: enough for a name, and no reason to show a sentence. */
const FUZZY = 3;

/** What fits best: whole words, then beginnings, then letters; what was gone to lately before its equals. */
export function best<T extends Suggestion>(all: readonly T[], typed: string, lately: readonly string[]): T[] {
  const scored = all.flatMap((destination) => {
    const scores = [
      matchText(destination.label, typed),
      destination.detail.startsWith('/') ? matchText(destination.detail, typed) : null,
    ].filter((score) => score !== null);
    if (!scores.length) return [];
    const score = Math.min(...scores);
    if (typed.trim() !== '' && score >= FUZZY && destination.detail === 'finding') return [];
    // Among equals, places come before the single elements on them, and these before sentences.
    const late = destination.detail === 'finding' ? 0.6 : destination.id.startsWith('element') ? 0.5 : 0;
    const at = lately.indexOf(destination.id);
    const early = at < 0 ? 0 : 0.6 - at * 0.01;
    return [{ destination, score: score + late - early }];
  });
  return scored
    .sort((a, b) => a.score - b.score)
    .slice(0, SHOWN)
    .map(({ destination }) => destination);
}

function destinations(
  project: ReturnType<typeof useProject>,
  navigate: (path: string) => void,
  onShortcuts: () => void,
): Destination[] {
  const { id, base, app, graph, session } = project;
  const { findings } = useFound();

  return [
    ...graph.screens.map((key) => ({
      id: `screen ${key}`,
      label: app.screens[key].name,
      detail: app.screens[key].route,
      go: () => navigate(`${base}/junction/${key}`),
    })),
    ...stations.map((station) => ({
      id: `view ${station.path}`,
      label: station.title,
      detail: 'view',
      go: () => navigate(`${base}/${station.path}`),
    })),
    ...[
      { path: 'screens/repeats', label: 'What repeats: components and lists' },
      { path: 'screens/tokens', label: 'Tokens: colours, sizes, spaces' },
    ].map(({ path, label }) => ({
      id: `view ${path}`,
      label,
      detail: 'view',
      go: () => navigate(`${base}/${path}`),
    })),
    ...graph.screens.map((key) => ({
      id: `workbench ${key}`,
      label: `Elements of ${app.screens[key].name}`,
      detail: 'screens',
      go: () => navigate(`${base}/screens/at/${key}`),
    })),
    { id: 'projects', label: 'All projects', detail: 'view', go: () => navigate('/') },
    ...graph.screens.map((key) => ({
      id: `reading ${key}`,
      label: `Reading of ${app.screens[key].name}`,
      detail: 'intake',
      go: () => navigate(`${base}/intake/${key}`),
    })),
    { id: 'versions', label: 'Versions and steps', detail: 'view', go: () => navigate(`${base}/versions`) },
    ...graph.screens.slice(0, 1).map((key) => ({
      id: 'proposals',
      label: 'All that is proposed',
      detail: 'command',
      go: () => navigate(`${base}/junction/${key}?sheet=proposals`),
    })),
    { id: 'undo', label: 'Undo', detail: 'command', go: () => void session.undo() },
    { id: 'redo', label: 'Redo', detail: 'command', go: () => void session.redo() },
    { id: 'scheme', label: 'Switch between light and dark', detail: 'command', go: toggleScheme },
    {
      id: 'archive',
      label: 'Export the project as a .tovel file',
      detail: 'command',
      go: () => window.location.assign(api.archiveUrl(id)),
    },
    {
      id: 'zip',
      label: 'Download the code as a zip',
      detail: 'command',
      go: () => window.location.assign(api.codeUrl(id)),
    },
    { id: 'shortcuts', label: 'Show the shortcuts', detail: 'command', go: onShortcuts },
    ...findings
      .filter((finding) => finding.level !== 'info')
      .map((finding, i) => ({
        id: `finding ${i}`,
        label: finding.message,
        detail: 'finding',
        go: () =>
          navigate(
            stationOf(finding.code) === 'intake'
              ? `${base}/intake${finding.screen ? `/${finding.screen}${finding.element ? `?element=${encodeURIComponent(finding.element)}` : ''}` : ''}`
              : stationOf(finding.code) === 'compare'
                ? `${base}/compare?in=found`
                : finding.screen
                  ? `${base}/junction/${finding.screen}${finding.element ? `?element=${encodeURIComponent(finding.element)}` : ''}`
                  : `${base}/map`,
          ),
      })),
    ...graph.screens.flatMap((key) =>
      graph.elements.get(key)!.map((state) => ({
        id: `element ${state.element.key}`,
        label: state.label,
        detail: `on ${app.screens[key].name}`,
        go: () => navigate(`${base}/junction/${key}?element=${encodeURIComponent(state.element.key)}`),
      })),
    ),
  ];
}

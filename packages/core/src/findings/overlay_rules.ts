import { putScreen } from '../change/change.ts';
import { overlayOf, screenName } from '../model/project.ts';
import type { Found, Rule } from './finding.ts';

/** What is wrong with overlays. */
export const overlayRules: readonly Rule[] = [
  {
    code: 'overlay-without-exit',
    level: 'error',
    station: 'map',
    title: 'Overlays that cannot be closed',
    find: ({ project, graph }) =>
      graph.overlays.flatMap((key): Found[] => {
        const entry = project.app.screens[key];
        const { escape, outside, ms, kind } = overlayOf(entry);
        if (escape || outside || (kind === 'toast' && ms)) return [];
        const leaves = graph.departures
          .get(key)!
          .some(({ problem, interaction: { target, before = [] } }) => {
            const kinds = [...before, target].map((step) => step.kind);
            return !problem && kinds.some((step) => ['close', 'screen', 'back', 'anchor'].includes(step));
          });
        if (leaves) return [];
        return [
          {
            screen: key,
            element: null,
            message: `Nothing closes ${screenName(project, key)}: not Escape, not a press outside, and none of its elements.`,
            fix: {
              label: 'Let Escape close it',
              change: putScreen(key, { ...entry, overlay: { ...overlayOf(entry), escape: true } }),
            },
          },
        ];
      }),
  },
  {
    code: 'overlay-unopened',
    level: 'warning',
    station: 'map',
    title: 'Overlays that nothing opens',
    find: ({ project, graph }) =>
      graph.overlays
        .filter((key) => !graph.arrivals.get(key)!.length)
        .map((key) => ({
          screen: key,
          element: null,
          message: `Nothing opens ${screenName(project, key)}. Wire an element to it, or skip it.`,
        })),
  },
  {
    code: 'close-without-overlay',
    level: 'warning',
    station: 'map',
    title: 'Elements that close what is not open',
    find: ({ project, graph }) =>
      graph.screens.flatMap((key) =>
        graph.departures
          .get(key)!
          .filter(({ interaction }) => interaction.target.kind === 'close')
          .map((link) => ({
            screen: key,
            element: link.element,
            message: `“${link.label}” on ${screenName(project, key)} closes an overlay, but stands in none.`,
          })),
      ),
  },
];

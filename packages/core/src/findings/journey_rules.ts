import { putJourney } from '../change/change.ts';
import { checkJourney } from '../journeys/walk.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import type { Found, Rule } from './finding.ts';

/** What is wrong with journeys. */
export const journeyRules: readonly Rule[] = [
  {
    code: 'journey-broken',
    level: 'error',
    station: 'map',
    title: 'Journeys that can no longer be made',
    find: ({ project, graph }) =>
      Object.entries(project.app.journeys).flatMap(([id, journey]): Found[] => {
        const { places, problem } = checkJourney(project, graph, journey);
        if (!problem) return [];
        const step = journey.steps[problem.step];
        const at = places.at(-1)!;
        return [
          {
            screen: project.app.screens[at] ? at : null,
            element: step?.kind === 'do' ? elementOfInteraction(step.interaction) : null,
            about: id,
            message: `The journey “${journey.name}” breaks at step ${problem.step + 1}: ${problem.message}.`,
            fix: { label: 'Drop the journey', change: putJourney(id, null) },
          },
        ];
      }),
  },
];

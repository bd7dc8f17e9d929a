import { putComponent, putLayout } from '../change/change.ts';
import { findElement, screenOf } from '../model/places.ts';
import { isUsed, screenName } from '../model/project.ts';
import type { Found, Rule } from './finding.ts';

/** What stands by itself since an iteration drew it otherwise than what it was one with. */
export const apartRules: readonly Rule[] = [
  {
    code: 'component-apart',
    level: 'info',
    station: 'intake',
    title: 'Places that are no longer one with their component',
    find: ({ project: { design, app } }) =>
      Object.entries(app.components).flatMap(([id, component]) =>
        (component.apart ?? []).flatMap((key): Found[] => {
          const screen = screenOf(design, key);
          if (!findElement(design, key)) return [];
          const others = component.places.length;
          return [
            {
              screen,
              element: key,
              about: id,
              message: `This “${component.name}” stands by itself: it was drawn otherwise than the other ${others}. Make it one of them again, and the component can be either; or let it stand.`,
              fix: {
                label: 'Make it one of them again',
                change: putComponent(id, {
                  ...component,
                  places: [...component.places, key],
                  apart: component.apart!.filter((one) => one !== key),
                }),
              },
            },
          ];
        }),
      ),
  },
  {
    code: 'layout-apart',
    level: 'info',
    station: 'map',
    title: 'Screens that left their layout',
    find: ({ project }) =>
      Object.entries(project.app.layouts).flatMap(([id, layout]) =>
        (layout.apart ?? [])
          .filter((key) => isUsed(project, key))
          .map((key): Found => ({
            screen: key,
            element: null,
            about: id,
            message: `${screenName(project, key)} is no longer in the layout “${layout.name}”: what is around it was drawn otherwise than around the other ${layout.screens.length}. Put it back, and the layout holds what they still share; or let it stand.`,
            fix: {
              label: 'Put it back into the layout',
              change: putLayout(id, {
                ...layout,
                screens: [...layout.screens, key],
                apart: layout.apart!.filter((one) => one !== key),
              }),
            },
          })),
      ),
  },
];

import { putVariable } from '../change/change.ts';
import { elementOfInteraction } from '../model/interaction.ts';
import { type Project, screensByKey } from '../model/project.ts';
import { pressablesOf } from '../links/pressable.ts';
import { shapeOf } from '../roles/shape.ts';
import { hasParent, type Sight, sightOf } from '../roles/sight.ts';
import { paintOf } from './choices.ts';
import { freeVariable, nameBefore, type Stepping } from './steppers.ts';

const FEWEST = 3;
const MOST = 10;

/** What one of several stars does: it makes a number as many as it stands for. Null where it does not stand among others. */
export function ratingOf({ design, app }: Project, screen: string, element: string): Stepping | null {
  const drawn = screensByKey(design).get(screen)!;
  const { byKey } = sightOf(drawn);
  let at = byKey.get(element);
  while (at?.parent && at.parent.children.length === 1) at = at.parent;
  if (!at?.parent) return null;
  const shape = shapeOf(at.element);
  const pressed = new Set(pressablesOf(drawn).map(({ element: one }) => one.key));
  const isPressed = ({ element: one, children }: Sight): boolean =>
    pressed.has(one.key) || children.some(isPressed);
  // What says what they rate may be built as they are.
  const areAllPressed = isPressed(at);
  const stars = at.parent.children.filter(
    (other) => shapeOf(other.element) === shape && (!areAllPressed || isPressed(other)),
  );
  if (stars.length < FEWEST || stars.length > MOST) return null;
  const value = String(stars.indexOf(at) + 1);
  const known = Object.entries(app.interactions).flatMap(([key, { target }]) =>
    target.kind === 'set' &&
    app.variables[target.condition]?.type === 'number' &&
    isOneOf(stars, byKey.get(elementOfInteraction(key)))
      ? [target.condition]
      : [],
  )[0];
  if (known !== undefined) return { condition: known, value, along: null };
  const { condition, name } = freeVariable(app, 'rating', nameBefore(stars[0], 'Rating'));
  return {
    condition,
    value,
    along: putVariable(condition, { name, type: 'number', initial: drawnAs(stars) }),
  };
}

/** Whether an element is one of some, or stands in one. */
const isOneOf = (some: readonly Sight[], sight: Sight | undefined): boolean =>
  !!sight && (some.includes(sight) || hasParent(sight, (parent) => some.includes(parent)));

/** How many are drawn as the first one is; none where all are drawn alike. */
function drawnAs(stars: readonly Sight[]): number {
  const looks = stars.map((star) => `${star.text} ${star.words} ${drawingOf(star)} ${paintOf(star)}`);
  const other = looks.findIndex((look) => look !== looks[0]);
  return Math.max(0, other);
}

const drawingOf = ({ element, children }: Sight): string =>
  JSON.stringify([element.vector ?? null, element.asset ?? null, children.map(drawingOf)]);

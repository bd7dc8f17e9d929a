import { all, type App, type Change, type Component, type Prop, putComponent } from '@tovel/core';

type Components = App['components'];

/**
 * An id that no component has.
 * @param more so many further on, where several are given at once
 */
export function freeId(components: Components, more = 0): string {
  const numbers = Object.keys(components).map((id) => Number(/^c(\d+)$/.exec(id)?.[1] ?? 0));
  return `c${Math.max(0, ...numbers) + 1 + more}`;
}

/** What a component is called in code. */
export const isComponentName = (name: string): boolean => /^[A-Za-z]\w*$/.test(name);

/** A component with another name for one of its props; null where it cannot be called so. */
export function withPropNamed(
  component: Component,
  props: readonly Prop[],
  { name }: Prop,
  next: string,
): Component | null {
  if (!/^[a-z]\w*$/i.test(next) || props.some((other) => other.name === next)) return null;
  const found = Object.entries(component.props ?? {}).find(([, given]) => given === name);
  return { ...component, props: { ...component.props, [found?.[0] ?? name]: next } };
}

/** A component without some of its places. */
export const withoutPlaces = (component: Component, places: ReadonlySet<string>): Component => ({
  ...component,
  places: component.places.filter((key) => !places.has(key)),
});

/**
 * Parts some places of a component off, as another one.
 * @param other the id of that
 */
export const splitting = (
  id: string,
  component: Component,
  places: ReadonlySet<string>,
  other: string,
): Change =>
  all([
    putComponent(id, withoutPlaces(component, places)),
    putComponent(other, {
      ...component,
      name: `${component.name}2`,
      places: component.places.filter((key) => places.has(key)),
    }),
  ]);

/**
 * Takes the places of another component, or of a proposal, to those of one.
 * @param other null as id where it is only proposed
 */
export const joining = (
  id: string,
  component: Component,
  other: { readonly id: string | null; readonly component: Component },
): Change =>
  all([
    putComponent(id, {
      ...component,
      places: [...new Set([...component.places, ...other.component.places])],
    }),
    ...(other.id === null ? [] : [putComponent(other.id, null)]),
  ]);

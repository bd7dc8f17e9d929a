/**
 * How routes are written, and how they match and rank: as React Router does it, whose rules are tested against it.
 * A route is an absolute path of segments: plain ones, `:name`, either with `?` where it may be missing, and `*` last.
 */

import { isObjectMember } from '../json/json.ts';

export type Segment =
  | { readonly kind: 'plain'; readonly text: string; readonly isOptional: boolean }
  | { readonly kind: 'parameter'; readonly name: string; readonly isOptional: boolean }
  | { readonly kind: 'rest' };

/** One form for routes that lead to the same place: one slash in front, none at the end. */
export function normaliseRoute(text: string): string {
  const route = `/${text.trim()}`.replace(/\/{2,}/g, '/');
  return route.length > 1 ? route.replace(/\/$/, '') : route;
}

const known = new Map<string, readonly Segment[]>();
const MOST_KNOWN = 5000;

/** The segments of a route. Kept, as routes are few and looked at once for each link. */
export function segmentsOf(route: string): readonly Segment[] {
  let segments = known.get(route);
  if (!segments) {
    if (known.size >= MOST_KNOWN) known.clear();
    known.set(route, (segments = readSegments(route)));
  }
  return segments;
}

function readSegments(route: string): Segment[] {
  return normaliseRoute(route)
    .split('/')
    .filter(Boolean)
    .map((text): Segment => {
      if (text === '*') return { kind: 'rest' };
      const isOptional = text.endsWith('?');
      const bare = isOptional ? text.slice(0, -1) : text;
      return bare.startsWith(':')
        ? { kind: 'parameter', name: bare.slice(1), isOptional }
        : { kind: 'plain', text: bare, isOptional };
    });
}

/** Names of the path parameters of a route, in order; `*` for what is left. */
export const parametersOf = (route: string): string[] =>
  segmentsOf(route).flatMap((segment) =>
    segment.kind === 'parameter' ? [segment.name] : segment.kind === 'rest' ? ['*'] : [],
  );

/** Names of the path parameters that an address must have. */
export const requiredParametersOf = (route: string): string[] =>
  segmentsOf(route).flatMap((segment) =>
    segment.kind === 'parameter' && !segment.isOptional ? [segment.name] : [],
  );

/** What is wrong with how a route is written; null when nothing is. */
export function routeFormProblem(text: string): string | null {
  if (!text.trim()) return 'A screen needs a route. Type one, for instance /tools.';
  const route = normaliseRoute(text);
  const bad = /[^A-Za-z0-9\-._~/:?*]/.exec(route);
  if (bad) return `A route cannot hold “${bad[0]}”. Use letters, digits, - and /.`;
  const names = new Set<string>();
  const parts = route.split('/').filter(Boolean);
  for (const [i, part] of parts.entries()) {
    if (part === '.' || part === '..') return 'A route cannot hold . or .. as a part.';
    if (part.includes('*')) {
      if (part !== '*') return `“${part}”: a * stands alone, as in /help/*.`;
      if (i < parts.length - 1) return 'A * can only be the last part of a route.';
      continue;
    }
    const [, colon, name, rest] = /^(:?)([^:?]*)(.*)$/.exec(part)!;
    if (rest && rest !== '?') return `“${part}”: a : stands in front of a part, a ? behind it.`;
    if (!name) return `“${part}”: a name is missing, as in /tools/:toolId.`;
    if (!colon) continue;
    if (!/^[A-Za-z_]\w*$/.test(name))
      return `“${part}”: a parameter is named in letters and digits, as in :toolId.`;
    if (isObjectMember(name)) return `“:${name}” is a name that JavaScript keeps for itself. Use another.`;
    if (names.has(name)) return `The parameter :${name} stands twice in this route.`;
    names.add(name);
  }
  if (parts.filter((part) => part.endsWith('?')).length > 6)
    return 'A route can have at most 6 parts that may be missing.';
  return null;
}

/** The routes without `?` that a route with them stands for, the fullest first. */
export function explodeOptional(segments: readonly string[]): string[][] {
  if (!segments.length) return [];
  const [first, ...rest] = segments;
  const isOptional = first.endsWith('?');
  const required = first.replace(/\?$/, '');
  if (!rest.length) return isOptional ? [[required], []] : [[required]];
  const others = explodeOptional(rest);
  const full = others.map((tail) => [required, ...tail]);
  return isOptional ? [...full, ...others] : full;
}

/** One way to write a route without `?`, with its rank. */
interface Branch {
  readonly route: number;
  readonly path: string;
  readonly score: number;
}

function scoreOf(path: string): number {
  const segments = path.split('/');
  let score = segments.length;
  if (segments.includes('*')) score -= 2;
  for (const segment of segments)
    if (segment !== '*') score += /^:[\w-]+$/.test(segment) ? 3 : segment === '' ? 1 : 10;
  return score;
}

/** All ways to write the routes, in the order in which they are tried. */
function branchesOf(routes: readonly string[]): Branch[] {
  const branches = routes.flatMap((text, route) => {
    const segments = normaliseRoute(text).split('/').filter(Boolean);
    const ways = segments.length ? explodeOptional(segments) : [[]];
    return ways.map((way): Branch => {
      const path = `/${way.join('/')}`;
      return { route, path, score: scoreOf(path) };
    });
  });
  // Sorting is stable: among equals the route that is listed first comes first.
  return branches.sort((a, b) => b.score - a.score);
}

function matcherOf(path: string): { readonly pattern: RegExp; readonly names: readonly string[] } {
  const names: string[] = [];
  let source = '';
  for (const segment of path.split('/').filter(Boolean)) {
    if (segment === '*') {
      names.push('*');
      source += path === '/*' ? '/(.*)' : '(?:/(.+)|/*)';
    } else if (/^:[\w-]+$/.test(segment)) {
      names.push(segment.slice(1));
      source += '/([^/]+)';
    } else source += `/${segment.replace(/[\\.*+^${}|()[\]?]/g, '\\$&')}`;
  }
  return { pattern: new RegExp(`^${source}${names.at(-1) === '*' ? '' : '/*'}$`, 'i'), names };
}

export interface RouteMatch {
  /** Place of the route in the list. */
  readonly route: number;
  readonly params: Readonly<Record<string, string>>;
}

/** Matches addresses against routes; made once for a list of routes. */
export class RouteMatcher {
  readonly #branches: readonly (Branch & ReturnType<typeof matcherOf>)[];

  constructor(routes: readonly string[]) {
    this.#branches = branchesOf(routes).map((branch) => ({ ...branch, ...matcherOf(branch.path) }));
  }

  /** The route that an address without query leads to, and what its parameters are; null when none fits. */
  match(pathname: string): RouteMatch | null {
    const path = decode(pathname);
    for (const { route, pattern, names } of this.#branches) {
      const found = pattern.exec(path);
      if (!found) continue;
      const params: Record<string, string> = {};
      names.forEach((name, i) => {
        params[name] = (found[i + 1] ?? '').replace(/%2F/g, '/');
      });
      return { route, params };
    }
    return null;
  }
}

/** Each segment is decoded by itself, so that an encoded slash does not part segments. */
function decode(pathname: string): string {
  try {
    return pathname
      .split('/')
      .map((part) => decodeURIComponent(part).replace(/\//g, '%2F'))
      .join('/');
  } catch {
    return pathname;
  }
}

/** A name for the place in a route that is the same for all routes that match the same addresses. */
export const shapeOf = (route: string): string =>
  normaliseRoute(route)
    .toLowerCase()
    .replace(/:[\w-]+/g, ':');

/** An address of a route with these parameters. Parameters that may be missing and are not given are left out. */
export function fillRoute(route: string, params: Readonly<Record<string, string>>): string {
  const parts = segmentsOf(route).flatMap((segment) => {
    if (segment.kind === 'plain') return segment.isOptional ? [] : [segment.text];
    if (segment.kind === 'rest')
      return (params['*'] ?? '').split('/').filter(Boolean).map(encodeURIComponent);
    const value = params[segment.name];
    if (value) return [encodeURIComponent(value)];
    return segment.isOptional ? [] : [`:${segment.name}`];
  });
  return `/${parts.join('/')}`;
}

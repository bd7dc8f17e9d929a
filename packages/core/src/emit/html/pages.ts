import { wayTo } from '../paths.ts';
import { kebabCase, uniqueName } from '../../model/names.ts';
import { parametersOf, RouteMatcher, segmentsOf } from '../../paths/pattern.ts';

/** A link from one page to another. */
export interface PageLink {
  /** Relative to the page that it stands on. */
  readonly href: string;
  /** Parameters that the address leaves open: they are those of the present one. */
  readonly keeps: readonly string[];
}

/**
 * Where the pages of an app lie. Each route is a folder with an `index.html`, so that any file server shows it; what varies
 * in a route is a folder by its name, and its value stands in the query: `/tools/:toolId` is `tools/tool-id/?toolId=…`.
 */
export class Pages {
  readonly #folders: readonly string[];
  readonly #matcher: RouteMatcher;
  readonly #routes: readonly string[];

  constructor(routes: readonly string[]) {
    const taken = new Set<string>();
    this.#routes = routes;
    this.#matcher = new RouteMatcher(routes);
    this.#folders = routes.map((route) => {
      const folder = uniqueName(folderOf(route), (candidate) => taken.has(candidate));
      taken.add(folder);
      return folder;
    });
  }

  /** The folder of a route, with a slash at its end; empty for the root. */
  folderOf(route: string): string {
    const folder = this.#folders[this.#routes.indexOf(route)] ?? '';
    return folder && `${folder}/`;
  }

  /**
   * The link to an address of the app.
   * @param from the folder of the page that it stands on
   * @param to a route with its parameters filled in or, where they are left open, as they are written; query and anchor
   */
  linkTo(from: string, to: string): PageLink {
    const [, path, query = '', hash = ''] = /^([^?#]*)(\?[^#]*)?(#.*)?$/.exec(to)!;
    const found = this.#matcher.match(path);
    if (!found) return { href: relative(from, '') + query + hash, keeps: [] };
    const asked = new URLSearchParams();
    const keeps: string[] = [];
    for (const name of parametersOf(this.#routes[found.route])) {
      const value = found.params[name];
      if (value === `:${name}`) keeps.push(name);
      else if (value) asked.set(name === '*' ? 'rest' : name, value);
    }
    for (const [name, value] of new URLSearchParams(query)) asked.set(name, value);
    const folder = this.#folders[found.route];
    const says = asked.toString();
    return {
      href: `${relative(from, folder && `${folder}/`)}${says && `?${says}`}${hash}`,
      keeps,
    };
  }
}

/** The folder of a route, without slashes around it. Parts that may be missing are. */
function folderOf(route: string): string {
  return segmentsOf(route)
    .flatMap((segment) =>
      segment.kind === 'rest'
        ? ['rest']
        : segment.isOptional
          ? []
          : [segment.kind === 'parameter' ? kebabCase(segment.name) || 'value' : segment.text],
    )
    .join('/');
}

/** From one folder to another or to a file in it, as a link says it. */
export const relative = (from: string, to: string): string => wayTo(from, to) || './';

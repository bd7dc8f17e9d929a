import { analysisOf } from '../../graph/analysis.ts';
import { type GraphLink, graphOf } from '../../graph/graph.ts';
import type { Arrival } from '../../model/app.ts';
import type { Project } from '../../model/project.ts';
import { dotText, escapeText, escapeValue } from '../quoting.ts';
import { printScxml } from './scxml.ts';

/** What a graph file says of a screen. */
interface GraphNode {
  readonly name: string;
  readonly route: string;
  readonly start: boolean;
  /** Presses from the start; left out where nobody gets there. */
  readonly depth?: number;
}

/** What a graph file says of a link. */
interface GraphEdge {
  readonly label: string;
  readonly on: string;
  readonly arrival: string;
  /** Key of the element on the other screen that the link leads to, if to one. */
  readonly anchor?: string;
}

interface GraphFile {
  readonly nodes: readonly (readonly [key: string, node: GraphNode])[];
  readonly edges: readonly (readonly [from: string, to: string, edge: GraphEdge])[];
}

/** The screens in use and the whole links between them; what is broken or leads back or outside has no other end. */
function graphFileOf(project: Project): GraphFile {
  const graph = graphOf(project);
  const { depth } = analysisOf(graph);
  const edgeOf = ({ label, interaction: { on, arrival, target } }: GraphLink): GraphEdge => ({
    label,
    on,
    arrival: arrivalIn(arrival),
    ...(target.kind === 'anchor' ? { anchor: target.element } : {}),
  });
  return {
    nodes: [...graph.screens, ...graph.overlays].map((key) => {
      const { name, route } = project.app.screens[key];
      return [key, { name, route, start: key === graph.start, depth: depth.get(key) }];
    }),
    edges: graph.links.flatMap((link) =>
      link.to && !link.problem ? [[link.from, link.to, edgeOf(link)] as const] : [],
    ),
  };
}

const arrivalIn = (arrival: Arrival): string =>
  [arrival.kind, 'from' in arrival ? arrival.from : '', 'ms' in arrival ? `${arrival.ms}ms` : '']
    .filter(Boolean)
    .join(' ');

/** The screen graph in the DOT language of Graphviz: a box a screen, an arrow a link with the element's label. */
function printDot(project: Project, title: string): string {
  const { nodes, edges } = graphFileOf(project);
  const list = (entries: Readonly<Record<string, string | undefined>>): string =>
    Object.entries(entries)
      .flatMap(([name, value]) => (value === undefined ? [] : [`${name}=${value}`]))
      .join(', ');
  return [
    `digraph ${dotText(title)} {`,
    '  rankdir=LR;',
    '  node [shape=box];',
    ...nodes.map(
      ([key, { name, route, start }]) =>
        `  ${dotText(key)} [${list({ label: dotText(`${name}\n${route}`), peripheries: start ? '2' : undefined })}];`,
    ),
    ...edges.map(
      ([from, to, { label, arrival }]) =>
        `  ${dotText(from)} -> ${dotText(to)} [${list({ label: dotText(label), comment: dotText(arrival) })}];`,
    ),
    '}',
    '',
  ].join('\n');
}

const KEYS = {
  node: { name: 'string', route: 'string', start: 'boolean', depth: 'int' },
  edge: { label: 'string', on: 'string', arrival: 'string', anchor: 'string' },
} as const;

/** The screen graph as GraphML, with names, routes and depths of screens, and labels and arrivals of links as data. */
function printGraphMl(project: Project, title: string): string {
  const { nodes, edges } = graphFileOf(project);
  const keys = Object.entries(KEYS).flatMap(([of, names]) =>
    Object.entries(names).map(
      ([name, type]) => `  <key id="${of}-${name}" for="${of}" attr.name="${name}" attr.type="${type}"/>`,
    ),
  );
  const dataOf = (of: keyof typeof KEYS, values: GraphNode | GraphEdge): string =>
    Object.entries(values)
      .filter(([, value]) => value !== undefined)
      .map(([name, value]) => `<data key="${of}-${name}">${escapeText(inXml(String(value)))}</data>`)
      .join('');
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<graphml xmlns="http://graphml.graphdrawing.org/xmlns">',
    ...keys,
    `  <graph id="screens" edgedefault="directed">`,
    `    <desc>${escapeText(inXml(title))}</desc>`,
    ...nodes.map(([key, node]) => `    <node id="${idIn(key)}">${dataOf('node', node)}</node>`),
    ...edges.map(
      ([from, to, edge], i) =>
        `    <edge id="link-${i + 1}" source="${idIn(from)}" target="${idIn(to)}">${dataOf('edge', edge)}</edge>`,
    ),
    '  </graph>',
    '</graphml>',
    '',
  ].join('\n');
}

const idIn = (key: string): string => escapeValue(inXml(key));

/** Without the characters that XML 1.0 has no way to write. */
const inXml = (text: string): string =>
  // eslint-disable-next-line no-control-regex
  text.replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff]|\p{Cs}/gu, '');

/** The formats that the screen graph is written in. */
export const graphFiles = {
  graphml: { title: 'GraphML', extension: '.graphml', type: 'application/xml', print: printGraphMl },
  dot: { title: 'DOT', extension: '.dot', type: 'text/vnd.graphviz', print: printDot },
  scxml: {
    title: 'SCXML',
    extension: '.scxml',
    type: 'application/scxml+xml',
    print: (project: Project) => printScxml(project),
  },
} as const;

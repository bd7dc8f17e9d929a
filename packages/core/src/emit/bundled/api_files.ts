import { kebabCase } from '../../model/names.ts';
import type { Project } from '../../model/project.ts';
import { standInPlan } from '../../standin/plan.ts';
import { assetFile } from '../form/assets.ts';
import { onLines, propertyName, script, type Script } from '../script.ts';
import { type ApiCode, standInAddress } from '../form/live/apis.ts';
import { apiFile } from './api_file.ts';
import { envExample } from './project_files.ts';
import { standIn } from './runtime_texts.ts';

interface ApiFile {
  readonly path: string;
  readonly text: string;
  /** Pictures that it names. */
  readonly assets?: readonly string[];
}

/** What is written for the APIs: requests, what the environment can say, and stand-ins that answer until it does. */
export function apiFiles(project: Project, apis: readonly ApiCode[], hasTests: boolean): ApiFile[] {
  if (!apis.length) return [];
  const plans = apis.map((code) => {
    const assets = new Set<string>();
    const plan = standInPlan(project, code.id, (hash) => {
      assets.add(hash);
      return assetFile(project, hash);
    });
    return {
      path: `api/${nameOf(code)}.json`,
      text: `${JSON.stringify(plan, null, 2)}\n`,
      assets: [...assets],
    };
  });
  return [
    ...apis.map((code) => ({ path: `src/api/${code.file}.ts`, text: apiFile(code) })),
    ...plans,
    ...Object.entries(standIn).map(([name, text]) => ({ path: `api/${name}`, text })),
    { path: '.env.example', text: envExample(apis) },
    ...(hasTests ? [{ path: 'src/testing/apis.ts', text: testedApis(apis) }] : []),
  ];
}

const nameOf = ({ file }: ApiCode): string => kebabCase(file);

/** What answers for the APIs in tests. */
function testedApis(apis: readonly ApiCode[]): string {
  const names = apis.map((_, i) => `plan${i ? i + 1 : ''}`);
  const entries = apis.map((code, i): Script => {
    const address = standInAddress(code);
    return script`  ${propertyName(address)}: createStandIn(${propertyName(names[i])} as unknown as StandInPlan, ${address}),`;
  });
  return script`import { vi } from 'vitest';
import { createStandIn, type StandIn, type StandInPlan } from ${'../../api/answer'};
${onLines(apis.map((code, i) => script`import ${propertyName(names[i])} from ${`../../api/${nameOf(code)}.json`};`))}

const standIns: Record<string, StandIn> = {
${onLines(entries)}
};

/** Requests are answered in place, without a network, from records that are as they were at first. */
export function answerAnew(): void {
  Object.values(standIns).forEach((standIn) => standIn.reset());
}

vi.stubGlobal('fetch', async (address: string, { method = 'GET', body }: RequestInit = {}) => {
  const { pathname, searchParams } = new URL(address, location.origin);
  const [at, standIn] = Object.entries(standIns).find(([one]) => pathname.startsWith(one + '/')) ?? [];
  const answer = standIn?.answer({
    method,
    path: pathname.slice(at?.length),
    query: Object.fromEntries(searchParams),
    body: typeof body === 'string' ? (JSON.parse(body) as unknown) : undefined,
  });
  return new Response(answer?.body === undefined ? null : JSON.stringify(answer.body), {
    status: answer?.status ?? 404,
  });
});
`.text;
}

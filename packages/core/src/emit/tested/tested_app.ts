import { joined, named, onLines, script, type Script } from '../script.ts';

/** What the file is made by that opens an app for its own tests. */
export interface TestedApp {
  /** Whether it remembers something. */
  readonly variables: boolean;
  /** Names of the constants of records, each with whether an API keeps them. */
  readonly records: readonly { readonly name: string; readonly isRemote: boolean }[];
  /** Whether there are APIs. */
  readonly isRemote: boolean;
  /** Whether something is said over screens. */
  readonly hasNotice: boolean;
}

const NOTHING = script``;

/** What it takes from the rest of the app, whatever that is written in. */
export const takenByTestedApp = ({ variables, records, isRemote, hasNotice }: TestedApp): Script =>
  joined([
    ...records.map(({ name }) => script`import { ${named(name)} } from ${`../data/${name}`};\n`),
    ...(hasNotice ? [script`import { notices } from '../shell/notices';\n`] : []),
    ...(variables
      ? [script`import { setVariable, type Variables, variables } from '../state/variables';\n`]
      : []),
    ...(isRemote ? [script`import { answerAnew } from './apis';\n`] : []),
    script`import type { Moment } from './effects';\n`,
    script`import { seenOn } from './page';\n`,
  ]);

/** What makes an app what it was at first. */
function resets({ variables, records, isRemote, hasNotice }: TestedApp): Script[] {
  return [
    ...(isRemote ? [script`  queryClient.clear();`, script`  answerAnew();`] : []),
    ...records.flatMap((one) => (one.isRemote ? [] : [script`  ${named(one.name)}.reset();`])),
    ...(variables ? [script`  give(atFirst);`] : []),
    ...(hasNotice ? [script`  notices.forget();`] : []),
  ];
}

/** What is taken of the package that runs the tests, besides what ends them. */
export const hooksOfTests = (app: TestedApp): Script => (resets(app).length ? script`, beforeEach` : NOTHING);

/**
 * What makes an app what it was at first before each test, gives variables values, and tells what there is; and what an app is that
 * a test has opened, which is closed after it.
 * @param now what variables are by now, as code
 */
export function startOfTests(app: TestedApp, now: Script): Script {
  const { variables, records, isRemote, hasNotice } = app;
  const before = resets(app);
  const all = records.map(({ name }) => script`${named(name)}: await ${named(name)}.all()`);
  return script`${
    variables
      ? script`/** Variables, and what they are made. */
type Given = Readonly<Record<string, unknown>>;

const atFirst = { ...${now} };

function give(given: Given): void {
  for (const [name, value] of Object.entries(given))
    setVariable(name as keyof Variables, value as never);
}

`
      : NOTHING
  }${
    before.length
      ? script`beforeEach(() => {
${onLines(before)}
});

`
      : NOTHING
  }async function momentAt(address: string): Promise<Moment> {
  return {
    address,
    variables: ${variables ? script`{ ...${now} }` : script`{}`},
    records: { ${all} },
    answers: ${
      isRemote
        ? script`queryClient
      .getQueryCache()
      .findAll({ type: 'active' })
      .reduce((sum, { state }) => sum + state.dataUpdateCount, 0)`
        : script`0`
    },
    told: ${hasNotice ? script`notices.now()?.text ?? ''` : script`''`},
    ...seenOn(document),
  };
}

/** An app as a test has opened it. */
export interface OpenApp {
  container: HTMLElement;
  address: () => string;
  /** Does something, and waits until what follows from it is there. */
  does: (deed: () => void) => Promise<void>;
  moment: () => Promise<Moment>;
  close: () => Promise<void>;
}

let close = async () => {};
afterEach(() => close());
`;
}

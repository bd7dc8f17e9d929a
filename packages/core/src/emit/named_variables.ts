import { sentenceCase } from '../model/names.ts';
import type { Variable } from '../model/app.ts';
import { type Derived, derivedVariables } from '../variables/variables.ts';
import type { EmissionPlan } from './form/plan.ts';
import { printExpression } from './print_expression.ts';
import { recordsApart, recordsApartFile } from './records_apart.ts';
import { joined, named, onLines, printed, remark, script, type Script } from './script.ts';

/** A variable, with the name that it has in code and, where it is worked out from others, how. */
export interface NamedVariable {
  readonly name: string;
  readonly variable: Variable;
  readonly derived?: Derived;
  /** Those of the collections that it is worked out from which an API keeps. */
  readonly asks?: ReadonlySet<string>;
  /** Those of them whose records stand in a file of their own. */
  readonly apart?: ReadonlySet<string>;
}

/** The type of what the app remembers, and the store of it. */
export function storeOf(variables: readonly NamedVariable[]): {
  /** What the file takes besides: functions of expressions, and records that something is worked out from. */
  readonly imports: Script;
  readonly type: Script;
  readonly store: Script;
} {
  const kept = variables.filter(({ variable }) => variable.kept && variable.says === undefined);
  const { rules: derived, callsFunctions, records } = derivedRules(variables);
  const rules = [
    ...(kept.length
      ? [script`  kept: { ${kept.map(({ name, variable }) => script`${named(name)}: ${variable.kept!}`)} },`]
      : []),
    ...(derived.length
      ? [script`  derived: {\n${onLines(derived.map((rule) => script`    ${rule},`))}\n  },`]
      : []),
    ...(records.length ? [script`  follows: [${records.map(([name]) => named(name))}],`] : []),
  ];
  const initial = onLines(
    variables.map(({ name, variable }) => script`    ${named(name)}: ${initialOf(variable)},`),
  );
  return {
    type: script`/** What the app remembers. */
export interface Variables {
${onLines(
  variables.map(
    ({ name, variable }) =>
      script`  /** ${remark(`${sentenceCase(variable.name)}${variable.says === undefined ? '' : ', worked out from others'}`)}. */\n  ${named(name)}: ${typeScriptOf(variable)};`,
  ),
)}
}`,
    store: rules.length
      ? script`createStore<Variables>(\n  {\n${initial}\n  },\n  {\n${onLines(rules.map((rule) => script`  ${rule}`))}\n  },\n)`
      : script`createStore<Variables>({\n${onLines(
          variables.map(({ name, variable }) => script`  ${named(name)}: ${initialOf(variable)},`),
        )}\n})`,
    imports: joined([
      ...(callsFunctions ? [script`import * as calc from '../records/functions';\n`] : []),
      ...records.map(([name, file]) => script`import { ${named(name)} } from ${`../data/${file}`};\n`),
    ]),
  };
}

/** What a variable is at first, as a literal. */
export const initialOf = ({ initial }: Pick<Variable, 'initial'>): Script =>
  typeof initial === 'object' ? script`[${initial}]` : script`${initial}`;

/** What is worked out from others, a property each: what works it out. */
export function derivedRules(variables: readonly NamedVariable[]): {
  readonly rules: readonly Script[];
  readonly callsFunctions: boolean;
  /** The collections whose records are looked at, by their names, each with the file that they stand in. */
  readonly records: readonly (readonly [name: string, file: string])[];
} {
  let callsFunctions = false;
  const records = new Map<string, string>();
  const rules = variables.flatMap(({ name, derived, asks, apart }) => {
    if (!derived) return [];
    let looksAtVariables = false;
    const code = printExpression(derived.says, {
      prop: never,
      parameter: never,
      listing: never,
      records: (one) => {
        records.set(one, apart?.has(one) ? recordsApartFile(one) : one);
        return asks?.has(one) ? `${one}.known()` : `${one}.all()`;
      },
      variable: (one) => {
        looksAtVariables = true;
        return `now.${one}`;
      },
      called: (one) => {
        callsFunctions = true;
        return `calc.${one}`;
      },
      path: '',
    });
    return [script`${named(name)}: (${looksAtVariables ? script`now` : script``}) => ${printed(code)}`];
  });
  return { rules, callsFunctions, records: [...records].sort(([a], [b]) => (a < b ? -1 : 1)) };
}

/** Those that are worked out from others come last, each after those that it looks at. */
export function namedVariables(plan: EmissionPlan): NamedVariable[] {
  const {
    variables,
    live,
    project: { app },
  } = plan;
  const { derived } = derivedVariables(app);
  // What cannot be worked out stays what it is at first.
  const worked = new Set(derived.map(({ id }) => id));
  const asks = new Set([...live.values()].flatMap(({ name, isRemote }) => (isRemote ? [name] : [])));
  const apart = recordsApart(plan);
  const plain = [...variables].filter(([id]) => !worked.has(id));
  return [
    ...plain.map(([id, name]) => {
      const { says: _says, ...variable } = app.variables[id];
      return { name, variable };
    }),
    ...derived.map((one) => ({ name: one.name, variable: app.variables[one.id], derived: one, asks, apart })),
  ];
}

const never = (): never => {
  throw new RangeError('what is worked out looks at variables and records alone');
};

function typeScriptOf({ type = 'yes-no', choices = [] }: Variable): Script {
  if (type === 'yes-no') return script`boolean`;
  if (type === 'number') return script`number`;
  if (type === 'list') return script`readonly string[]`;
  if (type !== 'one-of') return script`string`;
  return joined(
    choices.map((one) => script`${one}`),
    ' | ',
  );
}

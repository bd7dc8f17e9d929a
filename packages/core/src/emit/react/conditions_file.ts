import type { Condition } from '../../model/app.ts';
import { sentenceCase } from '../../model/names.ts';
import { named, onLines, remark, script } from '../script.ts';

/** What is true or not while the app runs. */
export function conditionsTs(
  conditions: readonly { readonly name: string; readonly condition: Condition }[],
): string {
  return script`import { useSyncExternalStore } from 'react';

/** What is true or not while the app runs. Kept for as long as the tab is open. */
export interface Conditions {
${onLines(
  conditions.map(
    ({ name, condition }) =>
      script`  /** ${remark(sentenceCase(condition.name))}. */\n  ${named(name)}: boolean;`,
  ),
)}
}

const KEY = \`\${import.meta.env.BASE_URL}conditions\`;
const listeners = new Set<() => void>();
let now: Conditions = {
${onLines(conditions.map(({ name, condition }) => script`  ${named(name)}: ${condition.initial},`))}
  ...JSON.parse(sessionStorage.getItem(KEY) ?? '{}'),
};

export function setCondition(name: keyof Conditions, value: boolean): void {
  now = { ...now, [name]: value };
  sessionStorage.setItem(KEY, JSON.stringify(now));
  listeners.forEach((tell) => tell());
}

export function useConditions(): Conditions {
  return useSyncExternalStore(
    (tell) => {
      listeners.add(tell);
      return () => listeners.delete(tell);
    },
    () => now,
  );
}
`.text;
}

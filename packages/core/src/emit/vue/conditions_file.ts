import type { Condition } from '../../model/app.ts';
import { sentenceCase } from '../../model/names.ts';
import { named, onLines, remark, script } from '../script.ts';

/** What is true or not while the app runs. */
export const conditionsTs = (
  conditions: readonly { readonly name: string; readonly condition: Condition }[],
): string =>
  script`import { reactive } from 'vue';

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

export const conditions: Conditions = reactive({
${onLines(conditions.map(({ name, condition }) => script`  ${named(name)}: ${condition.initial},`))}
  ...JSON.parse(sessionStorage.getItem(KEY) ?? '{}'),
});

export function setCondition(name: keyof Conditions, value: boolean): void {
  conditions[name] = value;
  sessionStorage.setItem(KEY, JSON.stringify(conditions));
}
`.text;

import type { Condition } from '../../model/app.ts';
import { sentenceCase } from '../../model/names.ts';
import { commentText } from '../quoting.ts';

/** What is true or not while the app runs. */
export const conditionsTs = (
  conditions: readonly { readonly name: string; readonly condition: Condition }[],
): string => `import { reactive } from 'vue';

/** What is true or not while the app runs. Kept for as long as the tab is open. */
export interface Conditions {
${conditions.map(({ name, condition }) => `  /** ${commentText(sentenceCase(condition.name))}. */\n  ${name}: boolean;`).join('\n')}
}

const KEY = 'conditions';

export const conditions: Conditions = reactive({
${conditions.map(({ name, condition }) => `  ${name}: ${condition.initial},`).join('\n')}
  ...JSON.parse(sessionStorage.getItem(KEY) ?? '{}'),
});

export function setCondition(name: keyof Conditions, value: boolean): void {
  conditions[name] = value;
  sessionStorage.setItem(KEY, JSON.stringify(conditions));
}
`;

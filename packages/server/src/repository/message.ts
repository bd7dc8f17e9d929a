/** The longest first line of a commit's message that is shown whole everywhere. */
const FIRST_LINE = 72;
const MOST_LINES = 40;

/** What was done to a project since it was pushed last, as the message of a commit: the first line sums up, all steps follow. */
export function commitMessage(name: string, steps: readonly string[]): string {
  const said = [...new Set(steps.map((step) => step.replace(/\s+/g, ' ').trim()).filter(Boolean))];
  if (!said.length) return `${name}: the code as it is now`;
  let first = said[0];
  let shown = 1;
  while (shown < said.length && `${first}; ${said[shown]}`.length <= FIRST_LINE - 10)
    first += `; ${said[shown++]}`;
  if (shown < said.length) first += `; ${String(said.length - shown)} more`;
  if (first.length > FIRST_LINE) first = `${first.slice(0, FIRST_LINE - 1)}…`;
  if (said.length === 1 && first === said[0]) return first;
  const rest = said.slice(0, MOST_LINES).map((step) => `- ${step}`);
  if (said.length > MOST_LINES) rest.push(`- and ${String(said.length - MOST_LINES)} more steps`);
  return `${first}\n\n${rest.join('\n')}`;
}

import { grouped } from '../json/grouped.ts';
import { type Project, screenName } from '../model/project.ts';
import type { Finding } from './finding.ts';

/** Findings of one rule that say the same but for the screen that they are on, the first of them for all. */
export interface Cause {
  /** The same as long as it is about the same thing. */
  readonly id: string;
  readonly findings: readonly Finding[];
  /** Keys of the screens that they are on. */
  readonly screens: readonly string[];
}

/** Brings findings together that have one cause, in the order in which each is first found. */
export function causesOf(project: Project, findings: readonly Finding[]): Cause[] {
  const sayOf = ({ code, screen, message }: Finding): string => {
    // What a finding says beside the name of its own screen is what it has in common with others.
    const name = screen === null ? '' : screenName(project, screen);
    return `${code} ${name ? message.split(name).join('\u0000') : message}`;
  };
  return [...grouped(findings, sayOf)].map(([id, own]) => ({
    id,
    findings: own,
    screens: [...new Set(own.flatMap(({ screen }) => screen ?? []))],
  }));
}

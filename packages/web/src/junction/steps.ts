import { describeTarget, type Project, type Step } from '@tovel/core';

/** A step in people's words. */
export function describeStep(project: Project, step: Step): string {
  const { label } = describeTarget(project, step);
  return step.kind === 'open' ? `open ${label}` : step.kind === 'close' ? 'close the overlay' : label;
}

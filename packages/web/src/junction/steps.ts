import { describeTarget, type Project, type Step } from '@tovel/core';

/** A step in people's words. */
export function describeStep(project: Project, step: Step): string {
  const { label, detail } = describeTarget(project, step);
  if (step.kind === 'record') return `${detail}: ${label.charAt(0).toLowerCase()}${label.slice(1)}`;
  return step.kind === 'open' ? `open ${label}` : step.kind === 'close' ? 'close the overlay' : label;
}

import type { Condition } from '../../model/app.ts';
import { sentenceCase } from '../../model/names.ts';
import { commentText } from '../quoting.ts';

/** What is true or not while the app runs. */
export function conditionsTs(
  conditions: readonly { readonly name: string; readonly condition: Condition }[],
): string {
  return `import { useSyncExternalStore } from 'react';

/** What is true or not while the app runs. Kept for as long as the tab is open. */
export interface Conditions {
${conditions.map(({ name, condition }) => `  /** ${commentText(sentenceCase(condition.name))}. */\n  ${name}: boolean;`).join('\n')}
}

const KEY = 'conditions';
const listeners = new Set<() => void>();
let now: Conditions = {
${conditions.map(({ name, condition }) => `  ${name}: ${condition.initial},`).join('\n')}
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
`;
}

/** Shows a screen only while its condition holds. */
export const guardTsx = `import { type ReactNode, useState } from 'react';
import { Navigate, useLocation, useParams } from 'react-router';
import { type Conditions, useConditions } from '../state/conditions';
import { fill } from './fill';

interface GuardProps {
  condition: keyof Conditions;
  is?: boolean;
  /** The address to show instead. */
  otherwise: string;
  children: ReactNode;
}

/** Lets one in while a condition holds, and leads somewhere else when it does not. Who is in stays in. */
export function Guard(props: GuardProps) {
  const { pathname } = useLocation();
  return <Entrance key={pathname} {...props} />;
}

function Entrance({ condition, is = true, otherwise, children }: GuardProps) {
  const conditions = useConditions();
  const params = useParams();
  const [isIn] = useState(conditions[condition] === is);
  return isIn ? children : <Navigate to={fill(otherwise, params)} replace />;
}
`;

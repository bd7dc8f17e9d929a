import { type Finding, graphOf, letStand, type Project, settle, stateFindings, statePlan } from '@tovel/core';
import { useEffect, useMemo, useState } from 'react';
import { remoteOf } from './remote';
import type { StatesWorker } from './states_worker';

const NONE: readonly Finding[] = [];

/** What follows from the states that the app can be in; what was found last stays until the next is there. */
export function useStateFindings({ design, app }: Project): readonly Finding[] {
  const [found, setFound] = useState<readonly Finding[]>(NONE);
  const [worker] = useState(() => ({ current: null as Worker | null }));
  const plan = useMemo(() => {
    const project = settle({ design, app });
    return statePlan(project, graphOf(project));
  }, [design, app]);
  // Most edits leave what can be done as it is.
  const says = useMemo(() => JSON.stringify(plan), [plan]);
  useEffect(() => {
    // Where nothing is true or not, the graph says it all.
    if (!plan.bits.length && !plan.rules.length) {
      setFound(NONE);
      return;
    }
    worker.current ??= new Worker(new URL('./states_worker.ts', import.meta.url), { type: 'module' });
    let isOld = false;
    void remoteOf<StatesWorker>(worker.current)
      .explore(plan)
      .then((explored) => {
        if (isOld) return;
        const project = settle({ design, app });
        const findings = stateFindings(project, graphOf(project), explored);
        setFound((before) => (before.length || findings.length ? findings : before));
      });
    return () => {
      isOld = true;
    };
  }, [says, worker]);
  useEffect(
    () => () => {
      worker.current?.terminate();
      worker.current = null;
    },
    [worker],
  );
  return useMemo(() => letStand(app, found), [app, found]);
}

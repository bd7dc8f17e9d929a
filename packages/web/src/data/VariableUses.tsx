import { findElement, hostOf, labelOf, screenName, type VariableUse } from '@tovel/core';
import { Link } from 'react-router';
import { useProject } from '../project/context';
import { counted } from '../ui/counted';

const WORDS = { sets: 'set by', looks: 'looked at by', shows: 'shown by' } as const;

/** Where a variable is spoken of, each a way there. */
export function VariableUses({ uses }: { uses: readonly VariableUse[] }) {
  const project = useProject();
  const { app, design, base } = project;
  if (!uses.length) return <p>nowhere yet</p>;
  const shown = uses.slice(0, MOST_USES);
  return (
    <ul>
      {shown.map((use, i) => {
        if (use.what === 'derives') return <li key={i}>looked at by {app.variables[use.variable].name}</li>;
        if (use.what === 'guards')
          return (
            <li key={i}>
              guards <Link to={`${base}/junction/${use.screen}`}>{screenName(project, use.screen)}</Link>
            </li>
          );
        const screen = hostOf(project, use.element);
        const element = findElement(design, use.element);
        return (
          <li key={i}>
            {WORDS[use.what]}{' '}
            <Link to={`${base}/junction/${screen}?element=${encodeURIComponent(use.element)}`}>
              {element ? labelOf(element) : 'the screen'}
            </Link>{' '}
            <small>{screenName(project, screen)}</small>
          </li>
        );
      })}
      {uses.length > shown.length && <li>and {counted(uses.length - shown.length, 'more place')}</li>}
    </ul>
  );
}

const MOST_USES = 5;

import {
  type Binding,
  type Element,
  expressionNames,
  hostOf,
  isField,
  labelOf,
  parseExpression,
  putBinding,
  roleOf,
  saidAtFirst,
  screenName,
} from '@tovel/core';
import { useState } from 'react';
import styled from 'styled-components';
import { ExpressionField } from '../data/ExpressionField';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Label } from '../ui/controls';
import { Block } from './panel';

const Part = styled.div`
  display: grid;
  gap: 4px;
  small {
    color: ${color.ink2};
  }
  > div:last-child {
    display: flex;
    gap: 8px;
    align-items: center;
  }
`;

interface Kind {
  readonly field: keyof Binding;
  readonly label: string;
  readonly says: string;
  readonly example: string;
  readonly isFor: (element: Element) => boolean;
}

const isGauge = ({ tag }: Element): boolean => tag === 'progress' || tag === 'meter';
const KINDS: readonly Kind[] = [
  {
    field: 'text',
    label: 'Its text',
    says: 'as it was drawn',
    example: '`${count(tools)} tools`',
    isFor: (element) => !isField(element) && !isGauge(element),
  },
  {
    field: 'value',
    label: 'What stands in it',
    says: 'what was drawn, and then what is entered',
    example: 'note',
    isFor: (element) => isField(element) || isGauge(element),
  },
  {
    field: 'shown',
    label: 'There while',
    says: 'always',
    example: 'chosen > 0',
    isFor: () => true,
  },
  {
    field: 'enabled',
    label: 'Can be used while',
    says: 'always',
    example: 'chosen > 0',
    isFor: (element) => isField(element) || roleOf(element) === 'button',
  },
];

/** What an element shows of what the app remembers and of records, and when it is there. */
export function ShowsPanel({ element }: { element: Element }) {
  const project = useProject();
  const screen = hostOf(project, element.key);
  return (
    <Block>
      <small>
        Expressions of variables and records: <code>chosen &gt; 2</code>, <code>count(tools)</code>,{' '}
        <code>{'`${chosen} chosen`'}</code>. What there is to speak of is at Data.
      </small>
      {KINDS.filter(({ isFor }) => isFor(element)).map((kind) => (
        <Shows key={`${element.key} ${kind.field}`} element={element} kind={kind} screen={screen} />
      ))}
    </Block>
  );
}

function Shows({ element, kind, screen }: { element: Element; kind: Kind; screen: string }) {
  const project = useProject();
  const { app, session } = project;
  const { field, label, says, example } = kind;
  const binding = app.bindings[element.key] ?? {};
  const source = binding[field];
  const [isOpen, setOpen] = useState(false);
  const name = labelOf(element);
  const put = (words: string, next: Binding): void =>
    session.change(words, putBinding(element.key, Object.keys(next).length ? next : null));
  const giveUp = (): void => {
    setOpen(false);
    const { [field]: gone, ...rest } = binding;
    if (gone !== undefined) put(`${name}: ${label.toLowerCase()} ${says}`, rest);
  };
  if (source === undefined && !isOpen)
    return (
      <Part>
        <Label as="span">{label}</Label>
        <div>
          <span>{says}</span>
          <Button aria-label={`${label}: work it out`} onPress={() => setOpen(true)}>
            Work it out …
          </Button>
        </div>
      </Part>
    );
  const known = expressionNames(project, screen);
  const parsed = source === undefined ? null : parseExpression(source, known);
  return (
    <Part>
      <Label as="span">{label}</Label>
      <ExpressionField
        label={`${label}, of ${name}`}
        value={source ?? ''}
        placeholder={example}
        known={known}
        onSave={(next) => {
          setOpen(false);
          put(`${name}: ${next}`, { ...binding, [field]: next });
        }}
      />
      <div>
        {parsed && !parsed.problem && (
          <small>
            {atFirst(field, saidAtFirst(project, parsed.expression, screen), screenName(project, screen))}
          </small>
        )}
        <Button $kind="quiet" onPress={giveUp}>
          {source === undefined ? 'Cancel' : 'Give it up'}
        </Button>
      </div>
    </Part>
  );
}

/** What an expression comes to at first, in words. */
function atFirst(field: keyof Binding, said: string, screen: string): string {
  switch (field) {
    case 'shown':
      return said === 'true' ? `there at first, on ${screen}` : 'not there at first';
    case 'enabled':
      return said === 'true' ? 'can be used at first' : 'cannot be used at first';
    default:
      return `“${said}” at first`;
  }
}

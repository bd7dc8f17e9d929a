import {
  type Binding,
  type Element,
  expressionNames,
  hostOf,
  isField,
  labelOf,
  type Project,
  readBinding,
  type BoundPart,
  findElement,
  listAt,
  rowsNames,
  screenOf,
  screensByKey,
  walkElements,
  withoutPart,
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
import { Button, Choice, Label } from '../ui/controls';
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
  readonly field: BoundPart;
  readonly label: string;
  readonly says: string;
  readonly example: string;
  readonly isFor: (element: Element, project: Project) => boolean;
}

const isGauge = ({ tag }: Element): boolean => tag === 'progress' || tag === 'meter';
const isChart = ({ key, tag }: Element, { app }: Project): boolean =>
  tag === 'canvas' || app.layers[key]?.role === 'chart';
const KINDS: readonly Kind[] = [
  {
    field: 'text',
    label: 'Its text',
    says: 'as it was drawn',
    example: '`${count(tools)} tools`',
    isFor: (element, project) =>
      !isField(element) &&
      !isGauge(element) &&
      !isChart(element, project) &&
      listAt(project, element.key) === null,
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
  {
    field: 'options',
    label: 'What can be chosen',
    says: 'as it was drawn',
    example: 'map(tools, (tool) => tool.kind)',
    isFor: ({ tag }) => tag === 'select',
  },
  {
    field: 'rows',
    label: 'Which records it shows',
    says: 'as it was drawn',
    example: "filter(tools, (tool) => tool.status === 'free')",
    isFor: ({ key }, project) => listAt(project, key) !== null,
  },
  {
    field: 'to',
    label: 'Leads out to',
    says: 'what it is wired to',
    example: 'tool.manual',
    isFor: (element) => roleOf(element) === 'link',
  },
  {
    field: 'marked',
    label: 'Looks like another while',
    says: 'never',
    example: "tool.status === 'out'",
    isFor: (element) => !isField(element),
  },
  {
    field: 'values',
    label: 'How large its points are',
    says: 'as it was drawn',
    example: 'map(tools, (tool) => tool.loans)',
    isFor: isChart,
  },
  {
    field: 'labels',
    label: 'What stands beneath them',
    says: 'nothing',
    example: 'map(tools, (tool) => tool.name)',
    isFor: (element, project) =>
      isChart(element, project) && project.app.bindings[element.key]?.values !== undefined,
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
      {KINDS.filter(({ isFor }) => isFor(element, project)).map((kind) => (
        <Shows
          key={`${element.key} ${kind.field}`}
          element={
            (kind.field === 'rows' && findElement(project.design, listAt(project, element.key)!)) || element
          }
          kind={kind}
          screen={screen}
        />
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
  const put = (words: string, next: Binding | null): void =>
    session.change(words, putBinding(element.key, next));
  const giveUp = (): void => {
    setOpen(false);
    if (source !== undefined) put(`${name}: ${label.toLowerCase()} ${says}`, withoutPart(binding, field));
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
  const known = field === 'rows' ? rowsNames(project) : expressionNames(project, screen);
  const parsed = source === undefined ? null : readBinding(field, source, known);
  return (
    <Part>
      <Label as="span">{label}</Label>
      <ExpressionField
        label={`${label}, of ${name}`}
        value={source ?? ''}
        placeholder={example}
        known={known}
        problemOf={(next) => readBinding(field, next, known).problem?.message ?? null}
        onSave={(next) => {
          setOpen(false);
          put(`${name}: ${next}`, {
            ...binding,
            [field]: next,
            ...(field === 'marked' && !binding.like ? { like: alikeOnes(project, element)[0]?.key } : {}),
          });
        }}
      />
      {field === 'marked' && source !== undefined && (
        <LikeWhich element={element} binding={binding} onPut={put} />
      )}
      <div>
        {parsed && !parsed.problem && field !== 'rows' && (
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

/** Which other element of the screen it looks like then. */
function LikeWhich({
  element,
  binding,
  onPut,
}: {
  element: Element;
  binding: Binding;
  onPut: (words: string, next: Binding) => void;
}) {
  const project = useProject();
  const others = alikeOnes(project, element);
  if (!others.length) return <small>No other element of the screen is built like it.</small>;
  const chosen = others.find(({ key }) => key === binding.like);
  return (
    <Choice
      label="Looks then like"
      value={chosen?.key ?? ''}
      options={others.map((one) => ({ id: one.key, label: labelOf(one) ?? one.tag }))}
      onChange={(like) => onPut(`${labelOf(element)}: like another while it holds`, { ...binding, like })}
    />
  );
}

/** So many are offered. */
const MOST_ALIKE = 60;

/** The other elements of its screen that are built like an element: of its tag, with as much in them. */
function alikeOnes({ design }: Project, element: Element): Element[] {
  const screen = screensByKey(design).get(screenOf(design, element.key));
  const found: Element[] = [];
  if (screen)
    walkElements(screen.root, (one) => {
      if (
        one.key !== element.key &&
        one.tag === element.tag &&
        one.children.length === element.children.length
      )
        found.push(one);
    });
  return found.slice(0, MOST_ALIKE);
}

/** What an expression comes to at first, in words. */
function atFirst(field: BoundPart, said: string, screen: string): string {
  switch (field) {
    case 'shown':
      return said === 'true' ? `there at first, on ${screen}` : 'not there at first';
    case 'enabled':
      return said === 'true' ? 'can be used at first' : 'cannot be used at first';
    case 'marked':
      return said === 'true' ? 'looks so at first' : 'does not look so at first';
    case 'options':
    case 'labels':
    case 'values':
      return said ? `${said} at first` : 'nothing at first';
    default:
      return `“${said}” at first`;
  }
}

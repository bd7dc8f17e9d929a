import {
  deedNames,
  type Given,
  type Interaction,
  isStep,
  isUsed,
  orderedScreens,
  parametersOf,
  type RowField,
  rowFields,
  type ScreenTarget,
  settingOf,
  type Step,
  targetChoices,
  typedProblem,
} from '@tovel/core';
import { useMemo } from 'react';
import { useProject } from '../project/context';
import { ExpressionField } from '../data/ExpressionField';
import { Button, Choice, Label } from '../ui/controls';
import { Chips } from './Chips';
import { describeStep } from './steps';
import { SavedField } from '../ui/SavedField';

interface TargetFieldsProps {
  interaction: Interaction;
  element: string;
  screen: string;
  onChange: (interaction: Interaction) => void;
}

/** What the target is given: path parameters and query, and where Back leads when there is nothing to go back to. */
export function TargetFields({ interaction, element, screen, onChange }: TargetFieldsProps) {
  const project = useProject();
  const { target } = interaction;
  const fields = useMemo(() => rowFields(project, element), [project, element]);
  if (target.kind === 'back')
    return (
      <Choice
        label="Where there is no way back"
        value={target.fallback ?? 'start'}
        options={[
          { id: 'start', label: 'the start screen' },
          ...orderedScreens(project.app)
            .filter((key) => isUsed(project, key) && key !== screen)
            .map((key) => ({ id: key, label: project.app.screens[key].name })),
        ]}
        onChange={(key) =>
          onChange({
            ...interaction,
            target: { kind: 'back', ...(key === 'start' ? {} : { fallback: key }) },
          })
        }
      />
    );
  const atHand = deedNames(project, { screen, element, before: interaction.before });
  if (target.kind === 'set') {
    const variable = project.app.variables[target.condition];
    return variable ? (
      <div style={{ gridColumn: 'span 2' }}>
        <Label as="span">What {variable.name} becomes</Label>
        <ExpressionField
          label={`What ${variable.name} becomes`}
          value={String(target.value)}
          known={{ ...atHand, hasEntered: true }}
          problemOf={(value) =>
            settingOf(project.app, { ...target, value: asSetting(value) }, atHand).problem ?? null
          }
          onSave={(value) => onChange({ ...interaction, target: { ...target, value: asSetting(value) } })}
        />
      </div>
    ) : null;
  }
  if (target.kind === 'say')
    return (
      <div style={{ gridColumn: 'span 2' }}>
        <Label as="span">What it says</Label>
        <ExpressionField
          label="What it says"
          value={target.text}
          known={{ ...atHand, hasEntered: true }}
          onSave={(text) => onChange({ ...interaction, target: { kind: 'say', text } })}
        />
      </div>
    );
  if (target.kind !== 'screen') return null;
  const save = (next: ScreenTarget): void => onChange({ ...interaction, target: next });
  const entry = project.app.screens[target.screen];
  return (
    <>
      {parametersOf(entry?.route ?? '').map((name) => (
        <ParameterField
          key={name}
          name={name}
          given={target.params?.[name]}
          isNear={parametersOf(project.app.screens[screen]?.route ?? '').includes(name)}
          sample={entry?.params?.[name]}
          fields={fields}
          onChange={(given) => {
            const { [name]: _gone, ...others } = target.params ?? {};
            const params = given === undefined ? others : { ...others, [name]: given };
            const { params: _params, ...rest } = target;
            save(Object.keys(params).length ? { ...rest, params } : rest);
          }}
        />
      ))}
      <SavedField
        label="Query"
        isCode
        placeholder="sort=name"
        value={Object.entries(target.query ?? {})
          .map(([name, value]) => `${name}=${value}`)
          .join('&')}
        problemOf={(text) => (queryIn(text) ? null : 'Write it as name=value, with & between several.')}
        onSave={(text) => {
          const { query: _query, ...rest } = target;
          const query = queryIn(text)!;
          save(Object.keys(query).length ? { ...rest, query } : rest);
        }}
      />
    </>
  );
}

/** What is written as an expression, as a step takes it. */
const asSetting = (text: string): boolean | string =>
  text.trim() === 'true' ? true : text.trim() === 'false' ? false : text;

function queryIn(text: string): Record<string, string> | null {
  const query: Record<string, string> = {};
  for (const part of text.trim().replace(/^\?/, '').split('&').filter(Boolean)) {
    const [, name, value] = /^([\w-]+)=(.*)$/.exec(part) ?? [];
    if (!name) return null;
    query[name] = value;
  }
  return query;
}

interface ParameterProps {
  name: string;
  given: Given | undefined;
  /** Whether the address that it is pressed at has this parameter. */
  isNear: boolean;
  /** What the screen is shown with where nobody gives it. */
  sample: string | undefined;
  fields: readonly RowField[];
  onChange: (given: Given | undefined) => void;
}

function ParameterField({ name, given, isNear, sample, fields, onChange }: ParameterProps) {
  const kind = given === undefined ? 'none' : typeof given === 'string' ? 'typed' : `field ${given.field}`;
  const otherwise = isNear ? `as in this address` : sample ? `not given (${sample} is shown)` : 'not given';
  return (
    <>
      <Choice
        label={`:${name} is`}
        value={kind}
        options={[
          { id: 'none', label: otherwise },
          { id: 'typed', label: 'a value' },
          ...fields.map(({ field, text }) => ({ id: `field ${field}`, label: `of the row: “${text}”` })),
        ]}
        onChange={(next) =>
          onChange(
            next === 'none'
              ? undefined
              : next === 'typed'
                ? sample || 'value'
                : { field: next.slice('field '.length) },
          )
        }
      />
      {typeof given === 'string' && (
        <SavedField
          label={`Value of :${name}`}
          isCode
          value={given}
          problemOf={(text) => (text.trim() ? null : 'A value, or choose another way.')}
          onSave={(text) => onChange(text.trim())}
        />
      )}
    </>
  );
}

/** What happens before the target, in order. */
export function BeforeFields({
  interaction,
  element,
  screen,
  onChange,
}: {
  interaction: Interaction;
  element: string;
  screen: string;
  onChange: (interaction: Interaction) => void;
}) {
  const project = useProject();
  const before = interaction.before ?? [];
  const place = { screen, element, before };
  const typedSteps = (text: string): readonly Step[] | null => {
    const [choice] = targetChoices(project, text, place);
    return choice && isStep(choice.target) ? [...(choice.before ?? []), choice.target] : null;
  };
  const set = (steps: readonly Step[]): void => {
    const { before: _before, ...rest } = interaction;
    onChange(steps.length ? { ...rest, before: steps } : rest);
  };
  const offered: Step[] = [
    { kind: 'close' },
    ...targetChoices(project, '')
      .map((choice) => choice.target)
      .filter((target): target is Step => target.kind === 'open' || target.kind === 'set'),
  ];
  return (
    <Chips role="group" aria-label="Before that">
      <span>Before that</span>
      {before.map((step, i) => (
        <Button
          key={i}
          aria-label={`${describeStep(project, step)}: take out`}
          onPress={() => set(before.filter((_, at) => at !== i))}
        >
          <span title={describeStep(project, step)}>
            {i + 1} {describeStep(project, step)}
          </span>
          <span aria-hidden="true">×</span>
        </Button>
      ))}
      <Choice
        label="Another step"
        isLabelHidden
        value="none"
        options={[
          { id: 'none', label: before.length ? 'then …' : 'nothing' },
          ...offered.map((step, i) => ({ id: String(i), label: describeStep(project, step) })),
        ]}
        onChange={(id) => id !== 'none' && set([...before, offered[Number(id)]])}
      />
      <SavedField
        label="Another step, typed"
        isLabelHidden
        placeholder="or type: add loan, set status to out"
        value=""
        problemOf={(text) =>
          typedSteps(text)
            ? null
            : (typedProblem(project, text, place) ??
              'Nothing that stays on the screen is meant by that. Say it as: add loan, remove loan, set status to out, close.')
        }
        onSave={(text) => set([...before, ...typedSteps(text)!])}
      />
    </Chips>
  );
}

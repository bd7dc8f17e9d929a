import {
  type Component,
  extractionOf,
  type LibraryProp,
  type Prop,
  proposedTheirs,
  suits,
  type TheirProposal,
  type Theirs,
  type TheirValue,
} from '@tovel/core';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice } from '../ui/controls';
import { Row } from '../workbench/panel';
import { PropTable } from './PropTable';
import { asDrawn } from './use_theirs';

const Given = styled(PropTable)`
  td:nth-child(2) {
    color: ${color.ink2};
  }
  td:last-child {
    width: 260px;
  }
`;

const TYPE_WORDS: Readonly<Record<LibraryProp['type'], string>> = {
  text: 'text',
  number: 'number',
  'yes-no': 'yes or no',
  'one-of': 'one of several',
  node: 'anything that is shown',
  press: 'called when pressed',
  other: 'something else',
};

interface TheirsPartProps {
  id: string;
  component: Component;
  proposals: readonly TheirProposal[];
  props: readonly Prop[];
  onPut: (words: string, next: Component) => void;
}

/** Which of the team's own components a drawn one is, prop by prop. */
export function TheirsPart({ id, component, proposals, props, onPut }: TheirsPartProps) {
  const { app, plan } = useProject();
  const extraction = extractionOf(plan);
  const whole = extraction.wholes.get(id);
  const libraries = Object.entries(app.libraries);
  const { theirs } = component;
  if (!libraries.length || !whole) return null;
  const library =
    theirs && Object.hasOwn(app.libraries, theirs.library) ? app.libraries[theirs.library] : null;
  const theirComponent = library?.components.find(({ name }) => name === theirs!.component);
  const options = [
    { id: '', label: 'Written as drawn' },
    ...proposals.map(({ theirs: { library: from, component: name }, confidence }) => ({
      id: `${from} ${name}`,
      label: theirs?.component === name ? name : `${name}, ${Math.round(confidence * 100)} % sure`,
    })),
    ...libraries.flatMap(([from, { components }]) =>
      components
        .filter(
          ({ name }) =>
            !proposals.some((one) => one.theirs.library === from && one.theirs.component === name),
        )
        .map(({ name }) => ({ id: `${from} ${name}`, label: name })),
    ),
  ];
  const chosen = theirs ? `${theirs.library} ${theirs.component}` : '';
  const shown = proposalFor(chosen);
  function proposalFor(choice: string): TheirProposal | null {
    const [from, name] = choice.split(' ');
    const known = proposals.find((one) => one.theirs.library === from && one.theirs.component === name);
    if (known) return known;
    const found = Object.hasOwn(app.libraries, from)
      ? app.libraries[from].components.find((one) => one.name === name)
      : undefined;
    return found ? proposedTheirs({ id, name: component.name }, whole!, from, found) : null;
  }
  const use = (next: Theirs | null): void => {
    const drawn = asDrawn(component);
    onPut(
      next ? `Use ${next.component} for ${component.name}` : `Write ${component.name} as drawn`,
      next ? { ...drawn, theirs: next } : drawn,
    );
  };
  const [first] = proposals;
  return (
    <>
      <h3>Your own component</h3>
      <Row>
        <div style={{ width: 300 }}>
          <Choice
            label="In the delivered code it is"
            value={chosen}
            options={options}
            onChange={(choice) => use(proposalFor(choice)?.theirs ?? null)}
          />
        </div>
        {!theirs && first && (
          <Button $kind="primary" onPress={() => use(first.theirs)} style={{ alignSelf: 'end' }}>
            Use {first.theirs.component}
          </Button>
        )}
      </Row>
      {!theirs && first && (
        <p>
          {first.theirs.component}: {Math.round(first.confidence * 100)} % sure, because {first.reason}.
          {first.lost.length > 0 && ` It would lose ${first.lost.join(', ')}.`}
        </p>
      )}
      {theirs && !theirComponent && (
        <p role="alert">{theirs.component} is not in the library any more; it is written as drawn.</p>
      )}
      {theirs && theirComponent && (
        <>
          <Given aria-label={`What ${theirs.component} is given`}>
            <thead>
              <tr>
                <th scope="col">Its prop</th>
                <th scope="col">Takes</th>
                <th scope="col">Is given</th>
              </tr>
            </thead>
            <tbody>
              {theirComponent.props
                .filter((prop) => isTold(prop, theirs))
                .map((prop) => (
                  <tr key={prop.name}>
                    <td>
                      <code>{prop.name}</code>
                      {prop.isRequired ? ', needed' : ''}
                    </td>
                    <td>{TYPE_WORDS[prop.type]}</td>
                    <td>
                      <GivenChoice
                        prop={prop}
                        value={Object.hasOwn(theirs.props, prop.name) ? theirs.props[prop.name] : null}
                        props={props}
                        onChange={(value) =>
                          use({ ...theirs, props: withValue(theirs.props, prop.name, value) })
                        }
                      />
                    </td>
                  </tr>
                ))}
            </tbody>
          </Given>
          {shown && shown.lost.length > 0 && <p>What it has no place for: {shown.lost.join(', ')}.</p>}
        </>
      )}
    </>
  );
}

/** Props of elements of the page that most components pass on, which nobody has to be told of. */
const PASSED = new Set(['className', 'aria-label', 'style', 'type']);
const isTold = ({ name, type }: LibraryProp, theirs: Theirs): boolean =>
  Object.hasOwn(theirs.props, name) || (!PASSED.has(name) && type !== 'press' && type !== 'other');

function withValue(props: Theirs['props'], name: string, value: TheirValue | null): Theirs['props'] {
  const { [name]: _, ...others } = props;
  return value ? { ...others, [name]: value } : others;
}

interface GivenChoiceProps {
  prop: LibraryProp;
  value: TheirValue | null;
  props: readonly Prop[];
  onChange: (value: TheirValue | null) => void;
}

/** What one prop is given. */
function GivenChoice({ prop, value, props, onChange }: GivenChoiceProps) {
  const fixed: readonly (string | number | boolean)[] =
    prop.type === 'yes-no'
      ? [true, false]
      : prop.type === 'one-of'
        ? (prop.choices ?? [])
        : value?.kind === 'fixed'
          ? [value.value]
          : [];
  const values: readonly (TheirValue | null)[] = [
    null,
    ...props.filter((one) => suits(one, prop)).map(({ name }): TheirValue => ({ kind: 'prop', name })),
    ...fixed.map((one): TheirValue => ({ kind: 'fixed', value: one })),
    ...(prop.name === 'children' ? [{ kind: 'drawn' } as const] : []),
    ...(value?.kind === 'content' || value?.kind === 'deed' ? [value] : []),
  ];
  const wordsFor = (one: TheirValue | null): string => {
    if (!one) return !prop.byDefault ? 'nothing' : `nothing, so that it is ${prop.byDefault}`;
    if (one.kind === 'prop') return one.name;
    if (one.kind === 'drawn') return 'all within, as drawn';
    if (one.kind === 'content') return 'what stands within it';
    if (one.kind === 'deed') return 'what the button in it does';
    return typeof one.value === 'boolean'
      ? one.value
        ? 'always yes'
        : 'always no'
      : `always “${one.value}”`;
  };
  const same = values.findIndex((one) => JSON.stringify(one) === JSON.stringify(value));
  return (
    <Choice
      label={`What ${prop.name} is given`}
      isLabelHidden
      value={String(same)}
      options={values.map((one, i) => ({ id: String(i), label: wordsFor(one) }))}
      onChange={(at) => onChange(values[Number(at)])}
    />
  );
}

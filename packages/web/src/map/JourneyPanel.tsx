import {
  checkJourney,
  elementOfInteraction,
  findElement,
  type Journey,
  type JourneyStep,
  labelOf,
  nextSteps,
  printJourneyTests,
  putJourney,
  type Screen,
  screenName,
  screensByKey,
  walkElements,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';
import { SavedField } from '../ui/SavedField';
import { saveFile } from '../ui/save_file';
import { DetailsPanel } from './CellDetails';

const Head = styled.div`
  display: flex;
  gap: 8px;
  align-items: end;
  > :first-child {
    flex: 1;
    max-width: 320px;
    margin-right: auto;
  }
`;

const Steps = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  padding: 10px 0;
  && li {
    padding: 2px 8px;
    border: 1px solid ${color.rule};
    gap: 6px;
    align-items: center;
  }
  li[data-broken] {
    border-color: ${color.red};
    color: ${color.red};
  }
`;

const Next = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
  gap: 10px;
  align-items: end;
`;

/** One journey: what is done on the way, and what can come next. */
export function JourneyPanel({ id, onClose }: { id: string; onClose: () => void }) {
  const project = useProject();
  const { app, graph, session, design } = project;
  const journey = app.journeys[id];
  const check = useMemo(() => checkJourney(project, graph, journey), [project, graph, journey]);
  const choices = useMemo(() => nextSteps(project, graph, journey), [project, graph, journey]);
  const here = check.places.at(-1)!;
  const fields = useMemo(() => fieldsOn(screensByKey(design).get(here)), [design, here]);
  const [field, setField] = useState('');
  const [text, setText] = useState('');
  const save = (label: string, next: Journey): void => session.change(label, putJourney(id, next));
  const add = (step: JourneyStep): void =>
    save(`Go on with ${journey.name}`, { ...journey, steps: [...journey.steps, step] });
  const name = (key: string): string => screenName(project, key);
  const labelOfStep = (step: JourneyStep): string => {
    const key = step.kind === 'do' ? elementOfInteraction(step.interaction) : step.element;
    const element = findElement(design, key);
    const label = element ? (element.key.endsWith(':') ? 'the screen' : labelOf(element)) : 'what is gone';
    return step.kind === 'do' ? `${label} → ${name(step.to)}` : `“${step.text}” in ${label}`;
  };
  const chosen = fields.find((one) => one.key === field)?.key ?? fields[0]?.key;
  return (
    <DetailsPanel role="region" aria-label={`Journey ${journey.name}`} style={{ maxHeight: 260 }}>
      <Head>
        <SavedField
          label="Journey"
          value={journey.name}
          problemOf={(next) => (next.trim() ? null : 'A journey needs a name.')}
          onSave={(next) => save(`Rename ${journey.name}`, { ...journey, name: next.trim() })}
        />
        <Button
          isDisabled={!journey.steps.length || check.problem !== null}
          onPress={() => saveFile(journey.name, '.spec.ts', 'text/plain', printJourneyTests(project, id))}
        >
          Save as a test
        </Button>
        <Button
          $kind="danger"
          onPress={() => {
            session.change(`Drop the journey ${journey.name}`, putJourney(id, null));
            onClose();
          }}
        >
          Drop
        </Button>
        <Button $kind="quiet" onPress={onClose}>
          Close
        </Button>
      </Head>
      <Steps aria-label="Steps">
        <li>{name(journey.start)}</li>
        {journey.steps.map((step, i) => (
          <li key={i} data-broken={check.problem?.step === i || undefined}>
            {i + 1} {labelOfStep(step)}
          </li>
        ))}
      </Steps>
      {check.problem ? (
        <p role="alert" style={{ color: color.red }}>
          It breaks at step {check.problem.step + 1}: {check.problem.message}.{' '}
          <Button
            $kind="quiet"
            onPress={() =>
              save(`Cut ${journey.name} short`, {
                ...journey,
                steps: journey.steps.slice(0, check.problem!.step),
              })
            }
          >
            Go on from there
          </Button>
        </p>
      ) : (
        <>
          <Next>
            <Choice
              label={`Next on ${name(here)}`}
              value=""
              options={[
                { id: '', label: choices.length ? 'Choose what is pressed …' : 'Nothing leads on from here' },
                ...choices.map(({ label, step }, i) => ({
                  id: String(i),
                  label: `${label} → ${name(step.to)}`,
                })),
              ]}
              isDisabled={!choices.length}
              onChange={(n) => n !== '' && add(choices[Number(n)].step)}
            />
            <span />
            <Button
              isDisabled={!journey.steps.length}
              onPress={() =>
                save(`Take a step of ${journey.name} back`, {
                  ...journey,
                  steps: journey.steps.slice(0, -1),
                })
              }
            >
              Take the last back
            </Button>
          </Next>
          {chosen && (
            <Next style={{ marginTop: 8 }}>
              <Choice
                label="Or enter into"
                value={chosen}
                options={fields.map((one) => ({ id: one.key, label: one.label }))}
                onChange={setField}
              />
              <Field label="What" value={text} onChange={setText} />
              <Button
                onPress={() => {
                  add({ kind: 'enter', element: chosen, text });
                  setText('');
                }}
              >
                Enter it
              </Button>
            </Next>
          )}
        </>
      )}
    </DetailsPanel>
  );
}

/** The fields that somebody can type into. */
function fieldsOn(screen: Screen | undefined): { key: string; label: string }[] {
  const fields: { key: string; label: string }[] = [];
  if (!screen) return fields;
  walkElements(screen.root, (element) => {
    if (element.hidden) return false;
    const isTyped = ['input', 'textarea'].includes(element.tag ?? '');
    if (!isTyped || ['checkbox', 'radio', 'button', 'submit'].includes(element.attributes?.type ?? ''))
      return true;
    const label = element.attributes?.['aria-label'] ?? element.attributes?.placeholder ?? labelOf(element);
    fields.push({ key: element.key, label });
    return false;
  });
  return fields;
}

import {
  alwaysShown,
  type DisclosureKind,
  type Element,
  elementOfInteraction,
  findElement,
  labelOf,
  putDisclosure,
} from '@tovel/core';
import { Link } from 'react-router';
import { useProject } from '../project/context';
import { Button, Choice } from '../ui/controls';
import { SavedField } from '../ui/SavedField';
import { Row } from './panel';

const KINDS: readonly { readonly id: DisclosureKind; readonly label: string }[] = [
  { id: 'section', label: 'In its place' },
  { id: 'menu', label: 'As a menu: a press elsewhere closes it' },
  { id: 'dialog', label: 'As a dialog: it keeps one in it' },
];

const nameProblem = (name: string): string | null =>
  !name.trim() ? 'It needs a name' : name.length > 100 ? 'A name has at most 100 letters' : null;

/** Whether and how an element opens and closes, and what opens it. */
export function OpensAndCloses({ element, screen }: { element: Element; screen: string }) {
  const { app, design, session, base } = useProject();
  const disclosure = app.disclosures[element.key];
  const label = labelOf(element).slice(0, 100) || 'Part';
  if (!disclosure)
    return (
      <Row>
        <Button
          onPress={() =>
            session.change(
              `${label} opens and closes`,
              putDisclosure(element.key, {
                name: label,
                kind: element.style.base.position === 'absolute' ? 'menu' : 'section',
              }),
            )
          }
        >
          Let it open and close
        </Button>
      </Row>
    );
  const { name, kind, open, among, below } = disclosure;
  const isFree = among === undefined && below === undefined;
  const change = (words: string, next: Partial<typeof disclosure>): void =>
    session.change(words, putDisclosure(element.key, { ...disclosure, ...next }));
  const openers = Object.entries(app.interactions).flatMap(([key, { target }]) => {
    if (target.kind !== 'disclose' || target.part !== element.key || target.does === 'close') return [];
    const opener = findElement(design, elementOfInteraction(key));
    return opener ? [labelOf(opener)] : [];
  });
  return (
    <>
      <SavedField
        key={`${element.key} opens`}
        label="Opens and closes, called"
        value={name}
        problemOf={nameProblem}
        onSave={(text) => change(`${name} is called ${text.trim()}`, { name: text.trim() })}
      />
      {below !== undefined && (
        <p>Closed at first in windows of up to {below} px; where there is more room it is always there.</p>
      )}
      {isFree && (
        <Choice
          label="How"
          value={kind}
          options={KINDS}
          onChange={(next) => next !== kind && change(`How ${name} opens`, { kind: next })}
        />
      )}
      <p>
        {openers.length ? (
          `Opened by ${[...new Set(openers)].map((one) => `“${one}”`).join(', ')}`
        ) : (
          <>
            Nothing opens it yet: wire it in <Link to={`${base}/junction/${screen}`}>Junction</Link>
          </>
        )}
      </p>
      <Row>
        {isFree && (
          <Button
            aria-pressed={open === true}
            onPress={() => {
              const { open: _open, ...rest } = disclosure;
              session.change(
                open ? `${name} is closed at first` : `${name} is open at first`,
                putDisclosure(element.key, open ? rest : { ...rest, open: true }),
              );
            }}
          >
            Open at first
          </Button>
        )}
        <Button onPress={() => session.change(`${name} is always shown`, alwaysShown(app, element.key))}>
          Always show it
        </Button>
      </Row>
    </>
  );
}

import {
  all,
  type Component,
  extractionOf,
  findElement,
  holdsContent,
  hostOf,
  labelOf,
  previewComponent,
  type Prop,
  putComponent,
  screenName,
  type TheirProposal,
} from '@tovel/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color, font } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';
import { Row } from '../workbench/panel';
import { PlacePicture } from './PlacePicture';
import { PropTable } from './PropTable';
import { freeId, type Repeat } from './RepeatsView';
import { TheirsPart } from './TheirsPart';

const Column = styled.section`
  min-height: 0;
  overflow: auto;
  padding: 16px 20px 28px;
  display: grid;
  gap: 16px;
  align-content: start;
  h2 {
    font-size: 15px;
  }
  h3 {
    font-size: 13px;
    padding-top: 10px;
    border-top: 1px solid ${color.ink};
  }
  p {
    color: ${color.ink2};
  }
`;

const Problem = styled.p`
  && {
    color: ${color.red};
  }
`;

const Props = styled(PropTable)`
  input {
    width: 100%;
    height: 27px;
    padding: 2px 7px;
    border: 1px solid ${color.fieldRule};
    background: ${color.field};
    color: ${color.ink};
    font: 12px ${font.code};
  }
  td:nth-child(3) {
    max-width: 300px;
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    color: ${color.ink2};
  }
`;

const Places = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 14px;
  align-items: flex-end;
  li {
    display: grid;
    gap: 4px;
    max-width: 260px;
  }
  label {
    display: flex;
    gap: 6px;
    align-items: center;
    font-size: 12px;
  }
  label a {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const KIND_WORDS: Readonly<Record<Prop['kind'], string>> = {
  text: 'text',
  image: 'picture',
  link: 'where it leads',
  flag: 'yes or no',
  choice: 'one of several',
  drawing: 'drawing',
  list: 'list',
};

/** So many places are shown as pictures at first. */
const SHOWN = 12;

interface RepeatDetailProps {
  repeat: Repeat;
  /** The team's own components that it may be. */
  theirs: readonly TheirProposal[];
  others: readonly Repeat[];
  problem: string | null;
  onTake: () => void;
  onRefuse: () => void;
  onGone: (next: string | null) => void;
}

/** One thing that repeats: its name, its props, its places. */
export function RepeatDetail({
  repeat,
  theirs,
  others,
  problem,
  onTake,
  onRefuse,
  onGone,
}: RepeatDetailProps) {
  const project = useProject();
  const { app, session, plan, base, design } = project;
  const { component, proposal } = repeat;
  const [name, setName] = useState(component.name);
  const [all_, setAll] = useState(false);
  const [picked, setPicked] = useState<ReadonlySet<string>>(new Set());
  const made = proposal ? undefined : extractionOf(plan).components.find((other) => other.id === repeat.id);
  const preview = useMemo(() => (made ? null : previewComponent(plan, component)), [made, plan, component]);
  const props = made?.props ?? preview?.props ?? [];
  const holds = made ? holdsContent(made.root) : !!preview?.holds;
  const trouble = problem ?? preview?.problem ?? null;
  const put = (words: string, next: Component): void => session.change(words, putComponent(repeat.id, next));
  const saveName = (): void => {
    if (proposal || !/^[A-Za-z]\w*$/.test(name.trim()) || name.trim() === component.name) return;
    put(`Rename ${component.name} to ${name.trim()}`, { ...component, name: name.trim() });
  };
  const rename = (prop: Prop, next: string): void => {
    const old =
      Object.entries(component.props ?? {}).find(([, given]) => given === prop.name)?.[0] ?? prop.name;
    if (!/^[a-z]\w*$/i.test(next) || next === prop.name || props.some((other) => other.name === next)) return;
    put(`Rename ${prop.name} to ${next}`, { ...component, props: { ...component.props, [old]: next } });
  };
  const split = (): void => {
    const apart = component.places.filter((key) => picked.has(key));
    const left = component.places.filter((key) => !picked.has(key));
    const other = freeId(app.components);
    session.change(
      `Split ${apart.length} places off ${component.name}`,
      all([
        putComponent(repeat.id, { ...component, places: left }),
        putComponent(other, { ...component, name: `${component.name}2`, places: apart }),
      ]),
    );
    onGone(other);
  };
  const join = (withId: string): void => {
    const other = others.find((row) => row.id === withId);
    if (!other) return;
    session.change(
      `Join ${component.name} and ${other.component.name}`,
      all([
        putComponent(repeat.id, {
          ...component,
          places: [...new Set([...component.places, ...other.component.places])],
        }),
        ...(other.proposal ? [] : [putComponent(other.id, null)]),
      ]),
    );
  };
  const ownWay = (): void => {
    put(`Let ${picked.size} places of ${component.name} go their own way`, {
      ...component,
      places: component.places.filter((key) => !picked.has(key)),
    });
    setPicked(new Set());
  };
  const shown = all_ ? component.places : component.places.slice(0, SHOWN);
  return (
    <Column aria-label={component.name}>
      <Row>
        <h2 style={{ marginRight: 'auto' }}>
          {component.name}{' '}
          <span style={{ fontWeight: 400, color: color.ink2 }}>
            {component.kind === 'list' ? 'list' : 'component'}
          </span>
        </h2>
        {proposal ? (
          <>
            <Button $kind="primary" onPress={onTake} isDisabled={!!trouble} aria-keyshortcuts="Enter">
              Take it
            </Button>
            <Button onPress={onRefuse} aria-keyshortcuts="Backspace">
              Refuse
            </Button>
          </>
        ) : (
          <Button
            onPress={() => {
              session.change(`Give ${component.name} up`, putComponent(repeat.id, null));
              onGone(null);
            }}
          >
            Give it up
          </Button>
        )}
      </Row>
      {proposal && (
        <p>
          {Math.round(proposal.confidence * 100)} % sure, because {proposal.reason}. It saves {proposal.saves}{' '}
          elements.
        </p>
      )}
      {trouble && (
        <Problem role="alert">
          It cannot be made: {trouble}. {proposal ? '' : 'Let places go their own way, or split it.'}
        </Problem>
      )}
      {!proposal && (
        <div style={{ maxWidth: 300 }}>
          <Field
            label="Name in the code"
            isCode
            value={name}
            onChange={setName}
            onBlur={saveName}
            problem={/^[A-Za-z]\w*$/.test(name.trim()) ? null : 'Letters and digits, a letter first'}
            onKeyDown={(event) => event.key === 'Enter' && saveName()}
          />
        </div>
      )}
      <h3>
        {props.length || holds ? 'What differs from place to place' : 'Nothing differs from place to place'}
      </h3>
      {holds && <p>What stands within it: that is written where it is used, between its tags.</p>}
      {props.length > 0 && (
        <Props>
          <thead>
            <tr>
              <th scope="col">{component.kind === 'list' ? 'Field' : 'Prop'}</th>
              <th scope="col">Kind</th>
              <th scope="col">In the first place</th>
            </tr>
          </thead>
          <tbody>
            {props.map((prop) => (
              <tr key={prop.name}>
                <td>
                  {proposal ? (
                    <code>{prop.name}</code>
                  ) : (
                    <input
                      aria-label={`Name of ${prop.name}`}
                      defaultValue={prop.name}
                      onBlur={(event) => rename(prop, event.target.value.trim())}
                      onKeyDown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
                    />
                  )}
                </td>
                <td>
                  {KIND_WORDS[prop.kind]}
                  {prop.isOptional && prop.kind !== 'flag' ? ', may be missing' : ''}
                </td>
                <td>{prop.sample ?? ''}</td>
              </tr>
            ))}
          </tbody>
        </Props>
      )}
      {!proposal && (
        <TheirsPart id={repeat.id} component={component} proposals={theirs} props={props} onPut={put} />
      )}
      <h3>
        {component.places.length} {component.kind === 'list' ? 'rows' : 'places'}
      </h3>
      <Places>
        {shown.map((key) => {
          const element = findElement(design, key);
          return (
            <li key={key}>
              <PlacePicture element={key} width={240} height={150} />
              <label>
                {!proposal && (
                  <input
                    type="checkbox"
                    checked={picked.has(key)}
                    aria-label={`Choose the place on ${screenName(project, hostOf(project, key))}, ${element ? labelOf(element) : ''}`}
                    onChange={() => {
                      const next = new Set(picked);
                      if (!next.delete(key)) next.add(key);
                      setPicked(next);
                    }}
                  />
                )}
                <Link to={`${base}/screens/at/${hostOf(project, key)}?element=${encodeURIComponent(key)}`}>
                  {screenName(project, hostOf(project, key))}
                  {element ? `: ${labelOf(element)}` : ', gone'}
                </Link>
              </label>
            </li>
          );
        })}
      </Places>
      {component.places.length > SHOWN && !all_ && (
        <Button onPress={() => setAll(true)}>Show all {component.places.length}</Button>
      )}
      {!proposal && (
        <Row>
          <Button isDisabled={!picked.size || picked.size === component.places.length} onPress={ownWay}>
            Let {picked.size || 'the chosen'} go their own way
          </Button>
          <Button isDisabled={picked.size < 2 || component.places.length - picked.size < 2} onPress={split}>
            Split {picked.size || 'the chosen'} off
          </Button>
          {others.length > 0 && (
            <div style={{ width: 230 }}>
              <Choice
                label="Join with another"
                isLabelHidden
                value=""
                options={[
                  { id: '', label: 'Join with …' },
                  ...others
                    .filter((other) => other.component.kind === component.kind)
                    .map((other) => ({ id: other.id, label: other.component.name })),
                ]}
                onChange={(other) => other && join(other)}
              />
            </div>
          )}
        </Row>
      )}
    </Column>
  );
}

import { type Element, putLayer, putRegion, putSetting, type Layer, roleOf, type Screen } from '@tovel/core';
import { useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { color } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';

const Panel = styled.div`
  display: grid;
  gap: 10px;
  padding: 12px 16px 14px;
  h3 {
    border: 0;
    padding: 0;
    font-size: 13px;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  dl {
    display: grid;
    grid-template-columns: 56px minmax(0, 1fr);
    gap: 2px 10px;
  }
  dt {
    color: ${color.ink2};
  }
  dd {
    overflow-wrap: anywhere;
  }
  > div {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
  }
`;

const ROLES = [
  { id: 'as-is', label: 'As read' },
  { id: 'none', label: 'Nothing' },
  { id: 'button', label: 'Button' },
  { id: 'link', label: 'Link' },
  { id: 'tab', label: 'Tab' },
  { id: 'listitem', label: 'List row' },
  { id: 'textbox', label: 'Text field' },
  { id: 'checkbox', label: 'Checkbox' },
  { id: 'combobox', label: 'Select' },
  { id: 'navigation', label: 'Navigation' },
  { id: 'image', label: 'Image' },
] as const;
type RoleChoice = (typeof ROLES)[number]['id'];

/** What one element is, and what is decided about it. Nothing here changes the design. */
export function LayerPanel({
  element,
  screen,
  onGone,
}: {
  element: Element;
  screen: Screen;
  onGone: () => void;
}) {
  const { app, session } = useProject();
  const { key } = element;
  const region = app.regions[key];
  const layer: Layer = app.layers[key] ?? {};
  const label = app.layers[key]?.name ?? (element.text?.trim() || element.name);
  const isOut =
    layer.show === false || (element.hidden && layer.show !== true && app.settings.hidden !== 'in');
  const isRoot = key === screen.root.key;
  const isLayered = element.source.file.toLowerCase().endsWith('.ora');
  const put = (words: string, next: Layer): void => {
    const kept = Object.fromEntries(Object.entries(next).filter(([, value]) => value !== undefined)) as Layer;
    session.change(`${words} ${label}`, putLayer(key, kept));
  };
  const role = region ? (region.role ?? 'as-is') : (layer.role ?? 'as-is');
  const setRole = (next: RoleChoice): void => {
    const value = next === 'as-is' ? undefined : next;
    if (region) {
      const { role: _role, ...rest } = region;
      session.change(`Make ${label} ${next}`, putRegion(key, { ...rest, ...(value ? { role: value } : {}) }));
    } else put(`Make ${next} of`, { ...layer, role: value });
  };
  const read = roleOf(element);
  return (
    <Panel>
      <h3 title={label}>{label}</h3>
      <dl>
        <dt>Is</dt>
        <dd>
          {region ? 'drawn by hand' : element.kind}
          {read ? `, ${read}` : ''}
        </dd>
        <dt>At</dt>
        <dd>
          {Math.round(element.box.x)}, {Math.round(element.box.y)} · {Math.round(element.box.width)} ×{' '}
          {Math.round(element.box.height)}
        </dd>
        {!region && (
          <>
            <dt>Path</dt>
            <dd className="mono">
              {element.source.path || 'the screen itself'}
              {element.source.id ? ` #${element.source.id}` : ''}
            </dd>
          </>
        )}
      </dl>
      {!isRoot && (
        <>
          <Name
            key={key}
            name={layer.name ?? region?.name ?? element.name}
            onName={(name) =>
              region
                ? session.change(`Rename ${label}`, putRegion(key, { ...region, name }))
                : put('Rename', { ...layer, name })
            }
          />
          <Choice label="Role" value={role as RoleChoice} options={ROLES} onChange={setRole} />
          <div>
            {region ? (
              <Button
                onPress={() => {
                  session.change(`Remove ${label}`, putRegion(key, null));
                  onGone();
                }}
              >
                Remove
              </Button>
            ) : (
              <Button
                aria-keyshortcuts="X"
                onPress={() => put(isOut ? 'Show' : 'Leave out', { ...layer, show: isOut ? true : false })}
              >
                {isOut ? 'Show it' : 'Leave it out'}
              </Button>
            )}
            {!region && element.children.length > 0 && (
              <Button
                aria-pressed={layer.flat ?? false}
                onPress={() =>
                  put(layer.flat ? 'Open up' : 'Flatten', { ...layer, flat: layer.flat ? undefined : true })
                }
              >
                {layer.flat ? 'Not one picture' : 'One picture'}
              </Button>
            )}
            {app.layers[key] && (
              <Button $kind="quiet" onPress={() => session.change(`As read: ${label}`, putLayer(key, null))}>
                As read
              </Button>
            )}
          </div>
        </>
      )}
      {isLayered && <LayerDefaults />}
    </Panel>
  );
}

/** The name is saved when the field is left or Enter is pressed. */
function Name({ name, onName }: { name: string; onName: (name: string) => void }) {
  const [typed, setTyped] = useState(name);
  const save = (): void => {
    if (typed.trim() && typed.trim() !== name) onName(typed.trim());
  };
  return (
    <Field
      label="Name"
      value={typed}
      onChange={setTyped}
      onBlur={save}
      onKeyDown={(event) => event.key === 'Enter' && save()}
    />
  );
}

/** What layers of layered files become in this project where nothing else is said of them. */
function LayerDefaults() {
  const { app, session } = useProject();
  return (
    <>
      <Choice
        label="Groups in layered files are"
        value={app.settings.groups ?? 'container'}
        options={[
          { id: 'container', label: 'containers' },
          { id: 'picture', label: 'one picture each' },
        ]}
        onChange={(value) => session.change(`Groups are ${value}s`, putSetting('groups', value))}
      />
      <Choice
        label="Names such as “… button”"
        value={app.settings.names ?? 'role'}
        options={[
          { id: 'role', label: 'give a layer its role' },
          { id: 'plain', label: 'are only names' },
        ]}
        onChange={(value) => session.change('What names of layers mean', putSetting('names', value))}
      />
      <Choice
        label="Layers that are hidden in their file are"
        value={app.settings.hidden ?? 'out'}
        options={[
          { id: 'out', label: 'left out' },
          { id: 'in', label: 'shown' },
        ]}
        onChange={(value) => session.change('What becomes of hidden layers', putSetting('hidden', value))}
      />
    </>
  );
}

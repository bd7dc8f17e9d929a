import {
  addedControl,
  all,
  type EditCondition,
  type Element,
  editKey,
  labelOf,
  putEdit,
  putLayer,
  type Screen,
  sightOf,
  undrawerChange,
} from '@tovel/core';
import { useProject } from '../project/context';
import { Button } from '../ui/controls';
import { isLength } from './LayoutPanel';
import { OpensAndCloses } from './OpensAndCloses';
import { Block, Columns, Pick, Row } from './panel';
import { useEdits } from './use_edits';
import { ValueField } from './ValueField';

interface LookPanelProps {
  screen: Screen;
  element: Element;
  parent: Element | null;
  condition: EditCondition;
  /** Opens the way to make a drawer of it. */
  onDrawer: () => void;
}

const SIDES = ['top', 'right', 'bottom', 'left'] as const;
const CORNERS = ['top-left', 'top-right', 'bottom-right', 'bottom-left'] as const;

/** How an element looks: each value can be changed, and taken back. */
export function LookPanel({ screen, element, parent, condition, onDrawer }: LookPanelProps) {
  const edits = useEdits(element, condition);
  const sight = sightOf(screen).byKey.get(element.key);
  const inherited: Readonly<Record<string, string>> = {
    ...(sight
      ? { color: sight.color, 'font-size': `${sight.fontSize}px`, 'font-weight': String(sight.fontWeight) }
      : {}),
    'background-color': 'none',
    'line-height': 'normal',
    'font-family': 'as around it',
    'box-shadow': 'none',
  };
  const isAlways = condition.kind === 'always';
  const value = (
    label: string,
    property: string,
    more: { unit?: 'px'; isColor?: boolean; check?: (value: string) => boolean } = {},
  ) => (
    <ValueField
      key={`${element.key} ${property}`}
      label={label}
      value={edits.valueOf(property)}
      isEdited={edits.isEdited(property)}
      otherwise={inherited[property]}
      onValue={(next) => edits.set(label, { [property]: next })}
      {...more}
    />
  );
  const length = (label: string, property: string) => value(label, property, { unit: 'px', check: isLength });
  const hasText = edits.valueOf('text') !== '';
  return (
    <>
      {isAlways && hasText && (
        <Block>
          <ValueField
            key={`${element.key} text`}
            label="Text"
            value={edits.valueOf('text')}
            isEdited={edits.isEdited('text')}
            onValue={(text) => edits.set('Text', { text })}
          />
        </Block>
      )}
      <Block>
        <Columns $n={2}>
          {value('Colour', 'color', { isColor: true })}
          {value('Ground', 'background-color', { isColor: true })}
        </Columns>
        <Columns $n={3}>
          {length('Size', 'font-size')}
          {value('Weight', 'font-weight', { check: (weight) => /^([1-9]00|bold|normal)$/.test(weight) })}
          {length('Line height', 'line-height')}
        </Columns>
        {value('Font', 'font-family')}
        <Pick
          label="Text alignment"
          value={edits.valueOf('text-align') || 'left'}
          options={[
            { id: 'left', label: 'Left' },
            { id: 'center', label: 'Centre' },
            { id: 'right', label: 'Right' },
          ]}
          onPick={(align) => edits.set('Alignment', { 'text-align': align })}
        />
      </Block>
      <Block>
        <h3>
          Space within <small>top, right, foot, left</small>
        </h3>
        <Columns $n={4}>{SIDES.map((side) => length(sideName(side), `padding-${side}`))}</Columns>
        <h3>
          Space around <small>top, right, foot, left</small>
        </h3>
        <Columns $n={4}>{SIDES.map((side) => length(sideName(side), `margin-${side}`))}</Columns>
      </Block>
      <Block>
        <Columns $n={2}>
          <ValueField
            key={`${element.key} radius`}
            label="Corners"
            unit="px"
            check={isLength}
            value={edits.valueOf('border-top-left-radius')}
            isEdited={edits.isEdited('border-top-left-radius')}
            onValue={(radius) =>
              edits.set(
                'Corners',
                Object.fromEntries(CORNERS.map((corner) => [`border-${corner}-radius`, radius])),
              )
            }
          />
          {value('Shadow', 'box-shadow')}
        </Columns>
      </Block>
      <PlaceAndVisibility
        screen={screen}
        element={element}
        parent={parent}
        condition={condition}
        onDrawer={onDrawer}
      />
    </>
  );
}

/** Where an element stands among its siblings, and whether it shows. */
function PlaceAndVisibility({ screen, element, parent, condition, onDrawer }: LookPanelProps) {
  const project = useProject();
  const { app, session } = project;
  const edits = useEdits(element, condition);
  const name = labelOf(element);
  const isAlways = condition.kind === 'always';
  const siblings = parent?.children.filter((child) => child.tag !== undefined) ?? [];
  const at = siblings.findIndex((child) => child.key === element.key);
  const move = (by: 1 | -1): void => {
    // All siblings get their place, so that one move does not push another one around.
    const order = siblings.map((child) => child.key);
    order.splice(at + by, 0, ...order.splice(at, 1));
    if (isAlways)
      session.change(
        `Move ${name} ${by < 0 ? 'earlier' : 'later'}`,
        all(order.map((key, i) => putEdit(editKey(key, 'position'), String(i)))),
      );
    else
      session.change(
        `Move ${name} ${by < 0 ? 'earlier' : 'later'}`,
        all(order.map((key, i) => putEdit(editKey(key, 'order', condition), String(i)))),
      );
  };
  return (
    <Block>
      <h3>Place and visibility</h3>
      <Row>
        <Button isDisabled={at <= 0} onPress={() => move(-1)}>
          Earlier
        </Button>
        <Button isDisabled={at < 0 || at >= siblings.length - 1} onPress={() => move(1)}>
          Later
        </Button>
        {isAlways ? (
          <Button
            onPress={() =>
              addedControl(app, element.key)
                ? session.change(`Remove ${name}`, addedControl(app, element.key)!)
                : session.change(
                    `Leave out ${name}`,
                    putLayer(element.key, { ...app.layers[element.key], show: false }),
                  )
            }
          >
            {addedControl(app, element.key) ? 'Remove' : 'Leave out'}
          </Button>
        ) : (
          <Button
            aria-pressed={edits.valueOf('display') === 'none'}
            onPress={() => edits.set('Visibility', { display: edits.isEdited('display') ? null : 'none' })}
          >
            {edits.valueOf('display') === 'none' ? 'Show here' : 'Hide here'}
          </Button>
        )}
      </Row>
      {app.drawers[element.key] ? (
        <Row>
          <span>A drawer up to {app.drawers[element.key].below} px</span>
          <Button
            onPress={() => session.change(`${name} is no drawer`, undrawerChange(project, element.key))}
          >
            No drawer
          </Button>
        </Row>
      ) : (
        element.children.length > 0 && (
          <Button onPress={onDrawer}>Hide when narrow, offer as a drawer …</Button>
        )
      )}
      {isAlways && element.children.length > 0 && <OpensAndCloses element={element} screen={screen.key} />}
    </Block>
  );
}

const sideName = (side: (typeof SIDES)[number]): string =>
  side === 'bottom' ? 'Foot' : side.charAt(0).toUpperCase() + side.slice(1);

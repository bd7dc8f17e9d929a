import {
  arrangementOf,
  type EditCondition,
  type Element,
  type Flow,
  flowDeclarations,
  pinDeclarations,
  scrollDeclarations,
  type Sizing,
  sizingDeclarations,
} from '@tovel/core';
import { Button } from '../ui/controls';
import { Block, Columns, Pick, Row } from './panel';
import { useEdits } from './use_edits';
import { ValueField } from './ValueField';

interface LayoutPanelProps {
  element: Element;
  parent: Element | null;
  condition: EditCondition;
}

const SIZINGS: readonly { id: Sizing; label: string }[] = [
  { id: 'fixed', label: 'Fixed' },
  { id: 'stretch', label: 'Stretches' },
  { id: 'fit', label: 'Fits content' },
];

/** How an element stretches, and how it places what is in it. */
export function LayoutPanel({ element, parent, condition }: LayoutPanelProps) {
  const edits = useEdits(element, condition);
  const { base } = element.style;
  const now = arrangementOf(
    { ...base, ...(condition.kind === 'always' ? {} : editedOf(element, condition)) },
    parent?.style.base ?? null,
  );
  const isRowParent = parent ? arrangementOf(parent.style.base, null).flow === 'row' : false;
  const field = (label: string, property: string) => (
    <ValueField
      key={`${element.key} ${property}`}
      label={label}
      unit="px"
      value={edits.valueOf(property)}
      isEdited={edits.isEdited(property)}
      check={isLength}
      onValue={(value) => edits.set(label, { [property]: value })}
    />
  );
  const holds = element.children.some((child) => child.tag !== undefined);
  return (
    <>
      {holds && (
        <Block>
          <h3>What is in it</h3>
          <Pick<Flow>
            label="Flow"
            value={now.flow}
            options={[
              { id: 'stack', label: 'Stack' },
              { id: 'row', label: 'Row' },
              { id: 'grid', label: 'Grid' },
              { id: 'free', label: 'Free' },
            ]}
            onPick={(flow) => edits.set('Flow', flowDeclarations(flow))}
          />
          {(now.flow === 'stack' || now.flow === 'row' || now.flow === 'grid') && (
            <>
              <Columns $n={2}>
                {field('Gap between rows', 'row-gap')}
                {field('Gap between columns', 'column-gap')}
              </Columns>
              <Pick
                label="Alignment across"
                value={alignOf(edits.valueOf('align-items'))}
                options={[
                  { id: 'start', label: 'Start' },
                  { id: 'center', label: 'Centre' },
                  { id: 'end', label: 'End' },
                  { id: 'stretch', label: 'Stretch' },
                ]}
                onPick={(to) =>
                  edits.set('Alignment', {
                    'align-items': to === 'start' || to === 'end' ? `flex-${to}` : to,
                  })
                }
              />
              <Pick
                label="Alignment along"
                value={alignOf(edits.valueOf('justify-content') || 'start')}
                options={[
                  { id: 'start', label: 'From start' },
                  { id: 'center', label: 'Middle' },
                  { id: 'space-between', label: 'Apart' },
                ]}
                onPick={(to) =>
                  edits.set('Distribution', { 'justify-content': to === 'start' ? 'flex-start' : to })
                }
              />
              {now.flow !== 'grid' && (
                <Pick
                  label="Wrapping"
                  value={now.wraps ? 'wrap' : 'nowrap'}
                  options={[
                    { id: 'nowrap', label: 'On one line' },
                    { id: 'wrap', label: 'Wraps' },
                  ]}
                  onPick={(wrap) => edits.set('Wrapping', { 'flex-wrap': wrap })}
                />
              )}
            </>
          )}
        </Block>
      )}
      <Block>
        <h3>Width</h3>
        <Pick<Sizing>
          label="Width"
          value={now.width}
          options={SIZINGS}
          onPick={(sizing) =>
            edits.set('Width', sizingDeclarations('width', sizing, element.box.width, isRowParent))
          }
        />
        <Columns $n={3}>
          {field('Width', 'width')}
          {field('At least', 'min-width')}
          {field('At most', 'max-width')}
        </Columns>
        <h3>Height</h3>
        <Pick<Sizing>
          label="Height"
          value={now.height}
          options={SIZINGS}
          onPick={(sizing) =>
            edits.set('Height', sizingDeclarations('height', sizing, element.box.height, !isRowParent))
          }
        />
        <Columns $n={3}>
          {field('Height', 'height')}
          {field('At least', 'min-height')}
          {field('At most', 'max-height')}
        </Columns>
      </Block>
      <InWindow now={now} edits={edits} />
    </>
  );
}

interface InWindowProps {
  now: ReturnType<typeof arrangementOf>;
  edits: ReturnType<typeof useEdits>;
}

/** What an element does while one scrolls, and how high it is in the window. */
const InWindow = ({ now, edits }: InWindowProps) => (
  <Block>
    <h3>In the window</h3>
    <Pick
      label="Pinned"
      value={now.pinned}
      options={[
        { id: 'none' as const, label: 'Scrolls along' },
        { id: 'sticky-top' as const, label: 'Sticks at top' },
        { id: 'sticky-bottom' as const, label: 'Sticks at foot' },
        { id: 'fixed-top' as const, label: 'Pinned to top' },
        { id: 'fixed-bottom' as const, label: 'Pinned to foot' },
      ]}
      onPick={(pinned) => edits.set('Pinning', pinDeclarations(pinned))}
    />
    <Pick
      label="Scrolling"
      value={now.scrolls}
      options={[
        { id: 'none' as const, label: 'Shows all' },
        { id: 'vertical' as const, label: 'Scrolls down' },
        { id: 'horizontal' as const, label: 'Scrolls sideways' },
      ]}
      onPick={(scrolls) => edits.set('Scrolling', scrollDeclarations(scrolls))}
    />
    <Row>
      <Button
        aria-pressed={now.isFullHeight}
        onPress={() =>
          edits.set('Height of the window', { 'min-height': now.isFullHeight ? 'auto' : '100dvh' })
        }
      >
        As high as the window
      </Button>
      <Button
        aria-pressed={now.keepsSafe}
        onPress={() =>
          edits.set('Safe area', {
            'padding-bottom': now.keepsSafe
              ? null
              : `calc(${edits.valueOf('padding-bottom') || '0px'} + env(safe-area-inset-bottom))`,
          })
        }
      >
        Keeps the safe area
      </Button>
    </Row>
  </Block>
);

const editedOf = ({ style }: Element, condition: EditCondition) =>
  condition.kind === 'upTo'
    ? (style.at?.[condition.width] ?? {})
    : condition.kind === 'from'
      ? (style.from?.[condition.width] ?? {})
      : {};

const alignOf = (value: string): string => value.replace(/^flex-/, '') || 'stretch';

/** A length, a share, or a word that CSS has for sizes. */
export const isLength = (value: string): boolean =>
  /^(-?\d*\.?\d+(px|%|rem|em|vw|vh|dvh|fr)|0|auto|none|(max|min|fit)-content|(calc|min|max|clamp)\(.+\))$/.test(
    value,
  );

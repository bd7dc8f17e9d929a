import { all, describeGesture, describeTarget, putInteraction, typedWiring } from '@tovel/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color, font } from '../theme/theme';
import { Button, fieldBox } from '../ui/controls';

const Text = styled.textarea`
  ${fieldBox}
  font: 13px/1.5 ${font.code};
  min-height: 130px;
  resize: vertical;
`;

const Read = styled.ul`
  max-height: 180px;
  overflow: auto;
  margin: 10px 0 14px;
  li {
    padding: 3px 0;
    color: ${color.ink2};
  }
  li[data-wrong] {
    color: ${color.red};
  }
`;

/** Wires a screen by typing: an element, an arrow and where it leads, a line each. */
export function TypedSheet({ screen, onClose }: { screen: string; onClose: () => void }) {
  const project = useProject();
  const { graph, session, app } = project;
  const [text, setText] = useState('');
  const lines = useMemo(() => typedWiring(project, graph, screen, text), [project, graph, screen, text]);
  const good = lines.flatMap((line) => (line.problem === undefined ? [line] : []));
  const apply = (): void => {
    if (!good.length) return;
    const counts = new Map<string, number>();
    session.change(
      `Wire ${good.length === 1 ? `“${good[0].label}”` : `${good.length} elements`} of ${app.screens[screen].name}`,
      all(
        good.map(({ element, interaction }) => {
          // Several lines for one element are several things that it does.
          const n = (counts.get(element) ?? 0) + 1;
          counts.set(element, n);
          return putInteraction(n > 1 ? `${element}|${n}` : element, interaction);
        }),
      ),
    );
    onClose();
  };
  return (
    <Sheet title={`Type where the elements of ${app.screens[screen].name} lead`} onClose={onClose}>
      <label htmlFor="typed-wiring">A line each: element → screen</label>
      <Text
        id="typed-wiring"
        autoFocus
        value={text}
        onChange={(event) => setText(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && (event.ctrlKey || event.metaKey) && apply()}
        placeholder={
          'search field → Results\n8 long press → Tool detail fade\nAccount if signed in → My loans'
        }
        spellCheck={false}
      />
      <Read aria-live="polite">
        {lines.map((line, i) => (
          <li key={i} data-wrong={line.problem !== undefined || undefined}>
            {line.problem === undefined
              ? `“${line.label}”, ${describeGesture(project, line.interaction)} → ${describeTarget(project, line.interaction.target).label}`
              : `${line.text}: ${line.problem}`}
          </li>
        ))}
      </Read>
      <Button $kind="primary" isDisabled={!good.length} onPress={apply}>
        {good.length === lines.length
          ? `Wire ${good.length || 'them'}`
          : `Wire the ${good.length} that are clear`}
      </Button>
    </Sheet>
  );
}

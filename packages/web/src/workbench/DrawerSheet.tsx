import {
  drawerChange,
  type Element,
  labelOf,
  openerProposals,
  roleOf,
  type Screen,
  walkElements,
} from '@tovel/core';
import { useState } from 'react';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Button, Choice, Field } from '../ui/controls';
import { Row } from './panel';

/** Hides a part of a screen on narrow windows and makes it a drawer there, with the button that opens it. */
export function DrawerSheet({
  screen,
  part,
  onClose,
}: {
  screen: Screen;
  part: Element;
  onClose: () => void;
}) {
  const project = useProject();
  const openers = openerProposals(project, screen, part);
  const [name, setName] = useState(holdsLinks(part) ? 'Menu' : labelOf(part).slice(0, 40));
  const [below, setBelow] = useState(String(screen.width > 800 ? 767 : Math.max(300, screen.width - 1)));
  const [side, setSide] = useState<'left' | 'right'>(part.box.x > screen.width / 2 ? 'right' : 'left');
  const [opener, setOpener] = useState(openers[0]?.element.key ?? 'added');
  const width = Number(below);
  const problem =
    /^\d+$/.test(below) && width >= 200 && width <= 4000 ? null : 'A width between 200 and 4000 px';
  const take = (): void => {
    if (problem || !name.trim()) return;
    project.session.change(
      `${name.trim()} is a drawer up to ${width} px`,
      drawerChange(
        project,
        part.key,
        { below: width, side, name: name.trim() },
        opener === 'added' ? null : opener,
      ),
    );
    onClose();
  };
  const chosen = openers.find(({ element }) => element.key === opener);
  return (
    <Sheet title={`Hide ${labelOf(part)} when the window is narrow`} onClose={onClose}>
      <div style={{ display: 'grid', gap: 12 }}>
        <Field
          label="Name"
          value={name}
          onChange={setName}
          problem={name.trim() ? null : 'It needs a name'}
        />
        <Field
          label="Hidden on windows up to, in px"
          value={below}
          onChange={setBelow}
          problem={problem}
          inputMode="numeric"
        />
        <Choice
          label="It comes out at the"
          value={side}
          options={[
            { id: 'left', label: 'left' },
            { id: 'right', label: 'right' },
          ]}
          onChange={setSide}
        />
        <Choice
          label="Opened by"
          value={opener}
          options={[
            ...openers.map(({ element, label }) => ({ id: element.key, label })),
            { id: 'added', label: 'A button that is added, shown only there' },
          ]}
          onChange={setOpener}
        />
        <p style={{ color: color.ink2 }}>
          {chosen
            ? `Proposed because ${chosen.reason}.`
            : openers.length
              ? 'The button takes the look of the design’s own buttons.'
              : 'Nothing on this screen is called a menu, so a button is added; it takes the look of the design’s own.'}{' '}
          The drawer shows the very same contents; a change of the one is a change of the other.
        </p>
        <Row>
          <Button $kind="primary" onPress={take} isDisabled={!!problem || !name.trim()}>
            Make it a drawer
          </Button>
          <Button onPress={onClose}>Cancel</Button>
        </Row>
      </div>
    </Sheet>
  );
}

/** A part with several links in it is a way around the app. */
function holdsLinks(part: Element): boolean {
  let links = 0;
  walkElements(part, (element) => void (['link', 'tab'].includes(roleOf(element) ?? '') && links++));
  return links >= 3;
}

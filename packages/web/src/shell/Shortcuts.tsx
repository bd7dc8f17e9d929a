import { useLocation } from 'react-router';
import styled from 'styled-components';
import { color, font } from '../theme/theme';
import { useProject } from '../project/context';
import { Sheet } from './Sheet';

const List = styled.dl`
  display: grid;
  grid-template-columns: 150px 1fr;
  gap: 6px 16px;
  dt {
    font: 12px ${font.code};
  }
  dd {
    color: ${color.ink2};
  }
`;

const Group = styled.section`
  margin-bottom: 14px;
  h3 {
    font-size: 12px;
    margin-bottom: 6px;
  }
`;

const Folded = styled.details`
  border-top: 1px solid ${color.rule};
  padding: 7px 0;
  summary {
    cursor: pointer;
    font-size: 12px;
    font-weight: 650;
  }
  summary span {
    color: ${color.ink2};
    font-weight: 400;
  }
  dl {
    margin-top: 8px;
  }
`;

interface ShortcutGroup {
  readonly title: string;
  /** How the address of its view begins, after that of the project; null where they hold everywhere. */
  readonly path: string | null;
  readonly keys: readonly (readonly [keys: string, what: string])[];
}

const shortcuts: readonly ShortcutGroup[] = [
  {
    title: 'Everywhere',
    path: null,
    keys: [
      ['Alt J', 'Jump to anything'],
      ['Ctrl Z, Ctrl Shift Z', 'Undo, redo'],
      ['?', 'These shortcuts'],
      ['F, D', 'On a finding: take its fix, or let it stand'],
      ['Escape', 'Leave a field or a sheet'],
    ],
  },
  {
    title: 'Intake',
    path: 'intake',
    keys: [
      ['K, S', 'Keep or skip what is chosen'],
      ['C, O, A', 'Make it a counterpart, an overlay or an alternative of a screen'],
      ['Space, Shift, Ctrl A', 'Choose one more, a range, all'],
    ],
  },
  { title: 'Reading', path: 'intake/', keys: [['X', 'Leave an element out, or show it']] },
  {
    title: 'Screens',
    path: 'screens',
    keys: [
      ['↑ ↓', 'From screen to screen'],
      ['Enter', 'Open in Junction'],
      ['S', 'Skip, or use again'],
      ['← →', 'On the ruler: narrower, wider; with Shift by 1 px'],
    ],
  },
  {
    title: 'Elements and what repeats',
    path: 'screens/',
    keys: [
      ['Tab, Shift Tab', 'In the list: to the next or the last undecided one'],
      ['Enter, Backspace', 'Take or refuse what is proposed'],
      ['a letter, 1 to 6', 'The role that has the key; a heading of that level'],
      ['=', 'The same for all like this'],
    ],
  },
  {
    title: 'Junction',
    path: 'junction',
    keys: [
      ['↑ ↓', 'From element to element'],
      ['any letter', 'On a row: type where it leads'],
      ['Enter', 'To the target field, or take what is typed'],
      ['Delete', 'Unwire'],
      ['.', 'Mark still, or not'],
      ['+ and -', 'On a row: take or refuse what is proposed'],
      ['Shift ↑ ↓, Ctrl A', 'Several elements, which are wired together'],
      ['Ctrl C, Ctrl V', 'Copy what an element does, and paste it'],
      ['[ and ]', 'The screen before, the screen after'],
    ],
  },
  {
    title: 'Map',
    path: 'map',
    keys: [
      ['arrows, + − 0', 'On a station: to the next, larger, smaller, fit'],
      ['Enter, F2', 'On a route: type it anew'],
      ['Alt → and Alt ←', 'On a route: under the one above, and out again'],
    ],
  },
  {
    title: 'Data',
    path: 'data',
    keys: [
      ['Enter, Backspace', 'In the list: take or refuse what is proposed'],
      ['arrows, Home, End', 'In the records: from cell to cell; with Ctrl to the ends'],
      ['Enter, F2, any letter', 'On a cell: write it anew; Tab and Enter go on, Escape leaves it'],
    ],
  },
  {
    title: 'Iterate',
    path: 'iterate',
    keys: [
      ['1, 2, 3', 'It is the first, second, third that is offered'],
      ['P, L', 'Put it on the chosen element, or let it go'],
      ['O, D', 'Keep one’s own, or take the design’s'],
    ],
  },
];

/** The keys, those of the view that one is in first and open. */
export function Shortcuts({ onClose }: { onClose: () => void }) {
  const { base } = useProject();
  const { pathname } = useLocation();
  const view = pathname.slice(base.length + 1);
  const fits = shortcuts.filter(({ path }) => path !== null && view.startsWith(path));
  const here = fits.reduce<ShortcutGroup | null>(
    (best, one) => (best && best.path!.length >= one.path!.length ? best : one),
    null,
  );
  const everywhere = shortcuts.find(({ path }) => path === null)!;
  const first = here ? [here, everywhere] : [everywhere];
  const others = shortcuts.filter((group) => !first.includes(group));
  const keys = (group: ShortcutGroup) => (
    <List>
      {group.keys.map(([pressed, what]) => (
        <div key={`${pressed} ${what}`} style={{ display: 'contents' }}>
          <dt>{pressed}</dt>
          <dd>{what}</dd>
        </div>
      ))}
    </List>
  );
  return (
    <Sheet title="Shortcuts" onClose={onClose}>
      {first.map((group) => (
        <Group key={group.title}>
          <h3>{group === here ? `Here: ${group.title}` : group.title}</h3>
          {keys(group)}
        </Group>
      ))}
      {others.map((group) => (
        <Folded key={group.title}>
          <summary>
            {group.title} <span>{group.keys.length}</span>
          </summary>
          {keys(group)}
        </Folded>
      ))}
    </Sheet>
  );
}

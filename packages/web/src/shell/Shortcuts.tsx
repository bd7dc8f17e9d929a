import styled from 'styled-components';
import { color, font } from '../theme/theme';
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

const shortcuts: readonly (readonly [string, string])[] = [
  ['Alt J', 'Jump to anything'],
  ['Ctrl Z, Ctrl Shift Z', 'Undo, redo'],
  ['?', 'These shortcuts'],
  ['↑ ↓', 'Junction: from element to element; Screens: from screen to screen'],
  ['any letter', 'Junction, on a row: type where it leads'],
  ['Enter', 'Junction: to the target field, or take what is typed; Screens: open in Junction'],
  ['Delete', 'Junction: unwire'],
  ['.', 'Junction: mark still, or not'],
  ['+ and -', 'Junction, on a row: take or refuse what is proposed'],
  ['Shift ↑ ↓, Ctrl A', 'Junction: several elements, which are wired together'],
  ['Ctrl C, Ctrl V', 'Junction: copy what an element does, and paste it'],
  ['[ and ]', 'Junction: the screen before, the screen after'],
  ['Enter, F2', 'Map, on a route: type it anew'],
  ['Alt → and Alt ←', 'Map, on a route: under the one above, and out again'],
  ['arrows, + − 0', 'Map, on a station: to the next, larger, smaller, fit'],
  ['S', 'Screens: skip, or use again'],
  ['Tab, Shift Tab', 'Elements, in the list: to the next or the last undecided one'],
  ['Enter, Backspace', 'Elements, Repeats: take or refuse what is proposed'],
  ['a letter, 1 to 6', 'Elements: the role that has the key; a heading of that level'],
  ['=', 'Elements: the same for all like this'],
  ['← →', 'On the ruler: narrower, wider; with Shift by 1 px'],
  ['K, S', 'Intake: keep or skip what is chosen'],
  ['C, O', 'Intake: make it a counterpart or an overlay of a screen'],
  ['Space, Shift, Ctrl A', 'Intake: choose one more, a range, all'],
  ['F, D', 'On a finding: take its fix, or let it stand'],
  ['X', 'Reading: leave an element out, or show it'],
  ['Escape', 'Leave a field or a sheet'],
];

export function Shortcuts({ onClose }: { onClose: () => void }) {
  return (
    <Sheet title="Shortcuts" onClose={onClose}>
      <List>
        {shortcuts.map(([keys, what]) => (
          <div key={keys} style={{ display: 'contents' }}>
            <dt>{keys}</dt>
            <dd>{what}</dd>
          </div>
        ))}
      </List>
    </Sheet>
  );
}

import { type LayerKind, putDefault } from '@tovel/core';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Choice } from '../ui/controls';

const KINDS: readonly {
  kind: LayerKind;
  label: string;
  options: readonly { id: string; label: string }[];
}[] = [
  {
    kind: 'text',
    label: 'Text',
    options: [
      { id: 'paragraph', label: 'a paragraph' },
      { id: 'none', label: 'nothing of its own' },
    ],
  },
  {
    kind: 'image',
    label: 'Pictures',
    options: [
      { id: 'image', label: 'an image' },
      { id: 'icon', label: 'decoration' },
    ],
  },
  {
    kind: 'vector',
    label: 'Drawings',
    options: [
      { id: 'icon', label: 'an icon' },
      { id: 'image', label: 'an image' },
    ],
  },
  {
    kind: 'box',
    label: 'Boxes and groups',
    options: [
      { id: 'none', label: 'nothing of their own' },
      { id: 'listitem', label: 'a list item' },
      { id: 'button', label: 'a button' },
    ],
  },
];

/** What layers of drawings are in this project where nothing else is known of them. */
export function DefaultsSheet({ onClose }: { onClose: () => void }) {
  const { app, session } = useProject();
  return (
    <Sheet title="Layers that nothing is known of" onClose={onClose}>
      <p style={{ color: color.ink2, marginBottom: 12 }}>
        What is proposed for layers of drawings whose name, look and place say nothing. An element keeps what
        somebody decided about it.
      </p>
      <div style={{ display: 'grid', gap: 12 }}>
        {KINDS.map(({ kind, label, options }) => (
          <Choice
            key={kind}
            label={label}
            value={app.defaults[kind] ?? ''}
            options={[{ id: '', label: 'Leave it open' }, ...options]}
            onChange={(role) =>
              session.change(`Default of ${label.toLowerCase()}`, putDefault(kind, role || null))
            }
          />
        ))}
      </div>
    </Sheet>
  );
}

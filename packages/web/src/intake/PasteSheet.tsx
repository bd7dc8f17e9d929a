import { useState } from 'react';
import styled from 'styled-components';
import { Sheet } from '../shell/Sheet';
import { font } from '../theme/theme';
import { Button, Field, fieldBox, Label } from '../ui/controls';
import type { ChosenFile } from './run_intake';

const Source = styled.textarea`
  ${fieldBox}
  min-height: 180px;
  resize: vertical;
  font: 12px/1.5 ${font.code};
`;

/** What a pasted text is: an SVG drawing, an HTML page, or neither. */
export function kindOfSource(source: string): 'svg' | 'html' | null {
  const start = source
    .replace(/^\uFEFF/, '')
    .replace(/^\s*(<\?xml[^>]*>|<!--[\s\S]*?-->|<!doctype[^>]*>|\s)*/i, '');
  if (/^<svg[\s>]/i.test(start)) return 'svg';
  return /^<[a-z][\s\S]*>/i.test(start) ? 'html' : null;
}

/** Source that was pasted becomes a screen, which asks for its name. */
export function PasteSheet({
  first,
  onFiles,
  onClose,
}: {
  first: string;
  onFiles: (files: ChosenFile[]) => void;
  onClose: () => void;
}) {
  const [source, setSource] = useState(first);
  const [name, setName] = useState(() => /<title[^>]*>([^<]+)<\/title>/i.exec(first)?.[1].trim() ?? '');
  const [isAsked, setAsked] = useState(false);
  const kind = kindOfSource(source);
  const problem = !name.trim()
    ? 'Give the screen a name.'
    : /[/\\]/.test(name)
      ? 'A name cannot hold a slash.'
      : null;
  const sourceProblem = !source.trim()
    ? 'Paste the source of a page or drawing.'
    : kind
      ? null
      : 'This is neither HTML nor SVG: it starts with no tag.';
  const take = (): void => {
    setAsked(true);
    if (problem || sourceProblem) return;
    onFiles([{ path: `${name.trim()}.${kind}`, file: new Blob([titled(source, name.trim(), kind!)]) }]);
    onClose();
  };
  return (
    <Sheet title="Paste HTML or SVG" onClose={onClose}>
      <form
        style={{ display: 'grid', gap: 12 }}
        onSubmit={(event) => {
          event.preventDefault();
          take();
        }}
      >
        <Field
          label="Name of the screen"
          value={name}
          onChange={setName}
          autoFocus
          problem={isAsked ? problem : null}
        />
        <div>
          <Label htmlFor="pasted-source">Source</Label>
          <Source
            id="pasted-source"
            spellCheck={false}
            value={source}
            onChange={(event) => setSource(event.target.value)}
            aria-describedby="pasted-kind"
          />
          <p id="pasted-kind" role="status">
            {isAsked && sourceProblem ? sourceProblem : kind ? `Reads as ${kind.toUpperCase()}.` : '\u00a0'}
          </p>
        </div>
        <Button type="submit" $kind="primary" style={{ justifySelf: 'end' }}>
          Bring it in
        </Button>
      </form>
    </Sheet>
  );
}

/** A page or drawing is named by its title; the name that was typed goes before one that it has. */
function titled(source: string, name: string, kind: 'svg' | 'html'): string {
  const title = `<title>${name.replace(/&/g, '&amp;').replace(/</g, '&lt;')}</title>`;
  const plain = source.replace(/^\uFEFF/, '');
  if (kind === 'html') return title + plain.replace(/<title[^>]*>[\s\S]*?<\/title>/i, '');
  return plain.replace(/<svg\b[^>]*>/i, (open) => (open.endsWith('/>') ? open : open + title));
}

import { type MergeSide, type PushPlan, screenWith } from '@tovel/core';
import styled from 'styled-components';
import { ElementPicture } from '../../picture/ElementPicture';
import { useProject } from '../../project/context';
import { color, font } from '../../theme/theme';
import { Button } from '../../ui/controls';
import { DiffLines, FileColumn } from '../changes/DiffLines';

type Ask = PushPlan['asks'][number];

const Question = styled.article`
  display: grid;
  gap: 8px;
  margin: 12px 16px;
  padding: 12px 14px;
  border: 1px solid ${color.ochre};
  border-left-width: 4px;
  h4,
  h5 {
    margin: 0;
  }
  h4 {
    font-size: 13.5px;
  }
  div[data-sides] {
    display: grid;
    grid-template-columns: repeat(2, minmax(0, 1fr));
    gap: 10px;
  }
  pre {
    max-height: 190px;
    overflow: auto;
    margin: 4px 0 8px;
    padding: 7px 9px;
    border: 1px solid ${color.rule};
    background: ${color.field};
    font: 12px/1.5 ${font.code};
    white-space: pre-wrap;
    overflow-wrap: anywhere;
  }
  h5 {
    font-size: 12px;
    color: ${color.ink2};
  }
  button[aria-pressed='true'] {
    background: ${color.ink};
    color: ${color.onInk};
  }
`;

const Picture = styled.div`
  width: 300px;
  min-height: 0;
  display: grid;
`;

const WHY: Readonly<Record<Ask['why'], string>> = {
  'both-changed': 'Both sides say something else here.',
  'both-moved': 'Both sides moved this.',
  'both-replaced': 'Both sides put something else here.',
  'ours-removed': 'The design has this no more, and somebody changed it in the code.',
  'theirs-removed': 'Somebody took this out of the code, and the design changed it.',
  'still-used': 'The design has this no more, and lines of theirs use it.',
  'no-place': 'The two cannot be put together: one of them counts as a whole.',
  'in-the-way': 'A file of this name is there already, and Tovel did not write it.',
};

/** One file of a plan: what is to be decided in it, and what its lines say before and after. */
export function FileChange({
  file,
  asks,
  answers,
  onAnswer,
}: {
  file: PushPlan['files'][number];
  asks: readonly Ask[];
  answers: ReadonlyMap<string, MergeSide>;
  onAnswer: (ask: string, side: MergeSide) => void;
}) {
  const isShown = file.before !== undefined || file.after !== undefined;
  return (
    <FileColumn aria-label={`Changes of ${file.path}`}>
      <h3>{file.path}</h3>
      {file.byLines !== undefined && <p>Merged line by line, since {file.byLines}.</p>}
      {asks.map((ask) => (
        <Question key={ask.id} aria-label={`To be decided at line ${ask.line}`}>
          <h4>
            Line {ask.line}: {WHY[ask.why]}
          </h4>
          <div data-sides>
            {(['theirs', 'ours'] as const).map((side) => (
              <div key={side}>
                <h5>{side === 'theirs' ? 'In the repository' : 'By the design now'}</h5>
                <pre>{ask[side] ?? 'nothing'}</pre>
                <Button aria-pressed={answers.get(ask.id) === side} onPress={() => onAnswer(ask.id, side)}>
                  {side === 'theirs' ? 'Keep theirs' : 'Take the design’s'}
                </Button>
              </div>
            ))}
          </div>
        </Question>
      ))}
      {!isShown && !asks.length && (
        <p>{file.fate === 'kept' ? 'Nothing of it is written anew.' : 'A picture.'}</p>
      )}
      {isShown && <DiffLines before={file.before ?? ''} after={file.after ?? ''} />}
    </FileColumn>
  );
}

/** The picture of what is asked about first, with its element. */
export function AskedPicture({ asks }: { asks: readonly Ask[] }) {
  const { design } = useProject();
  const element = asks.find((ask) => ask.element !== undefined)?.element;
  const screen = element === undefined ? undefined : screenWith(design, element);
  return screen && element !== undefined ? (
    <Picture>
      <ElementPicture screen={screen} element={element} />
    </Picture>
  ) : null;
}

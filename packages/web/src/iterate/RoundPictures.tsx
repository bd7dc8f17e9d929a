import { useState } from 'react';
import styled from 'styled-components';
import { Button, Segments } from '../ui/controls';
import { useQueryParam } from '../ui/use_query_param';
import { BeforeAfter, type Laid, LaidChoice } from './BeforeAfter';
import { RoundMap } from './RoundMap';
import type { Chosen } from './use_chosen';
import type { OpenRound } from './use_round';

const Middle = styled.section`
  display: flex;
  flex-direction: column;
  overflow: auto;
  padding: 10px 16px 16px;
  > header {
    display: flex;
    align-items: center;
    gap: 10px;
    padding-bottom: 10px;
    h3 {
      font-size: 13px;
      margin-right: auto;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  }
`;

const SHOWN = [
  { id: 'pictures', label: 'Pictures' },
  { id: 'lines', label: 'Lines' },
  { id: 'grid', label: 'Grid' },
] as const;

/** A screen of a round before and after it, or the Map as it would be. */
export function RoundPictures({ round, chosen }: { round: OpenRound; chosen: Chosen }) {
  const { current, page, marks, isPointing, point } = chosen;
  const [asked, setShown] = useQueryParam('show', 'pictures');
  const shows = SHOWN.find((one) => one.id === asked)?.id ?? 'pictures';
  const [laid, setLaid] = useState<Laid>('beside');
  return (
    <Middle aria-label="Before and after">
      <header>
        <h3>{shows === 'pictures' ? (current?.name ?? 'No screen') : 'The Map as it would be'}</h3>
        {shows === 'pictures' && (
          <LaidChoice laid={laid} onLaid={setLaid} isDisabled={!page?.before || !page.after} />
        )}
        <Segments role="group" aria-label="Shown">
          {SHOWN.map(({ id: one, label }) => (
            <Button key={one} aria-pressed={shows === one} onPress={() => setShown(one)}>
              {label}
            </Button>
          ))}
        </Segments>
      </header>
      {shows !== 'pictures' ? (
        <RoundMap round={round} view={shows} />
      ) : page ? (
        <BeforeAfter
          before={page.before}
          after={page.after}
          laid={laid}
          marked={marks}
          {...(isPointing ? { onPick: point } : {})}
          nothingBefore="It was not there."
          nothingAfter={
            current?.standing === 'gone'
              ? 'It is not among what came in, and goes with it.'
              : 'It has no picture of its own any more.'
          }
        />
      ) : (
        <p role="status">Drawing the screen …</p>
      )}
    </Middle>
  );
}

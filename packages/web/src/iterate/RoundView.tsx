import type { WaitingRound } from '@tovel/core';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { useProject } from '../project/context';
import { Button } from '../ui/controls';
import { Empty } from '../ui/Empty';
import { RoundBar } from './RoundBar';
import { RoundPictures } from './RoundPictures';
import { RoundScreens } from './RoundScreens';
import { RoundSide } from './RoundSide';
import { useChosen } from './use_chosen';
import { useEnding } from './use_ending';
import { useRound } from './use_round';

const View = styled.div`
  height: 100%;
  display: grid;
  grid-template-columns: 232px minmax(0, 1fr) 340px;
  grid-template-rows: auto minmax(0, 1fr);
`;

/** A next round of screens before anything of it is taken in: what it changes, and what only a person can decide. */
export function RoundView({ round }: { round: NonNullable<WaitingRound> }) {
  const { base } = useProject();
  const navigate = useNavigate();
  const opened = useRound(round);
  const chosen = useChosen(opened);
  const ending = useEnding(round, opened);
  const { report, progress, problem, effects } = opened;

  if (problem && ending.busy === null)
    return (
      <Empty title="This round cannot be compared" text={problem}>
        <Button onPress={ending.drop}>Put it away</Button>
      </Empty>
    );
  if (!report)
    return (
      <Empty
        title="Comparing the screens with those that are there …"
        text={progress.total ? `${progress.done} of ${progress.total}` : 'Opening what came in.'}
      >
        {progress.total > 0 && (
          <progress value={progress.done} max={progress.total} aria-label="Screens compared" />
        )}
        <Button onPress={() => void navigate(`${base}/intake`)}>Leave it for later</Button>
      </Empty>
    );
  return (
    <View>
      <RoundBar round={opened} report={report} ending={ending} />
      <RoundScreens report={report} at={chosen.at} onChoose={chosen.chooseScreen} />
      <RoundPictures round={opened} chosen={chosen} />
      <RoundSide chosen={chosen} report={report} effects={effects} />
    </View>
  );
}

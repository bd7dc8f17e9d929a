import { useState } from 'react';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { api } from '../api/client';
import { useProject, useStanding } from '../project/context';
import { newName, ownDevice, ownWindow } from '../project/identity';
import { color } from '../theme/theme';
import { Button } from '../ui/controls';
import { momentInWords } from '../versions/sittings';

const Bar = styled.div`
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 6px 18px;
  background: ${color.lakeTint};
  border-bottom: 1px solid ${color.lake};
  span {
    margin-right: auto;
  }
`;

/** Says that one looks at what was, and leads back to it, or out of it. */
export function PastBar({ past }: { past: number }) {
  const { id } = useProject();
  const { savedAt } = useStanding();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<string | null>(null);
  const goBack = async (): Promise<void> => {
    try {
      const [last] = (await api.timeline(id, {})).steps;
      await api.goBack(id, {
        base: last.seq,
        id: newName(16),
        author: `${ownDevice()}.${await ownWindow()}`,
        to: past,
        label: `Go back to how it was ${momentInWords(savedAt)}`,
      });
      void navigate(`/p/${id}/screens`);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  return (
    <Bar role="status">
      <span>
        {problem ?? `This is how the project was: ${momentInWords(savedAt)}. Nothing can be changed here.`}
      </span>
      <Button $kind="primary" onPress={() => void goBack()}>
        Go back to this
      </Button>
      <Button onPress={() => void navigate(`/p/${id}/versions?at=${past}`)}>To the versions</Button>
    </Bar>
  );
}

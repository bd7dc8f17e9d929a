import { type Finding, putDismissed } from '@tovel/core';
import { useState } from 'react';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { Button, Field } from '../ui/controls';

/** Asks why a finding may stand; the reason is kept with it. */
export function LetStandSheet({ finding, onClose }: { finding: Finding; onClose: () => void }) {
  const { session } = useProject();
  const [reason, setReason] = useState('');
  const stand = (): void => {
    session.change(
      `Let stand: ${finding.message}`.slice(0, 200),
      putDismissed(finding.id, reason.trim().slice(0, 500) || true),
    );
    onClose();
  };
  return (
    <Sheet title="Let it stand" onClose={onClose}>
      <p style={{ marginBottom: 12 }}>{finding.message}</p>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          stand();
        }}
      >
        <Field
          label="Why"
          autoFocus
          value={reason}
          onChange={setReason}
          placeholder="For those who come after you"
        />
        <Button type="submit" $kind="primary" style={{ marginTop: 14 }}>
          Let it stand
        </Button>
      </form>
    </Sheet>
  );
}

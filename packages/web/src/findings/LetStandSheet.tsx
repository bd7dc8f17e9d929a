import { all, type Finding, putDismissed } from '@tovel/core';
import { useState } from 'react';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { Button, Field } from '../ui/controls';

/** Asks why findings of one cause may stand; the reason is kept with each. */
export function LetStandSheet({ findings, onClose }: { findings: readonly Finding[]; onClose: () => void }) {
  const { session } = useProject();
  const [first] = findings;
  const [reason, setReason] = useState('');
  const stand = (): void => {
    const why = reason.trim().slice(0, 500) || true;
    session.change(
      `Let stand: ${first.message}`.slice(0, 200),
      all(findings.map(({ id }) => putDismissed(id, why))),
    );
    onClose();
  };
  return (
    <Sheet title="Let it stand" onClose={onClose}>
      <p style={{ marginBottom: 12 }}>
        {first.message}
        {findings.length > 1 && ` And ${findings.length - 1} more of the same cause.`}
      </p>
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

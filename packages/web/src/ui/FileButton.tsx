import { type ReactNode, useRef } from 'react';
import { Button } from './controls';

/** A button that asks for one file. The same file can be chosen again after it was changed. */
export function FileButton({
  label,
  accept,
  kind,
  onChoose,
  children,
}: {
  /** What the file is, for those who hear it. */
  label: string;
  /** What the names of files end in. */
  accept: string;
  kind?: 'primary' | 'quiet';
  onChoose: (file: File) => void;
  children: ReactNode;
}) {
  const picker = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={picker}
        type="file"
        accept={accept}
        hidden
        aria-label={label}
        onChange={({ target }) => {
          const chosen = target.files?.[0];
          target.value = '';
          if (chosen) onChoose(chosen);
        }}
      />
      <Button $kind={kind} onPress={() => picker.current?.click()}>
        {children}
      </Button>
    </>
  );
}

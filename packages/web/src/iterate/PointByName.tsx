import type { RoundScreen } from '@tovel/core';
import { useState } from 'react';
import { Suggest } from '../ui/Suggest';

/** Elements that are offered at once for what is typed. */
const OFFERED = 8;

interface PointByNameProps {
  named: RoundScreen['named'];
  onPoint: (element: RoundScreen['named'][number]) => void;
}

/** Points at an element of the newer picture by what it is called. */
export function PointByName({ named, onPoint }: PointByNameProps) {
  const [typed, setTyped] = useState('');
  return (
    <form onSubmit={(event) => event.preventDefault()}>
      <Suggest
        label="Another element, by its name; or press it in the newer picture"
        value={typed}
        onType={setTyped}
        suggestions={named
          .filter(({ label }) => label.toLowerCase().includes(typed.toLowerCase()))
          .slice(0, OFFERED)
          .map(({ key, label }) => ({ id: key, label, detail: '' }))}
        onTake={({ id: key, label }) => {
          onPoint({ key, label });
          setTyped(label);
        }}
        nothing="No element is called that"
      />
    </form>
  );
}

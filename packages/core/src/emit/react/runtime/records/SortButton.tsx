import type { ComponentProps } from 'react';

interface SortButtonProps<Field extends string> extends ComponentProps<'button'> {
  /** The list that it sorts. */
  list: {
    sortBy: (field: Field) => void;
    arrowOf: (field: Field) => string;
  };
  field: Field;
}

/** Sorts a list by a field, and shows by an arrow how it is sorted. */
export function SortButton<Field extends string>({
  list,
  field,
  children,
  ...button
}: SortButtonProps<Field>) {
  return (
    <button type="button" {...button} onClick={() => list.sortBy(field)}>
      {children}
      <span aria-hidden="true">{list.arrowOf(field)}</span>
    </button>
  );
}

/** A cell of a grid of so many rows and columns, counted from 0. */
export interface At {
  readonly row: number;
  readonly column: number;
}

/** Where a key leads from a cell; null for a key that leads nowhere. Past the edges it stays. */
export function movedBy(key: string, isControl: boolean, at: At, rows: number, columns: number): At | null {
  const within = (row: number, column: number): At => ({
    row: Math.max(0, Math.min(rows - 1, row)),
    column: Math.max(0, Math.min(columns - 1, column)),
  });
  switch (key) {
    case 'ArrowDown':
      return within(isControl ? rows - 1 : at.row + 1, at.column);
    case 'ArrowUp':
      return within(isControl ? 0 : at.row - 1, at.column);
    case 'ArrowRight':
      return within(at.row, isControl ? columns - 1 : at.column + 1);
    case 'ArrowLeft':
      return within(at.row, isControl ? 0 : at.column - 1);
    case 'Home':
      return within(isControl ? 0 : at.row, 0);
    case 'End':
      return within(isControl ? rows - 1 : at.row, columns - 1);
    case 'PageDown':
      return within(at.row + 10, at.column);
    case 'PageUp':
      return within(at.row - 10, at.column);
    default:
      return null;
  }
}

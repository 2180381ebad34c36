import { useCallback, useState } from 'react';

export type Cell = { row: number; column: number };
export type Range = { top: number; bottom: number; left: number; right: number };

export const rangeOf = (a: Cell, b: Cell): Range => ({
  top: Math.min(a.row, b.row),
  bottom: Math.max(a.row, b.row),
  left: Math.min(a.column, b.column),
  right: Math.max(a.column, b.column),
});

/** A cell cursor with an anchor: moving takes both along, moving with Shift leaves the anchor and makes a range. */
export function useGridCursor(rows: number, columns: number) {
  const [cursor, setCursor] = useState<Cell>({ row: 0, column: 1 });
  const [anchor, setAnchor] = useState<Cell | null>(null);
  const move = useCallback(
    (to: Cell, extend: boolean) => {
      const next = {
        row: Math.max(0, Math.min(rows - 1, to.row)),
        column: Math.max(0, Math.min(columns - 1, to.column)),
      };
      setAnchor((old) => (extend ? (old ?? cursor) : null));
      setCursor(next);
      return next;
    },
    [rows, columns, cursor],
  );
  return { cursor, anchor, range: anchor ? rangeOf(anchor, cursor) : null, move, clear: () => setAnchor(null) };
}

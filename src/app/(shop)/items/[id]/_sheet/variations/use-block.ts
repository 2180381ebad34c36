import { useCallback, useState } from 'react';
import type { Block } from '@/core/item/variation-table';

export type Place = { row: number; column: number };

/** A rectangle of cells, chosen by keyboard or mouse: where it began, and where it reaches. */
export function useBlock(rows: number, columns: number) {
  const [anchor, setAnchor] = useState<Place>({ row: 0, column: 1 });
  const [head, setHead] = useState<Place>({ row: 0, column: 1 });
  const clamp = useCallback(
    ({ row, column }: Place): Place => ({
      row: Math.max(0, Math.min(rows - 1, row)),
      column: Math.max(0, Math.min(columns - 1, column)),
    }),
    [rows, columns],
  );
  const to = useCallback(
    (place: Place, extend: boolean) => {
      const next = clamp(place);
      setHead(next);
      if (!extend) setAnchor(next);
      return next;
    },
    [clamp],
  );
  const choose = useCallback((from: Place, reach: Place) => {
    setAnchor(from);
    setHead(reach);
  }, []);
  const block: Block = {
    top: Math.min(anchor.row, head.row),
    bottom: Math.max(anchor.row, head.row),
    left: Math.min(anchor.column, head.column),
    right: Math.max(anchor.column, head.column),
  };
  return { anchor, head, block, to, choose };
}

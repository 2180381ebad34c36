import { type KeyboardEvent, useCallback } from 'react';
import { isWriting } from '@/ui/frame/is-writing';

/** The part of a cell that takes the focus. */
const focusable = (cell: Element | null): HTMLElement | null =>
  cell?.querySelector<HTMLElement>('input, textarea, select, [contenteditable=true], button') ?? null;

export function focusCell(root: HTMLElement, row: number, column: number): boolean {
  const target = focusable(root.querySelector(`[data-cell="${row}/${column}"]`));
  target?.focus();
  target?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  return target !== null;
}

/** What a marketplace's cell offers besides its value, such as proposals: the next of it, or the one before. */
function besidesValue(here: HTMLElement, back: boolean): HTMLElement | null {
  const all = [...(here.closest('[data-cell]')?.querySelectorAll<HTMLElement>('button') ?? [])];
  return all[all.indexOf(here) + (back ? -1 : 1)] ?? null;
}

export const placeOf = (element: Element | null): { row: number; column: number } | null => {
  const said = element?.closest<HTMLElement>('[data-cell]')?.dataset.cell;
  const [row, column] = (said ?? '').split('/').map(Number);
  return said && row !== undefined && column !== undefined ? { row, column } : null;
};

type Handlers = {
  rows: number;
  columns: number;
  /** What a marketplace's cell holds, as text. */
  copy: (row: number, column: number) => string | null;
  paste: (row: number, column: number, text: string) => void;
  clear: (row: number, column: number) => void;
  undo: () => void;
};

/**
 * Spreadsheet habits in the sheet. Tab and Enter go down the item's own column, where one writes; Alt and an arrow
 * leave it. Among the marketplaces the arrows move, Enter opens, Tab goes on to what the cell offers besides its value,
 * Delete goes back to the item's value, copy and paste work on the cell, Ctrl+Z takes back what was last written there.
 */
export function useSheetKeys({ rows, columns, copy, paste, clear, undo }: Handlers) {
  return useCallback(
    (event: KeyboardEvent<HTMLElement>) => {
      const target = event.target as HTMLElement; // the element that has the focus
      const root = event.currentTarget;
      const place = placeOf(target);
      if (!place || target.closest('[role=dialog]')) return;
      const { row, column } = place;
      const writing = isWriting(target);
      const to = (nextRow: number, nextColumn: number) => {
        let at = nextRow;
        const step = nextRow >= row ? 1 : -1;
        // Rows in which the item itself has nothing to write are stepped over in its column.
        while (at >= 0 && at < rows && !focusCell(root, at, Math.max(0, Math.min(columns, nextColumn)))) {
          if (nextRow === row) return;
          at += step;
        }
        event.preventDefault();
      };
      const control = event.ctrlKey || event.metaKey;
      if (writing && column === 0) {
        if (event.altKey && event.key === 'ArrowRight') to(row, 1);
        else if (event.altKey && event.key === 'ArrowDown') to(row + 1, 0);
        else if (event.altKey && event.key === 'ArrowUp') to(row - 1, 0);
        else if (event.key === 'Enter' && /^(INPUT|SELECT)$/.test(target.tagName))
          to(row + (event.shiftKey ? -1 : 1), 0);
        return;
      }
      if (writing) return;
      const offered = event.key === 'Tab' && column > 0 ? besidesValue(target, event.shiftKey) : null;
      if (offered) {
        event.preventDefault();
        offered.focus();
      } else if (control && event.key.toLowerCase() === 'z') {
        event.preventDefault();
        undo();
      } else if (column > 0 && control && event.key.toLowerCase() === 'c') {
        const text = copy(row, column);
        if (text !== null) void navigator.clipboard?.writeText(text);
      } else if (column > 0 && control && event.key.toLowerCase() === 'v') {
        event.preventDefault();
        void navigator.clipboard?.readText().then((text) => paste(row, column, text));
      } else if (event.key === 'ArrowRight') to(row, column + 1);
      else if (event.key === 'ArrowLeft' || event.key === 'Escape') to(row, event.key === 'Escape' ? 0 : column - 1);
      else if (event.key === 'ArrowDown') to(row + 1, column);
      else if (event.key === 'ArrowUp') to(row - 1, column);
      else if (column > 0 && (event.key === 'Delete' || event.key === 'Backspace')) clear(row, column);
      else if (column > 0 && event.key === 'F2') target.click();
    },
    [rows, columns, copy, paste, clear, undo],
  );
}

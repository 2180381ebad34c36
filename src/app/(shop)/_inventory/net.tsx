'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { useRouter } from 'next/navigation';
import { useEffect, useMemo, useRef, useState } from 'react';
import type { SortName } from '@/core/filter/sorting';
import type { FoundItem } from '@/services/records/items/find-items';
import { cellText, filledDown, pastedCells } from './cells';
import type { Chosen } from './chosen';
import type { Column } from './columns';
import { NetHeading } from './net-heading';
import { NetRow, type RowHands } from './net-row';
import { useCells } from './use-cells';
import { type Range, useGridCursor } from './use-grid-cursor';
import { useWholeRows } from './use-whole-rows';

const rowHeight = 36;

type Props = {
  /** A bar lies over the foot: the last rows can be scrolled out from under it. */
  isBarShown: boolean;
  items: FoundItem[];
  total: number;
  columns: Column[];
  sort: { by: string; dir: 'asc' | 'desc' };
  onSort: (by: SortName) => void;
  chosen: Chosen;
  choose: (next: Chosen) => void;
  resize: (id: string, width: number) => void;
  more: () => void;
  saved: () => void;
  act: (what: 'change' | 'publish') => void;
  publishKnots: (itemIds: number[], accountIds: number[]) => void;
  endKnots: (itemIds: number[], accountIds: number[]) => void;
};

const isChosen = (chosen: Chosen, id: number) => chosen.all !== chosen.ids.has(id);

function withToggled(chosen: Chosen, ids: number[], on: boolean): Chosen {
  const next = new Set(chosen.ids);
  for (const id of ids) {
    if (chosen.all !== on) next.add(id);
    else next.delete(id);
  }
  return { all: chosen.all, ids: next };
}

/** The grid: only the rows in view are there; spreadsheet habits hold. */
export function Net(props: Props) {
  const { items, total, columns, sort, chosen, choose } = props;
  const router = useRouter();
  const scroller = useRef<HTMLDivElement>(null);
  /** False, or the key with which one began to type; nothing where what stands there is kept. */
  const [editing, setEditing] = useState<false | { begun?: string }>(false);
  const cells = useCells(items);
  const { cursor, range, move, clear } = useGridCursor(items.length, columns.length);
  const virtual = useVirtualizer({
    count: items.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 2,
  });
  const rows = virtual.getVirtualItems();
  const wholeTo = useWholeRows(rows[0]?.index ?? 0, rows.at(-1)?.index ?? 0);
  // A row that goes out of sight hands its elements to the one that comes: nothing is made anew.
  const slots = useRef(rows.length);
  slots.current = Math.max(slots.current, rows.length);
  const lastShown = rows.at(-1)?.index ?? 0;
  const { more } = props;
  useEffect(() => {
    if (lastShown > items.length - 14) more();
  }, [lastShown, items.length, more]);

  const knotColumns = range
    ? columns.slice(range.left, range.right + 1).flatMap((column) => (column.kind === 'knot' ? [column.accountId] : []))
    : [];
  const isKnotRange = range !== null && knotColumns.length === range.right - range.left + 1;
  const rangeIds = range ? items.slice(range.top, range.bottom + 1).map((item) => item.id) : [];
  const widths = columns.map((column) => column.width);
  const template = widths
    .map((width, index) => (columns[index]?.id === 'title' ? `minmax(${width}px, 1fr)` : `${width}px`))
    .join(' ');
  const width = widths.reduce((sum, one) => sum + one, 0);
  const current = items[cursor.row];
  const column = columns[cursor.column];

  const go = (row: number, to: number, extend: boolean) => {
    const next = move({ row, column: to }, extend);
    virtual.scrollToIndex(next.row);
    if (extend && column?.kind !== 'knot') {
      const ids = items.slice(Math.min(row, cursor.row), Math.max(row, cursor.row) + 1).map((item) => item.id);
      choose(withToggled(chosen, ids, true));
    }
  };

  const open = () => {
    if (!current || !column) return;
    if (column.kind === 'field' && column.edit && column.id !== 'title') setEditing({});
    else if (column.kind === 'check') choose(withToggled(chosen, [current.id], !isChosen(chosen, current.id)));
    else router.push(`/items/${current.id}`);
  };

  // Asked for when a key is pressed: while rows are drawn it would have them laid out twice.
  const page = () => Math.max(1, Math.floor((scroller.current?.clientHeight ?? 400) / rowHeight) - 2);
  const steps: Record<string, () => [number, number]> = {
    ArrowDown: () => [1, 0],
    ArrowUp: () => [-1, 0],
    ArrowRight: () => [0, 1],
    ArrowLeft: () => [0, -1],
    PageDown: () => [page(), 0],
    PageUp: () => [-page(), 0],
  };

  const onKeyDown = (event: React.KeyboardEvent) => {
    if (editing || event.target !== event.currentTarget) return;
    const step = steps[event.key]?.();
    const control = event.ctrlKey || event.metaKey;
    if (step) {
      const jump = control && step[0] !== 0 ? (step[0] > 0 ? items.length : -items.length) : step[0];
      go(cursor.row + jump, cursor.column + step[1], event.shiftKey);
    } else if (event.key === 'Home') go(control ? 0 : cursor.row, 0, event.shiftKey);
    else if (event.key === 'End') go(control ? items.length - 1 : cursor.row, columns.length - 1, event.shiftKey);
    else if (event.key === ' ' && current) choose(withToggled(chosen, [current.id], !isChosen(chosen, current.id)));
    else if (event.key === 'Enter') open();
    else if (event.key === 'F2' && column?.kind === 'field' && column.edit) setEditing({});
    else if (control && event.key.toLowerCase() === 'a') choose({ all: true, ids: new Set() });
    else if (control && event.key.toLowerCase() === 'c') copyCells();
    else if (control && event.key.toLowerCase() === 'd' && range)
      void cells.writeAll(filledDown(range, items, columns));
    else if (control && event.key.toLowerCase() === 'z') void cells.takeBack();
    // A number typed onto a cell of numbers begins anew; letters are shortcuts of the page.
    else if (!control && /^[0-9+-]$/.test(event.key) && column?.kind === 'field' && column.edit && column.align)
      setEditing({ begun: event.key });
    else if (event.key === 'Escape') {
      clear();
      choose({ all: false, ids: new Set() });
    } else if (!control && event.key === 'e') props.act('change');
    else if (!control && event.key === 'p') {
      if (isKnotRange) props.publishKnots(rangeIds, knotColumns);
      else props.act('publish');
    } else return;
    event.preventDefault();
  };

  const onlyCursor: Range = { top: cursor.row, bottom: cursor.row, left: cursor.column, right: cursor.column };
  const part = range ?? onlyCursor;
  /** The range as tab-separated text, as spreadsheets take it. */
  const copyCells = () => {
    const text = items.slice(part.top, part.bottom + 1).map((item) =>
      columns
        .slice(part.left, part.right + 1)
        .map((one) => cellText(item, one))
        .join('\t'),
    );
    void navigator.clipboard?.writeText(text.join('\n'));
  };

  // The rows keep their hands: only what they do is of this drawing.
  const deeds = useRef<RowHands | null>(null);
  deeds.current = {
    press: (row, to, event) => {
      go(row, to, event.shiftKey);
      scroller.current?.focus();
      // The keys stay with the grid; only a box that is typed into takes them.
      const isTyped = event.target instanceof HTMLInputElement && event.target.type !== 'checkbox';
      if (!isTyped) event.preventDefault();
    },
    open: (id) => router.push(`/items/${id}`),
    edit: () => setEditing({}),
    toggle: (id, isOn) => choose(withToggled(chosen, [id], !isOn)),
    write: (text) => cells.write(pastedCells(text.replace(/[\t\n]/g, ' '), onlyCursor, items, columns)),
    done: (saved) => {
      setEditing(false);
      if (saved) props.saved();
      scroller.current?.focus();
    },
  };
  const hands = useMemo((): RowHands => {
    const now = () => deeds.current as RowHands; // set above at every drawing
    return {
      press: (...args) => now().press(...args),
      open: (...args) => now().open(...args),
      edit: () => now().edit(),
      toggle: (...args) => now().toggle(...args),
      write: (...args) => now().write(...args),
      done: (...args) => now().done(...args),
    };
  }, []);

  return (
    <>
      {isKnotRange && rangeIds.length > 0 ? (
        <div
          role="toolbar"
          aria-label="Chosen knots"
          className={`absolute left-1/2 z-20 flex -translate-x-1/2 items-center gap-2 rounded border border-base-300 bg-base-200 px-3 py-1.5 shadow-lg ${props.isBarShown ? 'bottom-14' : 'bottom-2'}`}
        >
          <span className="figures font-medium" role="status">
            {rangeIds.length * knotColumns.length} knots
          </span>
          <button
            type="button"
            className="btn btn-primary btn-sm"
            onClick={() => props.publishKnots(rangeIds, knotColumns)}
          >
            Publish these
          </button>
          <button type="button" className="btn btn-sm" onClick={() => props.endKnots(rangeIds, knotColumns)}>
            End these
          </button>
        </div>
      ) : null}
      <div
        ref={scroller}
        role="grid"
        aria-label="Inventory"
        aria-rowcount={total + 1}
        aria-colcount={columns.length}
        aria-multiselectable="true"
        aria-activedescendant={current && column ? `cell-${current.id}-${column.id}` : undefined}
        tabIndex={0}
        onKeyDown={onKeyDown}
        onPaste={(event) => {
          if (editing) return;
          event.preventDefault();
          void cells.writeAll(pastedCells(event.clipboardData.getData('text/plain'), part, items, columns));
        }}
        className="min-h-0 flex-1 overflow-auto outline-offset-[-2px]"
      >
        <div role="rowgroup" className="sticky top-0 z-10 bg-base-200" style={{ minWidth: width }}>
          <div
            role="row"
            aria-rowindex={1}
            className="grid border-b border-base-300"
            style={{ gridTemplateColumns: template }}
          >
            {columns.map((one) => (
              <NetHeading key={one.id} column={one} sort={sort} onSort={props.onSort} resize={props.resize} />
            ))}
          </div>
        </div>
        <div
          role="rowgroup"
          style={{
            height: virtual.getTotalSize() + (props.isBarShown || isKnotRange ? 56 : 0),
            minWidth: width,
            position: 'relative',
          }}
        >
          {rows.map((row) => {
            const item = items[row.index];
            if (!item) return null;
            const isInside = isKnotRange && range !== null && row.index >= range.top && row.index <= range.bottom;
            const isHere = cursor.row === row.index;
            return (
              <NetRow
                key={row.index % slots.current}
                item={item}
                columns={columns}
                template={template}
                index={row.index}
                height={rowHeight}
                top={row.start}
                isChosen={isChosen(chosen, item.id)}
                cursor={isHere ? cursor.column : -1}
                rangeFrom={isInside ? range.left : -1}
                rangeTo={isInside ? range.right : -2}
                editing={isHere && editing}
                isWhole={row.index < wholeTo}
                hands={hands}
              />
            );
          })}
        </div>
      </div>
    </>
  );
}

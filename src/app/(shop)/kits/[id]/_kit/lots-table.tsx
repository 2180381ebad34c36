'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { type ClipboardEvent, type KeyboardEvent, useCallback, useMemo, useRef, useState } from 'react';
import type { LotView } from '@/services/kits/find-kit';
import { gridOf, type LotColumn, type Order } from './columns';
import { LotFoot } from './lot-foot';
import { LotRow, money, type RowDeeds } from './lot-row';
import { cellText, isWritten, readCell } from './read-cell';
import type { ShownRow } from './shown-rows';
import type { LotChange } from './use-lots';

const rowHeight = 36;
const sorted: Partial<Record<LotColumn['id'], Order>> = {
  name: 'name',
  finish: 'finish',
  sort: 'sort',
  place: 'place',
  value: 'value',
  price: 'price',
  pieces: 'pieces',
};

type Props = {
  rows: readonly ShownRow[];
  lotOf: (id: number) => LotView | undefined;
  columns: readonly LotColumn[];
  isOpen: boolean;
  marked: ReadonlySet<number>;
  markAll: () => void;
  fullPlaces: ReadonlySet<string>;
  costOf: (id: number) => number | null;
  order: { by: Order; isDown: boolean; set: (by: Order) => void };
  deeds: RowDeeds;
};

/**
 * All lots, however many: only those in view are there. Enter and the arrows go up and down a column, Ctrl D takes over
 * what stands above, and what is pasted with several lines fills down.
 */
export function LotsTable({ rows, lotOf, columns, isOpen, marked, markAll, fullPlaces, costOf, order, deeds }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const [focused, setFocused] = useState<number | null>(null);
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 6,
  });
  const grid = useMemo(() => gridOf(columns), [columns]);
  /** The next row that is a lot, that way. */
  const next = useCallback(
    (from: number, by: 1 | -1): number | null => {
      for (let at = from + by; at >= 0 && at < rows.length; at += by) if (rows[at]?.is === 'lot') return at;
      return null;
    },
    [rows],
  );
  const lotAt = (at: number | null) => {
    const row = at === null ? undefined : rows[at];
    return row?.is === 'lot' ? lotOf(row.id) : undefined;
  };
  const go = (at: number, column: string) => {
    const reach = (): boolean => {
      const cell = scroller.current?.querySelector<HTMLInputElement>(
        `input[data-row="${at}"][data-column="${column}"]`,
      );
      cell?.focus();
      cell?.select();
      return cell !== undefined && cell !== null;
    };
    virtual.scrollToIndex(at);
    // At once, where it is drawn already: who types fast types on before the next frame.
    if (!reach()) requestAnimationFrame(reach);
  };
  const onKey = (event: KeyboardEvent) => {
    const { target } = event;
    if (!(target instanceof HTMLInputElement) || target.dataset.row === undefined) return;
    const column = target.dataset.column ?? '';
    const from = Number(target.dataset.row);
    if (event.key.toLowerCase() === 'd' && (event.ctrlKey || event.metaKey) && isWritten(column)) {
      event.preventDefault();
      const [above, lot] = [lotAt(next(from, -1)), lotAt(from)];
      const read = above && lot ? readCell(lot, column, cellText(above, column)) : null;
      if (lot && read && 'set' in read) deeds.write(lot.id, read.set);
      return;
    }
    const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' || event.key === 'Enter' ? 1 : 0;
    const to = by === 0 ? null : next(from, by);
    if (to === null) return;
    event.preventDefault();
    go(to, column);
  };
  const onPaste = (event: ClipboardEvent) => {
    const { target } = event;
    const column = target instanceof HTMLInputElement ? (target.dataset.column ?? '') : '';
    const lines = event.clipboardData
      .getData('text/plain')
      .replace(/\r?\n$/, '')
      .split(/\r?\n/);
    if (!(target instanceof HTMLInputElement) || lines.length < 2 || !isWritten(column)) return;
    event.preventDefault();
    let at: number | null = Number(target.dataset.row);
    const changes = new Map<number, LotChange>();
    for (const line of lines) {
      const lot = lotAt(at);
      if (!lot || at === null) break;
      const read = readCell(lot, column, line);
      if ('set' in read) changes.set(lot.id, read.set);
      at = next(at, 1);
    }
    deeds.writeAll(changes);
  };
  const isAll = marked.size > 0 && rows.every((row) => row.is === 'group' || marked.has(row.id));
  return (
    <>
      {/* biome-ignore lint/a11y/noStaticElementInteractions: keys of the fields within it */}
      <div
        ref={scroller}
        className="min-h-0 flex-1 overflow-auto max-lg:h-[70dvh]"
        onKeyDown={onKey}
        onPaste={onPaste}
        onFocus={({ target }) => {
          const row = target.closest<HTMLElement>('[data-lot]');
          if (row) setFocused(Number(row.dataset.lot));
        }}
      >
        <div role="table" aria-label="Lots" aria-rowcount={rows.length + 1} className="min-w-[1000px]">
          <div
            role="row"
            className="sticky top-0 z-10 grid items-center gap-2 bg-base-200 px-4 py-1.5 text-[12px] font-medium"
            style={{ gridTemplateColumns: grid }}
          >
            <span role="columnheader">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                aria-label="Choose all that are shown"
                checked={isAll}
                onChange={markAll}
              />
            </span>
            {columns.map(({ id, head, isRight }) => {
              const by = sorted[id];
              const isBy = by !== undefined && order.by === by;
              return (
                <span
                  key={id}
                  role="columnheader"
                  aria-sort={isBy ? (order.isDown ? 'descending' : 'ascending') : undefined}
                  className={isRight ? 'pr-2 text-right' : ''}
                >
                  {by ? (
                    <button type="button" className="font-medium hover:underline" onClick={() => order.set(by)}>
                      {head}
                      {isBy ? (order.isDown ? ' ↓' : ' ↑') : ''}
                    </button>
                  ) : (
                    head
                  )}
                </span>
              );
            })}
          </div>
          <div className="relative" style={{ height: virtual.getTotalSize() }}>
            {virtual.getVirtualItems().map(({ index, start }) => {
              const row = rows[index];
              if (row?.is === 'group')
                return (
                  <div
                    key={`group ${row.key}`}
                    role="row"
                    className="absolute inset-x-0 flex h-9 items-end gap-4 border-b border-base-300 bg-base-100 px-4 pb-1.5 font-medium"
                    style={{ transform: `translateY(${start}px)` }}
                  >
                    <span role="cell">{row.words}</span>
                    <span role="cell" className="quiet figures text-[12px] font-normal">
                      {row.lots.toLocaleString('en')} lots, {row.pieces.toLocaleString('en')} pieces, {money(row.value)}
                    </span>
                  </div>
                );
              const lot = row && lotOf(row.id);
              return lot ? (
                <LotRow
                  key={lot.id}
                  lot={lot}
                  at={index}
                  top={start}
                  columns={columns}
                  grid={grid}
                  isOpen={isOpen}
                  isMarked={marked.has(lot.id)}
                  isFull={lot.place !== '' && fullPlaces.has(lot.place)}
                  cost={costOf(lot.id)}
                  deeds={deeds}
                />
              ) : null;
            })}
          </div>
        </div>
      </div>
      <LotFoot lot={focused === null ? undefined : lotOf(focused)} />
    </>
  );
}

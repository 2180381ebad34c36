'use client';

import { useVirtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, useCallback, useRef } from 'react';
import type { LotView } from '@/services/kits/find-kit';
import { LotRow, lotColumns } from './lot-row';
import type { LotChange } from './use-lots';

const rowHeight = 36;
const heads = ['Lot', 'Finish', 'Pieces', 'Price', 'Value', 'Place', 'Comment for buyers', 'State'];

type Props = {
  kitId: number;
  lots: LotView[];
  isOpen: boolean;
  write: (lotId: number, set: LotChange) => void;
};

/** All lots, however many: only those in view are there. Enter and the arrows go up and down a column. */
export function LotsTable({ kitId, lots, isOpen, write }: Props) {
  const scroller = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count: lots.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => rowHeight,
    overscan: 6,
  });
  const move = useCallback(
    (event: KeyboardEvent) => {
      const { target } = event;
      const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' || event.key === 'Enter' ? 1 : 0;
      if (by === 0 || !(target instanceof HTMLInputElement)) return;
      const at = Number(target.dataset.row) + by;
      if (at < 0 || at >= lots.length) return;
      event.preventDefault();
      virtual.scrollToIndex(at);
      // The row may only be drawn after this.
      requestAnimationFrame(() => {
        const next = scroller.current?.querySelector<HTMLInputElement>(
          `input[data-row="${at}"][data-column="${target.dataset.column}"]`,
        );
        next?.focus();
        next?.select();
      });
    },
    [lots.length, virtual],
  );
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: keys of the fields within it
    <div ref={scroller} className="min-h-0 flex-1 overflow-auto max-lg:h-[70dvh]" onKeyDown={move}>
      <div role="table" aria-label="Lots" aria-rowcount={lots.length + 1} className="min-w-[1000px]">
        <div
          role="row"
          className="sticky top-0 z-10 grid gap-2 bg-base-200 px-4 py-1.5 text-[12px] font-medium"
          style={{ gridTemplateColumns: lotColumns }}
        >
          {heads.map((head) => (
            <span key={head} role="columnheader" className={/Pieces|Price|Value/.test(head) ? 'pr-2 text-right' : ''}>
              {head}
            </span>
          ))}
        </div>
        <div className="relative" style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map(({ index, start }) => {
            const lot = lots[index];
            return lot ? (
              <LotRow
                key={lot.id}
                kitId={kitId}
                lot={lot}
                at={index}
                top={start}
                isOpen={isOpen && lot.state !== 'done'}
                write={write}
              />
            ) : null;
          })}
        </div>
      </div>
    </div>
  );
}

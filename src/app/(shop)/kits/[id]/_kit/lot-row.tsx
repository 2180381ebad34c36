'use client';

import { memo } from 'react';
import { amountToText, formatMoney, homeCurrency, parseAmount } from '@/core/measure/money';
import type { LotView } from '@/services/kits/find-kit';
import { Link } from '@/ui/controls/link';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { LotCell } from './lot-cell';
import type { LotChange } from './use-lots';

/** Widths of the columns, for the heads as well. */
export const lotColumns = 'minmax(220px,2fr) 90px 80px 100px 90px 120px minmax(140px,1fr) 150px';
const stateWords = { open: 'open', later: 'kept for later', out: 'taken out' } as const;
const pieces = /^\d{1,7}$/;

type Props = {
  kitId: number;
  lot: LotView;
  at: number;
  top: number;
  isOpen: boolean;
  write: (lotId: number, set: LotChange) => void;
};

/** Where the pieces of a lot are from, in words. */
const fromWords = ({ from }: LotView): string =>
  from.map((one) => `${one.quantity} ${one.kind === 'spare' ? 'spare ' : ''}in ${one.within.join(', in ')}`).join('; ');

/** One lot: its price, place and comment are written where they stand. */
export const LotRow = memo(function LotRow({ kitId, lot, at, top, isOpen, write }: Props) {
  const { id, price, quantity, from } = lot;
  const last = from.length - 1;
  const apart = useCommand(
    async () => {
      await api('POST /kits/{id}/apart', { params: { id: kitId }, body: { lot: id, at: last } });
      return undefined;
    },
    {
      touches: [
        ['kit-lots', kitId],
        ['kit', kitId],
      ],
      tells: true,
    },
  );
  const shared = { row: at, of: lot.name, isOpen };
  return (
    <div
      role="row"
      aria-rowindex={at + 2}
      className="absolute inset-x-0 grid h-9 items-center gap-2 border-b border-base-300/60 px-4"
      style={{ gridTemplateColumns: lotColumns, transform: `translateY(${top}px)` }}
    >
      <span role="cell" className="flex min-w-0 items-center gap-2" title={fromWords(lot)}>
        <span className="truncate">{lot.name}</span>
        {isOpen && from.length > 1 ? (
          <button
            type="button"
            className="btn btn-ghost btn-xs shrink-0"
            disabled={apart.busy}
            aria-label={`${lot.name}: take the last of ${from.length} joined apart`}
            onClick={() => void apart.run()}
          >
            {from.length} joined
          </button>
        ) : null}
      </span>
      <span role="cell" className="truncate">
        {lot.finish || '–'}
      </span>
      <LotCell
        {...shared}
        column="pieces"
        value={String(quantity)}
        read={(text) => (pieces.test(text) ? { set: { quantity: Number(text) } } : { why: 'A whole number of pieces' })}
        write={(set) => write(id, set)}
      />
      <LotCell
        {...shared}
        column="price"
        value={price === null ? '' : amountToText(price, homeCurrency)}
        read={(text) => {
          if (text === '') return { set: { price: null } };
          const amount = parseAmount(text, homeCurrency);
          return amount !== null && amount > 0 ? { set: { price: amount } } : { why: 'No amount; write it as in 1.50' };
        }}
        write={(set) => write(id, set)}
      />
      <span role="cell" className="figures pr-2 text-right text-[13px]">
        {price === null ? '–' : formatMoney(price * quantity, homeCurrency)}
      </span>
      <LotCell
        {...shared}
        column="place"
        value={lot.place}
        read={(text) => (text.length > 60 ? { why: 'At most 60 signs' } : { set: { place: text } })}
        write={(set) => write(id, set)}
      />
      <LotCell
        {...shared}
        column="comment"
        value={lot.comment}
        read={(text) => (text.length > 1_000 ? { why: 'At most 1,000 signs' } : { set: { comment: text } })}
        write={(set) => write(id, set)}
      />
      <span role="cell">
        {lot.item ? (
          <Link className="mono text-[12px] underline" href={`/items/${lot.item.id}`}>
            {lot.item.sku}
          </Link>
        ) : (
          <select
            className="select select-xs w-full text-[12px]"
            aria-label={`State of ${lot.name}`}
            disabled={!isOpen}
            value={lot.state}
            onChange={(event) => write(id, { state: event.target.value as keyof typeof stateWords })} // one of the options below
          >
            {Object.entries(stateWords).map(([state, words]) => (
              <option key={state} value={state}>
                {words}
              </option>
            ))}
          </select>
        )}
      </span>
    </div>
  );
});

'use client';

import { Lock, LockOpen } from 'lucide-react';
import { memo } from 'react';
import { conditionGrades, conditionLabel } from '@/core/item/condition';
import { basisWords } from '@/core/kit/lot-price';
import { formatMoney, homeCurrency } from '@/core/measure/money';
import type { LotView } from '@/services/kits/find-kit';
import { Link } from '@/ui/controls/link';
import { photoUrl } from '@/ui/data/api';
import { type LotColumn, stateWords } from './columns';
import { LotCell } from './lot-cell';
import { cellText, isWritten, readCell } from './read-cell';
import type { LotChange } from './use-lots';

export type RowDeeds = {
  write: (lotId: number, set: LotChange) => void;
  writeAll: (changes: ReadonlyMap<number, LotChange>) => void;
  mark: (lotId: number, at: number, isRange: boolean) => void;
  pieces: (lotId: number) => void;
};

type Props = {
  lot: LotView;
  at: number;
  top: number;
  columns: readonly LotColumn[];
  grid: string;
  isOpen: boolean;
  isMarked: boolean;
  /** Its place holds more than a place takes. */
  isFull: boolean;
  /** What it bears of the cost, in minor units. */
  cost: number | null;
  deeds: RowDeeds;
};

export const money = (amount: number): string => formatMoney(amount, homeCurrency);
const usual = ['open', 'later', 'out'] as const;

/** One lot: what can be written is written where it stands. */
export const LotRow = memo(function LotRow(props: Props) {
  const { lot, at, top, columns, grid, isMarked, deeds } = props;
  return (
    <div
      role="row"
      aria-rowindex={at + 2}
      data-lot={lot.id}
      className={`absolute inset-x-0 grid h-9 items-center gap-2 border-b border-base-300/60 px-4 ${isMarked ? 'bg-primary/10' : ''}`}
      style={{ gridTemplateColumns: grid, transform: `translateY(${top}px)` }}
    >
      <span role="cell">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          aria-label={`Choose ${lot.name} ${lot.finish}`.trim()}
          checked={isMarked}
          onClick={(event) => deeds.mark(lot.id, at, event.shiftKey)}
          onChange={() => undefined}
        />
      </span>
      {columns.map((column) => (
        <span key={column.id} role="cell" className={`min-w-0 ${column.isRight ? 'figures text-right' : ''}`}>
          <Cell {...props} column={column} />
        </span>
      ))}
    </div>
  );
});

function Cell({ column, ...props }: Props & { column: LotColumn }) {
  const { lot, at, isOpen, cost, isFull, deeds } = props;
  const { id, price, quantity } = lot;
  const isHere = lot.state !== 'done';
  if (isWritten(column.id)) {
    const written = column.id;
    const cell = (
      <LotCell
        row={at}
        of={lot.name}
        column={written}
        value={cellText(lot, written)}
        isOpen={isOpen && (isHere || written !== 'pieces')}
        isRight={column.isRight ?? false}
        read={(text) => readCell(lot, written, text)}
        write={(set) => deeds.write(id, set)}
      />
    );
    if (written === 'price') return <PriceCell {...props}>{cell}</PriceCell>;
    if (written === 'place' && isFull)
      return (
        <span className="relative block" title="More lies here than a place takes">
          {cell}
          <span className="absolute -top-1 right-0 rounded bg-warning px-1 text-[10px] text-warning-content">full</span>
        </span>
      );
    return cell;
  }
  switch (column.id) {
    case 'name':
      return (
        <span className="flex min-w-0 items-center gap-2">
          {lot.item?.photo ? (
            <img src={photoUrl(lot.item.photo, 'thumb')} alt="" className="size-7 shrink-0 rounded object-cover" />
          ) : null}
          <button
            type="button"
            className="min-w-0 truncate text-left hover:underline"
            title={`${lot.name}: what it is made of, and what is missing or damaged`}
            onClick={() => deeds.pieces(id)}
          >
            {lot.name}
          </button>
          {lot.from.length > 1 ? <span className="quiet shrink-0 text-[12px]">{lot.from.length} joined</span> : null}
        </span>
      );
    case 'condition':
      return isOpen && isHere ? (
        <select
          className="select select-xs w-full text-[12px]"
          aria-label={`Condition of ${lot.name}`}
          value={lot.condition ?? ''}
          onChange={
            (event) => deeds.write(id, { condition: (event.target.value || null) as LotView['condition'] }) // one of the options below
          }
        >
          <option value="">–</option>
          {conditionGrades.map((grade) => (
            <option key={grade.id} value={grade.id}>
              {grade.label}
            </option>
          ))}
        </select>
      ) : (
        <span className="block truncate">{conditionLabel(lot.condition) || '–'}</span>
      );
    case 'grams':
      return lot.grams === null ? '–' : `${(lot.grams * quantity).toLocaleString('en')} g`;
    case 'value':
      return price === null ? '–' : money(price * quantity);
    case 'cost':
      return cost === null ? '–' : money(cost);
    case 'state':
      return <StateCell {...props} />;
    default:
      return (
        <span className="block truncate">
          {column.id === 'sort' || column.id === 'finish' ? lot[column.id] || '–' : ''}
        </span>
      );
  }
}

/** A price with where it is from, and whether it is kept. */
function PriceCell({ lot, isOpen, deeds, children }: Props & { children: React.ReactNode }) {
  const { id, isKept, basis, price } = lot;
  const words = isKept ? 'Kept: no pricing changes it' : basis ? basisWords(basis, money) : 'Written by hand';
  return (
    <span className="flex items-center gap-1">
      {price !== null && lot.state !== 'done' ? (
        <button
          type="button"
          tabIndex={-1}
          disabled={!isOpen}
          aria-pressed={isKept}
          aria-label={`Price of ${lot.name}: ${isKept ? 'kept' : 'not kept'}`}
          title={words}
          className="btn btn-ghost btn-xs btn-square shrink-0"
          onClick={() => deeds.write(id, { isKept: !isKept })}
        >
          {isKept ? (
            <Lock size={11} aria-hidden="true" />
          ) : basis ? (
            <span className="quiet text-[11px]">{basis.count > 99 ? '99+' : basis.count}</span>
          ) : (
            <LockOpen size={11} aria-hidden="true" className="quiet" />
          )}
        </button>
      ) : null}
      <span className="min-w-0 flex-1">{children}</span>
    </span>
  );
}

function StateCell({ lot, isOpen, deeds }: Props) {
  if (lot.item)
    return (
      <span className="flex items-center gap-1 text-[12px]">
        <Link className="mono truncate underline" href={`/items/${lot.item.id}`}>
          {lot.item.sku}
        </Link>
        {lot.edited.length ? (
          <span
            className="shrink-0 rounded bg-warning/30 px-1"
            title={`Not changed there yet: ${lot.edited.join(', ')}`}
          >
            changed
          </span>
        ) : null}
      </span>
    );
  return (
    <span className="flex items-center gap-1">
      <select
        className="select select-xs w-full text-[12px]"
        aria-label={`State of ${lot.name}`}
        disabled={!isOpen}
        value={lot.state}
        onChange={(event) => deeds.write(lot.id, { state: event.target.value as (typeof usual)[number] })} // one of the options below
      >
        {usual.map((state) => (
          <option key={state} value={state}>
            {state === 'open' && lot.meant === 'change' ? 'changes stock' : stateWords[state]}
          </option>
        ))}
      </select>
    </span>
  );
}

'use client';

import { useEffect, useRef, useState } from 'react';
import { itemField } from '@/core/field/catalogue';
import { choicesOf } from '@/core/field/kind';
import type { FoundItem } from '@/services/records/items/find-items';
import { api } from '@/ui/data/api';
import { stockMove } from '@/ui/data/stock-move';
import { cellText } from './cells';
import type { Column } from './columns';

type Props = {
  item: FoundItem;
  column: Extract<Column, { kind: 'field' }>;
  /** The key with which one began to type; what stood there is kept when left out. */
  begun?: string;
  /** Writes what was typed; a problem in words, nothing when it went well. */
  write: (text: string) => Promise<string | null>;
  done: (saved: boolean) => void;
};

/** What typing into the stock cell means: `+3` and `-1` add and take away, a bare number sets. */
export function readStock(text: string, now: number): { how: 'add' | 'set'; units: number; result: number } | null {
  const hit = /^\s*([+-])?\s*(\d{1,6})\s*$/.exec(text);
  if (!hit) return null;
  const number = Number(hit[2]);
  if (hit[1])
    return { how: 'add', units: hit[1] === '-' ? -number : number, result: now + (hit[1] === '-' ? -number : number) };
  return { how: 'set', units: number, result: number };
}

/** Edits one cell in its place: Enter saves, Esc leaves. */
export function CellEditor({ item, column, begun, write, done }: Props) {
  const [text, setText] = useState(begun ?? cellText(item, column));
  const [problem, setProblem] = useState('');
  const input = useRef<HTMLInputElement & HTMLSelectElement>(null);
  useEffect(() => {
    input.current?.focus();
    if (begun === undefined && input.current?.tagName === 'INPUT') input.current.select();
  }, [begun]);
  const stock = column.id === 'quantity' ? readStock(text, item.quantity) : null;
  const kind = itemField(column.id)?.kind;

  const save = async (typed: string) => {
    try {
      if (column.id === 'quantity' && !stock) return setProblem('Type a number, +3 or -1');
      // What is added is a movement with a sign of its own, whatever was sold meanwhile.
      if (stock?.how === 'add')
        await api('POST /items/{id}/stock', { params: { id: item.id }, body: stockMove(stock.how, stock.units) });
      else {
        const wrong = await write(typed);
        if (wrong) return setProblem(wrong);
      }
      done(true);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'Not saved');
    }
  };
  const shared = {
    ref: input,
    'aria-label': `${itemField(column.id)?.label ?? column.label} of ${item.sku}`,
    'aria-invalid': problem ? true : undefined,
    onBlur: () => done(false),
    onKeyDown: (event: React.KeyboardEvent) => {
      event.stopPropagation();
      if (event.key === 'Enter') void save(text);
      if (event.key === 'Escape') done(false);
    },
  };

  return (
    <div className="relative w-full">
      {kind?.is === 'choice' ? (
        <select
          {...shared}
          className="select select-xs w-full"
          value={choicesOf(kind).find((one) => one.label === text || one.id === text)?.id ?? ''}
          onChange={(event) => {
            setText(event.target.value);
            void save(event.target.value);
          }}
        >
          <option value="">–</option>
          {choicesOf(kind).map((one) => (
            <option key={one.id} value={one.id}>
              {one.label}
            </option>
          ))}
        </select>
      ) : (
        <input
          {...shared}
          className="input input-xs w-full"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      )}
      {problem || stock ? (
        <div
          role={problem ? 'alert' : 'status'}
          className={`absolute top-7 right-0 z-20 rounded border border-base-300 bg-base-100 px-2 py-1 whitespace-nowrap shadow ${problem ? 'text-error' : ''}`}
        >
          {problem ||
            (stock
              ? `${stock.how === 'add' ? 'Add to stock' : 'Set stock'}: ${item.quantity} becomes ${stock.result}`
              : '')}
        </div>
      ) : null}
    </div>
  );
}

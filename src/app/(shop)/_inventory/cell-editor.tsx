'use client';

import { useEffect, useRef, useState } from 'react';
import { amountToText, parseAmount } from '@/core/measure/money';
import type { FoundItem } from '@/services/records/find-items';
import { api } from '@/ui/data/api';
import { stockMove } from '@/ui/data/stock-move';

type Props = { item: FoundItem; field: 'title' | 'price' | 'quantity' | 'location'; done: (saved: boolean) => void };

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
export function CellEditor({ item, field, done }: Props) {
  const first =
    field === 'price' ? (item.price === null ? '' : amountToText(item.price, item.currency)) : String(item[field]);
  const [text, setText] = useState(first);
  const [problem, setProblem] = useState('');
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => input.current?.select(), []);
  const stock = field === 'quantity' ? readStock(text, item.quantity) : null;

  const save = async () => {
    try {
      if (field === 'quantity') {
        if (!stock) return setProblem('Type a number, +3 or -1');
        await api('POST /items/{id}/stock', { params: { id: item.id }, body: stockMove(stock.how, stock.units) });
      } else {
        const value = field === 'price' ? (text.trim() === '' ? null : parseAmount(text, item.currency)) : text;
        if (field === 'price' && text.trim() !== '' && value === null) return setProblem('This is not an amount');
        await api('PATCH /items/{id}', {
          params: { id: item.id },
          body: { baseVersion: item.version, patch: { [field]: value } },
        });
      }
      done(true);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'Not saved');
    }
  };

  return (
    <div className="relative w-full">
      <input
        ref={input}
        aria-label={`${field === 'quantity' ? 'Stock' : field} of ${item.sku}`}
        className="input input-xs w-full"
        value={text}
        onChange={(event) => setText(event.target.value)}
        onBlur={() => done(false)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Enter') void save();
          if (event.key === 'Escape') done(false);
        }}
      />
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

'use client';

import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import type { Item } from '@/core/item/item';
import { api } from '@/ui/data/api';
import { stockMove } from '@/ui/data/stock-move';
import { useCommand } from '@/ui/data/use-command';
import { usePageActions } from '@/ui/frame/actions';

const StockLedger = dynamic(() => import('../stock-ledger').then((module) => module.StockLedger));

/** Adding to the stock and setting it are two different things: two buttons, and the result is said before. */
export function StockCell({ item, moved }: { item: Item; moved: () => void }) {
  const [text, setText] = useState('');
  const [ledger, setLedger] = useState(false);
  // By keyboard it has a key of its own, so that Tab goes straight on to the next field.
  usePageActions(
    useMemo(
      () => [{ label: 'Stock ledger', hint: 'Movements, sold by hand', keys: 'Alt L', run: () => setLedger(true) }],
      [],
    ),
  );
  const units = /^-?\d{1,6}$/.test(text.trim()) ? Number(text) : null;
  const act = useCommand(
    async (how: 'add' | 'set') => {
      if (units === null) return undefined;
      const { quantity } = await api('POST /items/{id}/stock', {
        params: { id: item.id },
        body: stockMove(how, units),
      });
      setText('');
      moved();
      return `Stock is ${quantity} now`;
    },
    { touches: [['sheet'], ['stock'], ['items']] },
  );
  return (
    <div>
      <div className="flex items-center gap-1">
        <span className="figures w-8 font-medium" data-testid="stock">
          {item.quantity}
        </span>
        <input
          aria-label="Units"
          className="input input-sm figures w-14"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
        <button
          type="button"
          className="btn btn-sm px-1.5 font-normal"
          disabled={units === null}
          onClick={() => void act.run('add')}
        >
          Add{units === null ? '' : ` → ${item.quantity + units}`}
        </button>
        <button
          type="button"
          className="btn btn-sm px-1.5 font-normal"
          disabled={units === null || units < 0}
          onClick={() => void act.run('set')}
        >
          Set{units === null ? '' : ` → ${units}`}
        </button>
        <button
          type="button"
          tabIndex={-1}
          className="btn btn-ghost btn-sm px-1.5 font-normal"
          onClick={() => setLedger(true)}
        >
          Ledger
        </button>
      </div>
      {ledger ? <StockLedger item={item} close={() => setLedger(false)} moved={moved} /> : null}
      {act.problem ? (
        <p role="alert" className="text-error">
          {act.problem}
        </p>
      ) : null}
    </div>
  );
}

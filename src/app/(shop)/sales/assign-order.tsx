'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { combinationWords } from '@/core/item/variations';
import type { SaleView } from '@/services/stock/find-sales';
import { Dialog } from '@/ui/controls/dialog';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** An order that fits no item, or none of its combinations: a person says what was sold, and it leaves the stock. */
export function AssignOrder({ sale, done }: { sale: SaleView; done: () => void }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="btn btn-xs btn-warning" onClick={() => setOpen(true)}>
        Assign
      </button>
      {open ? <Choose sale={sale} close={() => setOpen(false)} done={done} /> : null}
    </>
  );
}

function Choose({ sale, close, done }: { sale: SaleView; close: () => void; done: () => void }) {
  const [words, setWords] = useState(sale.sku || sale.title);
  const [chosen, setChosen] = useState(sale.itemId);
  const [combination, setCombination] = useState('');
  const found = useQuery({
    queryKey: ['items', 'assign', words],
    queryFn: () => api('GET /items', { query: { q: words, limit: 20 } }),
    enabled: words.trim().length > 1,
  });
  const sheet = useQuery({
    queryKey: ['items', chosen],
    queryFn: () => api('GET /items/{id}', { params: { id: chosen ?? 0 } }),
    enabled: chosen !== null,
  });
  const item = sheet.data?.item.id === chosen ? sheet.data?.item : undefined;
  const assign = useCommand(
    async () => {
      if (!item) return '';
      const answer = await api('POST /sales/{id}/assign', {
        params: { id: sale.id },
        body: { item: item.id, combination: combination || undefined },
      });
      done();
      close();
      return answer.oversold
        ? `Assigned; it is oversold, ${answer.quantity} in stock now`
        : `Assigned; ${answer.quantity} in stock now`;
    },
    { tells: true },
  );
  return (
    <Dialog title={`What was sold in order ${sale.orderId}?`} close={close}>
      <p className="mb-2">
        {sale.quantity} × {sale.title}
        {sale.variation ? `, ${sale.variation}` : ''}
        <span className="quiet"> {sale.sku}</span>
      </p>
      <label className="block">
        <span className="quiet text-[12px]">Search the inventory</span>
        <input
          data-first
          className="input input-sm w-full"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
      </label>
      <ul className="my-2 max-h-56 overflow-auto rounded border border-base-300" aria-label="Items found">
        {found.data?.items.map((one) => (
          <li key={one.id}>
            <button
              type="button"
              aria-pressed={one.id === chosen}
              className={`w-full px-2 py-1 text-left hover:bg-base-200 ${one.id === chosen ? 'bg-base-200 font-medium' : ''}`}
              onClick={() => {
                setChosen(one.id);
                setCombination('');
              }}
            >
              {one.title || one.sku} <span className="quiet">{one.sku}</span>
            </button>
          </li>
        ))}
        {found.data?.items.length === 0 ? <li className="quiet px-2 py-1">Nothing of that name</li> : null}
        {found.isError ? <li className="px-2 py-1 text-error">The inventory could not be searched</li> : null}
      </ul>
      {item && item.axes.length > 0 ? (
        <label className="block">
          <span className="quiet text-[12px]">Which of its variations</span>
          <select
            className="select select-sm w-full"
            value={combination}
            onChange={(event) => setCombination(event.target.value)}
          >
            <option value="">Choose one</option>
            {item.variations.map((one) => (
              <option key={one.key} value={one.key}>
                {combinationWords(one.values)}: {one.quantity} in stock
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {assign.problem ? (
        <p role="alert" className="mt-2 text-error">
          {assign.problem}
        </p>
      ) : null}
      <button
        type="button"
        className="btn btn-sm btn-primary mt-3"
        disabled={!item || (item.axes.length > 0 && !combination)}
        onClick={() => void assign.run()}
      >
        Assign and take it from stock
      </button>
    </Dialog>
  );
}

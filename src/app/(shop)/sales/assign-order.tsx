'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { combinationWords } from '@/core/item/variations';
import type { SaleView } from '@/services/stock/find-sales';
import { Dialog } from '@/ui/controls/dialog';
import { ItemFinder } from '@/ui/controls/item-finder';
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
  const [chosen, setChosen] = useState(sale.itemId);
  const [combination, setCombination] = useState('');
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
      <ItemFinder
        words={sale.sku || sale.title}
        chosen={chosen}
        choose={(id) => {
          setChosen(id);
          setCombination('');
        }}
      />
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

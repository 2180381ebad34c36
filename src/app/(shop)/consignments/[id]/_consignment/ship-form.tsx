'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { amountToText, homeCurrency, parseAmount } from '@/core/measure/money';
import { Price } from '@/ui/controls/format';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';
import type { Shipment } from './view';

/** Who carries it, at what price, and under which numbers: then it is on its way. */
export function ShipForm({ shipment, consignmentId }: { shipment: Shipment; consignmentId: number }) {
  const { id, boxes, warehouseName } = shipment;
  const quotes = useQuery({
    queryKey: ['shipment-quotes', id, shipment.version],
    queryFn: () => api('GET /shipments/{id}/quotes', { params: { id } }),
  });
  const [chosen, setChosen] = useState<string | null>(null);
  const all = quotes.data?.quotes ?? [];
  const quote = all.find((one) => one.carrier === chosen) ?? all[0];
  const [problem, setProblem] = useState('');
  const ship = useCommand(
    async (form: FormData) => {
      const postage = parseAmount(String(form.get('postage') ?? ''), homeCurrency);
      setProblem(postage === null ? 'What it costs is not understood; write it as in 12.40' : '');
      if (postage === null) return undefined;
      const tracking = boxes.map((box) => String(form.get(`tracking-${box.number}`) ?? '').trim());
      const carrier = String(form.get('carrier') ?? '').trim();
      await api('POST /shipments/{id}/ship', { params: { id }, body: { carrier, postage, tracking } });
      return `On the way to ${warehouseName}`;
    },
    { touches: [['consignment', consignmentId], ['consignments'], ['stages']] },
  );
  return (
    <form
      aria-label={`Ship to ${warehouseName}`}
      className="space-y-2 rounded bg-base-200 p-3"
      onSubmit={submitted((form) => void ship.run(form))}
    >
      {all.length ? (
        <fieldset className="flex flex-wrap gap-2">
          <legend className="quiet mb-1 text-[12px]">What carriers ask for these boxes</legend>
          {all.map((one) => (
            <button
              key={one.carrier}
              type="button"
              aria-pressed={one === quote}
              className={`btn btn-xs ${one === quote ? 'btn-active' : ''}`}
              onClick={() => setChosen(one.carrier)}
            >
              {one.name} <Price amount={one.amount} />
            </button>
          ))}
        </fieldset>
      ) : (
        <p className="quiet text-[12px]">
          {quotes.isPending ? 'Asking the carriers …' : 'No carrier of yours takes these boxes; write who does.'}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <label className="text-[12px]">
          Carrier
          <input
            key={`carrier ${quote?.carrier}`}
            name="carrier"
            required
            maxLength={80}
            defaultValue={quote?.name ?? ''}
            className="input input-sm w-44"
          />
        </label>
        <label className="text-[12px]">
          Postage in all, {homeCurrency}
          <input
            key={`postage ${quote?.carrier}`}
            name="postage"
            required
            inputMode="decimal"
            defaultValue={quote ? amountToText(quote.amount, homeCurrency) : ''}
            className="input input-sm figures w-32"
          />
        </label>
        {boxes.map((box) => (
          <label key={box.number} className="text-[12px]">
            Tracking of box {box.number}
            <input name={`tracking-${box.number}`} required maxLength={60} className="input input-sm mono w-44" />
          </label>
        ))}
      </div>
      {problem || ship.problem ? (
        <p role="alert" className="text-error">
          {problem || ship.problem}
        </p>
      ) : null}
      <button type="submit" className="btn btn-primary btn-sm" disabled={ship.busy}>
        It is on its way
      </button>
    </form>
  );
}

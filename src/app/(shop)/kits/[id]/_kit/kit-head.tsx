'use client';

import { formatMoney, homeCurrency } from '@/core/measure/money';
import type { KitView } from '@/services/kits/find-kit';
import { Link } from '@/ui/controls/link';
import { api } from '@/ui/data/api';
import { countedAre } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';

const shareWords = { price: 'by price', weight: 'by weight', number: 'by number' } as const;

/** What the sets come to, and what is done with them. */
export function KitHead({ kit, add }: { kit: KitView; add: () => void }) {
  const { id, totals, version, totalCost } = kit;
  const touches = [['kit', id], ['kit-lots', id], ['kits'], ['stages']];
  const change = useCommand(
    async (set: { state?: KitView['state']; shareBy?: KitView['shareBy'] }) => {
      await api('PATCH /kits/{id}', { params: { id }, body: { baseVersion: version, ...set } });
      return undefined;
    },
    { touches, tells: true },
  );
  const stock = useCommand(
    async () => {
      let made = 0;
      for (let left = 1; left > 0; ) {
        const step = await api('POST /kits/{id}/stock', { params: { id }, body: {} });
        made += step.made;
        left = step.made === 0 ? 0 : step.left;
      }
      return `${countedAre(made, 'lot')} in stock now`;
    },
    { touches, tells: true },
  );
  const isOpen = kit.state === 'open';
  const money = (amount: number) => formatMoney(amount, homeCurrency);
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-base-300 px-4 py-2">
      <Link className="link text-[12px]" href="/kits">
        Sets
      </Link>
      <h1 className="text-lg font-semibold">{kit.name}</h1>
      <dl aria-label="Totals" className="figures flex flex-wrap gap-x-4 text-[13px]">
        {[
          ['Lots', totals.lots.toLocaleString('en')],
          ['Pieces', totals.pieces.toLocaleString('en')],
          ['Weight', `${(totals.grams / 1_000).toLocaleString('en', { maximumFractionDigits: 1 })} kg`],
          ['Value', money(totals.value)],
          ['Cost', totalCost === null ? '–' : money(totalCost)],
          ['Without a price', totals.unpriced.toLocaleString('en')],
          ['Ready', totals.ready.toLocaleString('en')],
          ['In stock', totals.done.toLocaleString('en')],
        ].map(([name, value]) => (
          <div key={name} className="flex gap-1">
            <dt className="quiet">{name}</dt>
            <dd className="font-medium">{value}</dd>
          </div>
        ))}
      </dl>
      <div className="ml-auto flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2 text-[12px] whitespace-nowrap">
          Cost shared
          <select
            className="select select-xs w-28 text-[12px]"
            value={kit.shareBy}
            disabled={!isOpen || change.busy}
            onChange={(event) => void change.run({ shareBy: event.target.value as KitView['shareBy'] })} // one of the options below
          >
            {Object.entries(shareWords).map(([way, words]) => (
              <option key={way} value={way}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <button type="button" className="btn btn-sm" disabled={!isOpen} onClick={add}>
          Add contents
        </button>
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={!isOpen || stock.busy || totals.ready === 0}
          onClick={() => void stock.run()}
        >
          {stock.busy
            ? 'Going into stock …'
            : totals.ready === 0
              ? 'Put into stock'
              : `Put ${totals.ready.toLocaleString('en')} into stock`}
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={change.busy}
          onClick={() => void change.run({ state: isOpen ? 'closed' : 'open' })}
        >
          {isOpen ? 'Close' : 'Open again'}
        </button>
      </div>
    </div>
  );
}

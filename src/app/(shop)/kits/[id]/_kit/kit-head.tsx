'use client';

import { Pencil, Plus } from 'lucide-react';
import { formatMoney, homeCurrency } from '@/core/measure/money';
import type { KitView } from '@/services/kits/find-kit';
import { AsFile } from '@/ui/controls/as-file';
import { Link } from '@/ui/controls/link';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

const shareWords = { price: 'by price', weight: 'by weight', number: 'by number' } as const;
export type Opened = 'contents' | 'prices' | 'stock' | 'there' | 'whole' | 'steps' | 'drawers';

type Props = {
  kit: KitView;
  totals: KitView['totals'];
  /** Lots in stock that are written otherwise here. */
  changed: number;
  open: (what: Opened) => void;
};

/** What the sets come to, and what is done with them. */
export function KitHead({ kit, totals, changed, open }: Props) {
  const { id, version, totalCost } = kit;
  const change = useCommand(
    async (set: { state?: KitView['state']; shareBy?: KitView['shareBy'] }) => {
      await api('PATCH /kits/{id}', { params: { id }, body: { baseVersion: version, ...set } });
      return undefined;
    },
    { touches: [['kit', id], ['kits']], tells: true },
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
      <div className="flex flex-wrap items-center gap-2 lg:w-full">
        <button type="button" className="btn btn-sm" disabled={!isOpen} onClick={() => open('contents')}>
          Add contents
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={!isOpen || totals.lots === 0}
          onClick={() => open('prices')}
        >
          Prices
        </button>
        <button type="button" className="btn btn-sm" disabled={totals.lots === 0} onClick={() => open('whole')}>
          In parts or whole
        </button>
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
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          disabled={change.busy}
          onClick={() => void change.run({ state: isOpen ? 'closed' : 'open' })}
        >
          {isOpen ? 'Close the list' : 'Open again'}
        </button>
        {/* Two actions that must not be taken for one another: one fills the stock, one only writes in it. */}
        <button
          type="button"
          className="btn btn-primary btn-sm ml-auto"
          disabled={!isOpen || totals.ready === 0}
          onClick={() => open('stock')}
        >
          <Plus size={15} aria-hidden="true" />
          Add {totals.ready.toLocaleString('en')} to stock
        </button>
        <button
          type="button"
          className="btn btn-outline btn-warning btn-sm"
          disabled={!isOpen || changed === 0}
          onClick={() => open('there')}
        >
          <Pencil size={14} aria-hidden="true" />
          Change {changed.toLocaleString('en')} in stock
        </button>
        <AsFile of="GET /kits/{id}/lots/file" what="The lots" params={{ id }} />
      </div>
    </div>
  );
}

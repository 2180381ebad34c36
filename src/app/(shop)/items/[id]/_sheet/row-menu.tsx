'use client';

import { ArrowDown, ArrowUp, Rows3 } from 'lucide-react';
import { useState } from 'react';
import { arranged, type RowPlan } from '@/core/item/row-plan';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import type { SheetRow } from './rows';

type Props = { category: string; rows: SheetRow[]; plan: RowPlan | null; again: () => Promise<unknown> };

/** Which rows the sheet shows for items of this category, and in which order; kept for the whole shop. */
export function RowMenu({ category, rows, plan: kept, again }: Props) {
  /** As it was just chosen, until the shop has it. */
  const [chosen, setChosen] = useState<RowPlan | null | undefined>(undefined);
  const plan = chosen === undefined ? kept : chosen;
  const [isOpen, setOpen] = useState(false);
  const keep = useCommand(
    async (next: RowPlan | null) => {
      setChosen(next);
      try {
        await api('PUT /settings/rows', { body: { category, plan: next } });
        await again();
      } finally {
        setChosen(undefined);
      }
      return undefined;
    },
    { touches: [['settings']], tells: true },
  );
  const all = arranged(rows, plan?.order ?? []);
  const hidden = plan?.hidden ?? [];
  const order = all.map((row) => row.id);
  const move = (at: number, by: number) => {
    const next = [...order];
    const [id] = next.splice(at, 1);
    if (id === undefined) return;
    next.splice(at + by, 0, id);
    void keep.run({ hidden, order: next });
  };
  const shown = all.length - hidden.filter((id) => order.includes(id)).length;
  return (
    <details className="relative" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="btn btn-sm list-none">
        <Rows3 size={14} aria-hidden="true" /> {shown} rows
      </summary>
      {isOpen ? (
        <div className="absolute right-0 z-30 mt-1 max-h-[70vh] w-80 overflow-auto rounded border border-base-300 bg-base-100 p-2 shadow-xl">
          <p className="quiet mb-1 px-1 text-[12px]">
            For {category ? `items in ${category}` : 'items without a category, and all that have no rows of their own'}
            . A hidden row shows itself while a marketplace asks for what is missing in it.
          </p>
          <button type="button" className="btn btn-xs mb-1" disabled={!plan} onClick={() => void keep.run(null)}>
            As they come
          </button>
          <ul>
            {all.map((row, at) => (
              <li key={row.id} className="flex items-center gap-1 rounded px-1 hover:bg-base-200">
                <label className="flex min-w-0 flex-1 cursor-pointer items-center gap-2 py-0.5">
                  <input
                    type="checkbox"
                    className="checkbox checkbox-xs"
                    checked={!hidden.includes(row.id)}
                    onChange={(event) =>
                      void keep.run({
                        order,
                        hidden: event.target.checked ? hidden.filter((id) => id !== row.id) : [...hidden, row.id],
                      })
                    }
                  />
                  <span className="truncate">{row.label}</span>
                  {row.market ? <span className="quiet text-[12px]">{row.market}</span> : null}
                </label>
                <button
                  type="button"
                  className="btn btn-ghost btn-xs btn-square"
                  aria-label={`${row.label} up`}
                  disabled={at === 0}
                  onClick={() => move(at, -1)}
                >
                  <ArrowUp size={12} aria-hidden="true" />
                </button>
                <button
                  type="button"
                  className="btn btn-ghost btn-xs btn-square"
                  aria-label={`${row.label} down`}
                  disabled={at === all.length - 1}
                  onClick={() => move(at, 1)}
                >
                  <ArrowDown size={12} aria-hidden="true" />
                </button>
              </li>
            ))}
          </ul>
        </div>
      ) : null}
    </details>
  );
}

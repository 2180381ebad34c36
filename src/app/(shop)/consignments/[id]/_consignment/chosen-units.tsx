'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Link } from '@/ui/controls/link';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { kilograms, type View } from './view';

type Unit = View['units'][number];

/** The items that go, each with how many; what is here is the most. */
export function ChosenUnits({ consignment }: { consignment: View }) {
  const { id, state, units } = consignment;
  const batches = useQuery({ queryKey: ['batches', 'choose'], queryFn: () => api('GET /batches') });
  const [left, setLeft] = useState<string[]>([]);
  const choose = useCommand(
    async (body: { batch: number } | { set: { item: number; quantity: number } }) => {
      setLeft((await api('POST /consignments/{id}/units', { params: { id }, body })).left);
      return undefined;
    },
    { touches: [['consignment', id]] },
  );
  const isOpen = state === 'choosing';
  const columns: Column<Unit>[] = [
    {
      id: 'item',
      head: 'Item',
      names: true,
      cell: (one) => (
        <Link className="hover:underline" href={`/items/${one.item}`}>
          <span className="mono text-[12px]">{one.sku}</span> {one.title}
        </Link>
      ),
    },
    { id: 'here', head: 'Here', align: 'right', cell: (one) => one.here },
    { id: 'there', head: 'There', align: 'right', cell: (one) => one.there },
    {
      id: 'weight',
      head: 'Weight',
      align: 'right',
      cell: (one) => (one.grams ? kilograms(one.grams) : <span className="text-warning">not known</span>),
    },
    {
      id: 'units',
      head: 'Goes',
      align: 'right',
      cell: (one) =>
        isOpen ? (
          <input
            key={one.quantity}
            type="number"
            min={0}
            max={one.here}
            defaultValue={one.quantity}
            aria-label={`How many of ${one.sku} go`}
            className="input input-xs figures w-16 text-right"
            onBlur={(event) => {
              const quantity = Number(event.target.value);
              if (Number.isInteger(quantity) && quantity !== one.quantity)
                void choose.run({ set: { item: one.item, quantity } });
              else event.target.value = String(one.quantity);
            }}
            onKeyDown={(event) => {
              if (event.key === 'Enter') event.currentTarget.blur();
            }}
          />
        ) : (
          one.quantity
        ),
    },
    {
      id: 'out',
      head: 'Leave out',
      isHeard: true,
      cell: (one) =>
        isOpen ? (
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            aria-label={`Leave ${one.sku} out`}
            onClick={() => void choose.run({ set: { item: one.item, quantity: 0 } })}
          >
            Leave out
          </button>
        ) : null,
    },
  ];
  return (
    <>
      {isOpen ? (
        <label className="flex items-center gap-2">
          <span className="quiet shrink-0">or everything of</span>
          <select
            className="select select-sm max-w-80"
            value=""
            disabled={choose.busy}
            onChange={(event) => void choose.run({ batch: Number(event.target.value) })}
          >
            <option value="">a batch …</option>
            {(batches.data?.batches ?? []).map((one) => (
              <option key={one.id} value={one.id}>
                {one.name} (B{one.id})
              </option>
            ))}
          </select>
        </label>
      ) : null}
      {choose.problem ? (
        <p role="alert" className="text-error">
          {choose.problem}
        </p>
      ) : null}
      {left.length ? <p className="text-warning">{left.join('; ')}</p> : null}
      {units.length ? (
        <DataTable rows={units} columns={columns} idOf={(one) => one.item} look="part" sticky />
      ) : (
        <p className="quiet">Nothing is chosen yet. Scan the pieces, or take a whole batch.</p>
      )}
    </>
  );
}

'use client';

import { useState } from 'react';
import type { KitView } from '@/services/kits/find-kit';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { Becomes, ComparedDialog, ComparedTable, type StockAction, WaysOver } from './compared';
import { money } from './lot-row';

const mostShown = 300;
const priced = (price: number | null | undefined) => (price === null || price === undefined ? '' : money(price));

/** Changes what is in stock by what was written here since; no piece is added. */
export function ThereDialog({ kit, marked, strangers, close, instead }: StockAction & { kit: KitView }) {
  const { id } = kit;
  const [units, setUnits] = useState(false);
  const change = useCommand(
    async (anyway: boolean) => {
      const lots = marked.length ? marked : undefined;
      await api('POST /kits/{id}/there', { params: { id }, body: { lots, anyway, units } });
      close();
      return undefined;
    },
    { touches: [['kit', id], ['tasks']] },
  );
  return (
    <ComparedDialog title="Change what is in stock" kitId={id} marked={marked} close={close}>
      {({ changes: rows }) => (
        <>
          <p>
            <strong>{rows.length.toLocaleString('en')}</strong>{' '}
            {rows.length === 1
              ? 'lot is written otherwise here than it stands in stock.'
              : 'lots are written otherwise here than they stand in stock.'}{' '}
            No piece is added.
          </p>
          <ComparedTable
            label="What is changed"
            heads={['Lot', 'In stock', 'Pieces', 'Price', 'Place', 'Written here']}
          >
            {rows.slice(0, mostShown).map((row) => (
              <tr key={row.lot}>
                <td>
                  {row.name} <span className="quiet">{row.finish}</span>
                </td>
                <td>{row.item ? <span className="mono">{row.item.sku}</span> : 'not there: it stays'}</td>
                <td className="figures text-right">
                  {units && row.edited.length === 0 ? row.quantity : (row.there?.quantity ?? '–')}
                </td>
                <td className="figures text-right">
                  <Becomes from={priced(row.there?.price)} to={priced(row.price)} />
                </td>
                <td>
                  <Becomes from={row.there?.place ?? ''} to={row.place} />
                </td>
                <td>{row.edited.join(', ') || 'a list of what is there'}</td>
              </tr>
            ))}
          </ComparedTable>
          {rows.some((row) => row.edited.length === 0) ? (
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={units}
                onChange={(event) => setUnits(event.target.checked)}
              />
              Also the pieces: there are as many then as the list says
            </label>
          ) : null}
          <WaysOver
            problem={change.problem}
            busy={change.busy}
            ways={[
              ['Add the pieces instead', instead],
              ['Change what they are the same as', () => void change.run(true)],
            ]}
          />
          <button
            type="button"
            className="btn btn-warning btn-sm"
            disabled={change.busy || rows.length + strangers === 0}
            onClick={() => void change.run(false)}
          >
            Change {(rows.length + strangers).toLocaleString('en')} in stock
          </button>
        </>
      )}
    </ComparedDialog>
  );
}

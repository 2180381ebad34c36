'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { KitView } from '@/services/kits/find-kit';
import { Dialog } from '@/ui/controls/dialog';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { money } from './lot-row';

type Props = {
  kit: KitView;
  marked: number[];
  /** How many of the marked ones are more pieces, which are not there. */
  strangers: number;
  close: () => void;
  instead: () => void;
};
const mostShown = 300;

/** Changes what is in stock by what was written here since; no piece is added. */
export function ThereDialog({ kit, marked, strangers, close, instead }: Props) {
  const { id } = kit;
  const [units, setUnits] = useState(false);
  const lots = marked.length ? marked : undefined;
  const compared = useQuery({
    queryKey: ['kit-compared', id, marked.join()],
    queryFn: () => api('POST /kits/{id}/compared', { params: { id }, body: { lots } }),
    staleTime: 0,
    gcTime: 0,
  });
  const change = useCommand(
    async (anyway: boolean) => {
      await api('POST /kits/{id}/there', { params: { id }, body: { lots, anyway, units } });
      close();
      return undefined;
    },
    { touches: [['kit', id], ['tasks']] },
  );
  const rows = compared.data?.changes ?? [];
  const isList = rows.some((row) => row.edited.length === 0);
  return (
    <Dialog title="Change what is in stock" close={close} wide>
      {compared.isPending ? <Loading what="what is in stock" /> : null}
      {compared.error ? <Failed error={compared.error} retry={() => void compared.refetch()} /> : null}
      {compared.data ? (
        <div className="space-y-3">
          <p>
            <strong>{rows.length.toLocaleString('en')}</strong> {rows.length === 1 ? 'lot is' : 'lots are'} written
            otherwise here than {rows.length === 1 ? 'it stands' : 'they stand'} in stock. No piece is added.
          </p>
          <div className="max-h-[46vh] overflow-auto rounded border border-base-300">
            <table
              className="w-full text-[13px] [&_td]:border-t [&_td]:border-base-300 [&_td]:px-3 [&_td]:py-1 [&_th]:px-3 [&_th]:py-1.5 [&_th]:text-left [&_th.text-right]:text-right"
              aria-label="What is changed"
            >
              <thead className="sticky top-0 bg-base-200">
                <tr>
                  <th>Lot</th>
                  <th>In stock</th>
                  <th className="text-right">Pieces</th>
                  <th className="text-right">Price</th>
                  <th>Place</th>
                  <th>Written here</th>
                </tr>
              </thead>
              <tbody>
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
                      {row.there && row.there.price !== null && row.there.price !== row.price ? (
                        <s className="quiet mr-1">{money(row.there.price)}</s>
                      ) : null}
                      {row.price === null ? '–' : money(row.price)}
                    </td>
                    <td>
                      {row.there?.place && row.there.place !== row.place ? (
                        <s className="quiet mr-1">{row.there.place}</s>
                      ) : null}
                      {row.place || '–'}
                    </td>
                    <td>{row.edited.join(', ') || 'a list of what is there'}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          {isList ? (
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
          {change.problem ? (
            <div role="alert" className="space-y-2 rounded border border-error p-2">
              <p>{change.problem}</p>
              <div className="flex gap-2">
                <button type="button" className="btn btn-sm" onClick={instead}>
                  Add the pieces instead
                </button>
                <button
                  type="button"
                  className="btn btn-sm"
                  disabled={change.busy}
                  onClick={() => void change.run(true)}
                >
                  Change what they are the same as
                </button>
              </div>
            </div>
          ) : null}
          <button
            type="button"
            className="btn btn-warning btn-sm"
            disabled={change.busy || rows.length + strangers === 0}
            onClick={() => void change.run(false)}
          >
            Change {(rows.length + strangers).toLocaleString('en')} in stock
          </button>
        </div>
      ) : null}
    </Dialog>
  );
}

'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { addedTo, type Joining, type placeChoices, priceChoices } from '@/core/kit/into-stock';
import type { Answer } from '@/http/interface';
import type { KitView } from '@/services/kits/find-kit';
import { Dialog } from '@/ui/controls/dialog';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { money } from './lot-row';

type Row = Answer<'POST /kits/{id}/compared'>['adds'][number];
type Props = {
  kit: KitView;
  marked: number[];
  /** How many of the marked ones speak of what is there already. */
  strangers: number;
  close: () => void;
  instead: () => void;
};

const priceWords = { kept: 'price there kept', replaced: 'price replaced', weighted: 'price weighted' } as const;
const placeWords = { kept: 'place there kept', replaced: 'place replaced' } as const;
const mostShown = 300;

/** Adds pieces to the stock: what each lot does to what is there is shown before. */
export function StockDialog({ kit, marked, strangers, close, instead }: Props) {
  const { id } = kit;
  const [joining, setJoining] = useState<Joining>({ price: 'kept', place: 'kept' });
  const [ones, setOnes] = useState<ReadonlyMap<number, Joining>>(new Map());
  const [publishes, setPublishes] = useState(false);
  const lots = marked.length ? marked : undefined;
  const compared = useQuery({
    queryKey: ['kit-compared', id, marked.join()],
    queryFn: () => api('POST /kits/{id}/compared', { params: { id }, body: { lots } }),
    staleTime: 0,
    gcTime: 0,
  });
  const rows = compared.data?.adds ?? [];
  const add = useCommand(
    async (anyway: boolean) => {
      await api('POST /kits/{id}/stock', {
        params: { id },
        body: {
          lots,
          joining,
          choices: [...ones].map(([lot, one]) => ({ lot, ...one })),
          seen: rows.map((one) => ({ lot: one.lot, item: one.item?.id ?? null })),
          anyway,
          publish: publishes,
        },
      });
      close();
      return undefined;
    },
    { touches: [['kit', id], ['tasks']] },
  );
  return (
    <Dialog title="Add pieces to the stock" close={close} wide>
      {compared.isPending ? <Loading what="what is in stock already" /> : null}
      {compared.error ? <Failed error={compared.error} retry={() => void compared.refetch()} /> : null}
      {compared.data ? (
        <div className="space-y-3">
          <p>
            <strong>{rows.length.toLocaleString('en')}</strong> {rows.length === 1 ? 'lot goes' : 'lots go'} in,{' '}
            {rows.filter((one) => one.item === null).length.toLocaleString('en')} of them new;{' '}
            {compared.data.stay.toLocaleString('en')} {compared.data.stay === 1 ? 'is' : 'are'} not ready and{' '}
            {compared.data.stay === 1 ? 'stays' : 'stay'}.
          </p>
          <div className="flex flex-wrap items-center gap-3">
            <span className="font-medium">Where the same is there already:</span>
            <Choices joining={joining} change={setJoining} of="all" />
          </div>
          <div className="max-h-[46vh] overflow-auto rounded border border-base-300">
            <table
              className="w-full text-[13px] [&_td]:border-t [&_td]:border-base-300 [&_td]:px-3 [&_td]:py-1 [&_th]:px-3 [&_th]:py-1.5 [&_th]:text-left [&_th.text-right]:text-right"
              aria-label="What is added"
            >
              <thead className="sticky top-0 bg-base-200">
                <tr>
                  <th>Lot</th>
                  <th className="text-right">Pieces</th>
                  <th className="text-right">Price</th>
                  <th>Place</th>
                  <th>Joined otherwise</th>
                </tr>
              </thead>
              <tbody>
                {rows.slice(0, mostShown).map((row) => (
                  <Line
                    key={row.lot}
                    row={row}
                    joining={ones.get(row.lot) ?? joining}
                    change={(one) => setOnes(new Map(ones).set(row.lot, one))}
                  />
                ))}
              </tbody>
            </table>
            {rows.length > mostShown ? (
              <p className="quiet p-2">And {(rows.length - mostShown).toLocaleString('en')} more, joined as all are.</p>
            ) : null}
          </div>
          {kit.accountId === null ? null : (
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={publishes}
                onChange={(event) => setPublishes(event.target.checked)}
              />
              Offer them on the marketplace of the catalogue, too
            </label>
          )}
          {strangers > 0 && !add.problem ? (
            <p className="rounded border border-warning p-2">
              {strangers.toLocaleString('en')} of the marked ones are in stock already: to change them is another thing.
            </p>
          ) : null}
          {add.problem ? (
            <div role="alert" className="space-y-2 rounded border border-error p-2">
              <p>{add.problem}</p>
              <div className="flex gap-2">
                <button type="button" className="btn btn-sm" onClick={instead}>
                  Change what is there instead
                </button>
                <button type="button" className="btn btn-sm" disabled={add.busy} onClick={() => void add.run(true)}>
                  Add the pieces once more
                </button>
              </div>
            </div>
          ) : null}
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={add.busy || (rows.length === 0 && strangers === 0)}
            onClick={() => void add.run(false)}
          >
            Add {(rows.length + strangers).toLocaleString('en')} to stock
          </button>
        </div>
      ) : null}
    </Dialog>
  );
}

function Choices({ joining, change, of }: { joining: Joining; change: (joining: Joining) => void; of: string }) {
  return (
    <>
      <select
        className="select select-xs w-40 text-[12px]"
        aria-label={`Price of ${of}`}
        value={joining.price}
        onChange={(event) => change({ ...joining, price: event.target.value as (typeof priceChoices)[number] })} // one of the options below
      >
        {priceChoices.map((one) => (
          <option key={one} value={one}>
            {priceWords[one]}
          </option>
        ))}
      </select>
      <select
        className="select select-xs w-40 text-[12px]"
        aria-label={`Place of ${of}`}
        value={joining.place}
        onChange={(event) => change({ ...joining, place: event.target.value as (typeof placeChoices)[number] })} // one of the options below
      >
        {Object.entries(placeWords).map(([one, words]) => (
          <option key={one} value={one}>
            {words}
          </option>
        ))}
      </select>
    </>
  );
}

function Line({ row, joining, change }: { row: Row; joining: Joining; change: (joining: Joining) => void }) {
  const { there, quantity, price, place } = row;
  const now = there ? addedTo(there, { quantity, price, place }, joining) : row.becomes;
  return (
    <tr>
      <td>
        {row.name} <span className="quiet">{row.finish}</span>
      </td>
      <td className="figures text-right">
        {there ? `adds ${quantity} to ${there.quantity}: ` : ''}
        <strong>{now.quantity.toLocaleString('en')}</strong>
      </td>
      <td className="figures text-right">
        {there && there.price !== null && there.price !== now.price ? (
          <s className="quiet mr-1">{money(there.price)}</s>
        ) : null}
        {now.price === null ? '–' : money(now.price)}
      </td>
      <td>
        {there?.place && there.place !== now.place ? <s className="quiet mr-1">{there.place}</s> : null}
        {now.place || '–'}
      </td>
      <td>
        {there ? <Choices joining={joining} change={change} of={row.name} /> : <span className="quiet">new</span>}
      </td>
    </tr>
  );
}

'use client';

import { useState } from 'react';
import { addedTo, type Joining, type placeChoices, priceChoices } from '@/core/kit/into-stock';
import type { KitView } from '@/services/kits/find-kit';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { Becomes, type Compared, ComparedDialog, ComparedTable, type StockAction, WaysOver } from './compared';
import { money } from './lot-row';

const priceWords = { kept: 'price there kept', replaced: 'price replaced', weighted: 'price weighted' } as const;
const placeWords = { kept: 'place there kept', replaced: 'place replaced' } as const;
const mostShown = 300;
const priced = (price: number | null) => (price === null ? '' : money(price));

/** Adds pieces to the stock: what each lot does to what is there is shown before. */
export function StockDialog({ kit, marked, strangers, close, instead }: StockAction & { kit: KitView }) {
  const { id } = kit;
  const [joining, setJoining] = useState<Joining>({ price: 'kept', place: 'kept' });
  const [ones, setOnes] = useState<ReadonlyMap<number, Joining>>(new Map());
  const [publishes, setPublishes] = useState(false);
  const add = useCommand(
    async (rows: Compared['adds'], anyway: boolean) => {
      await api('POST /kits/{id}/stock', {
        params: { id },
        body: {
          lots: marked.length ? marked : undefined,
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
    <ComparedDialog title="Add pieces to the stock" kitId={id} marked={marked} close={close}>
      {({ adds: rows, stay }) => (
        <>
          <p>
            <strong>{rows.length.toLocaleString('en')}</strong> {rows.length === 1 ? 'lot goes' : 'lots go'} in,{' '}
            {rows.filter((one) => one.item === null).length.toLocaleString('en')} of them new;{' '}
            {stay.toLocaleString('en')} {stay === 1 ? 'is not ready and stays' : 'are not ready and stay'}.
          </p>
          <div className="flex flex-wrap items-center gap-3">
            <span className="font-medium">Where the same is there already:</span>
            <Choices joining={joining} change={setJoining} of="all" />
          </div>
          <ComparedTable label="What is added" heads={['Lot', 'Pieces', 'Price', 'Place', 'Joined otherwise']}>
            {rows.slice(0, mostShown).map((row) => (
              <Line
                key={row.lot}
                row={row}
                joining={ones.get(row.lot) ?? joining}
                change={(one) => setOnes(new Map(ones).set(row.lot, one))}
              />
            ))}
          </ComparedTable>
          {rows.length > mostShown ? (
            <p className="quiet">And {(rows.length - mostShown).toLocaleString('en')} more, joined as all are.</p>
          ) : null}
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
          <WaysOver
            problem={add.problem}
            busy={add.busy}
            ways={[
              ['Change what is there instead', instead],
              ['Add the pieces once more', () => void add.run(rows, true)],
            ]}
          />
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={add.busy || rows.length + strangers === 0}
            onClick={() => void add.run(rows, false)}
          >
            Add {(rows.length + strangers).toLocaleString('en')} to stock
          </button>
        </>
      )}
    </ComparedDialog>
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

type LineProps = { row: Compared['adds'][number]; joining: Joining; change: (joining: Joining) => void };

function Line({ row, joining, change }: LineProps) {
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
        <Becomes from={priced(there?.price ?? null)} to={priced(now.price)} />
      </td>
      <td>
        <Becomes from={there?.place ?? ''} to={now.place} />
      </td>
      <td>
        {there ? <Choices joining={joining} change={change} of={row.name} /> : <span className="quiet">new</span>}
      </td>
    </tr>
  );
}

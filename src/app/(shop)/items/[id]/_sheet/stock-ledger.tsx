'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { afarWords } from '@/core/item/elsewhere';
import type { Item } from '@/core/item/item';
import { handReasons, movementWords, resultingStock } from '@/core/item/movements';
import { amountToText, parseAmount } from '@/core/measure/money';
import type { StockView } from '@/services/stock/find-movements';
import { AsFile } from '@/ui/controls/as-file';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Dialog } from '@/ui/controls/dialog';
import { Failed, Loading } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { stockMove } from '@/ui/data/stock-move';
import { useCommand } from '@/ui/data/use-command';

/** The stock of an item as a ledger: every movement with its reason, what each account offers, and the ways to move it. */
export function StockLedger({ item, close, moved }: { item: Item; close: () => void; moved: () => void }) {
  const client = useQueryClient();
  const stock = useQuery({
    queryKey: ['stock', item.id],
    queryFn: () => api('GET /items/{id}/stock', { params: { id: item.id } }),
  });
  const done = () => {
    moved();
    void client.invalidateQueries({ queryKey: ['stock', item.id] });
    void client.invalidateQueries({ queryKey: ['sales'] });
  };
  return (
    <Dialog title={`Stock of ${item.sku}`} close={close} wide>
      {stock.isPending ? <Loading what="the ledger" /> : null}
      {stock.isError ? <Failed error={stock.error} retry={() => void stock.refetch()} /> : null}
      {stock.data ? (
        <div className="grid grid-cols-[minmax(0,1fr)_20rem] gap-6 max-lg:grid-cols-1">
          <div>
            <Movements stock={stock.data} />
            <AsFile of="GET /items/{id}/stock/file" what="The ledger" params={{ id: item.id }} />
          </div>
          <div className="space-y-5">
            {stock.data.varied ? (
              <p className="quiet">The stock of this item is counted by its variations, in their table.</p>
            ) : (
              <Move item={item} there={stock.data.quantity} done={done} />
            )}
            <SoldByHand item={item} there={stock.data.quantity} done={done} />
            <Offered stock={stock.data} />
          </div>
        </div>
      ) : null}
    </Dialog>
  );
}

const movementColumns: Column<StockView['movements'][number]>[] = [
  { id: 'units', head: 'Units', align: 'right', cell: (one) => (one.delta > 0 ? `+${one.delta}` : one.delta) },
  {
    id: 'then',
    head: 'Then',
    align: 'right',
    cell: (one) =>
      one.place === 'here' ? (
        <span className={one.balance < 0 ? 'font-semibold text-error' : ''}>{one.balance}</span>
      ) : (
        <span className="quiet">{afarWords[one.place]}</span>
      ),
  },
  {
    id: 'why',
    head: 'Why',
    cell: (one) => (
      <>
        {one.words}
        {one.soldOn ? ` ${one.soldOn === 'by hand' ? 'by hand' : `on ${one.soldOn}`}` : ''}
        {one.variation ? `, ${one.variation}` : ''}
        {one.note ? <span className="quiet block text-[12px]">{one.note}</span> : null}
      </>
    ),
  },
  {
    id: 'when',
    head: 'When, by whom',
    cellClass: 'quiet',
    cell: (one) => (
      <>
        <When at={one.at} />, {one.byName}
      </>
    ),
  },
];

function Movements({ stock }: { stock: StockView }) {
  return (
    <section aria-label="Movements">
      <p className="mb-2">
        <b className="figures text-lg font-semibold">{stock.quantity}</b> in stock
        {stock.elsewhere.map((one) => (
          <span key={`${one.place}${one.accountId}`} className="ml-3">
            <b className="figures font-semibold">{one.units}</b> {afarWords[one.place]}
            {one.place === 'there' ? ` of ${one.name}` : `, ${one.name}`}
          </span>
        ))}
      </p>
      <div className="max-h-[60vh] overflow-auto" tabIndex={0} role="region" aria-label="All movements">
        <DataTable rows={stock.movements} columns={movementColumns} idOf={(one) => one.id} sticky />
        {stock.movements.length === 0 ? <p className="quiet p-2">Nothing has moved yet.</p> : null}
      </div>
    </section>
  );
}

const whole = (text: string): number | null => (/^-?\d{1,6}$/.test(text.trim()) ? Number(text) : null);

/** Adding and setting are two different things: two buttons, and each says what results before it acts. */
function Move({ item, there, done }: { item: Item; there: number; done: () => void }) {
  const [text, setText] = useState('');
  const [reason, setReason] = useState<(typeof handReasons)[number]>('added');
  const [note, setNote] = useState('');
  const first = useRef<HTMLInputElement>(null);
  useEffect(() => first.current?.focus(), []);
  const units = whole(text);
  const act = useCommand(async (how: 'add' | 'set') => {
    if (units === null) return undefined;
    const body = stockMove(how, units, { reason, note });
    const { quantity } = await api('POST /items/{id}/stock', { params: { id: item.id }, body });
    setText('');
    setNote('');
    done();
    return `Stock is ${quantity} now`;
  });
  const added = units === null ? null : resultingStock(there, { how: 'add', units }).result;
  return (
    <section aria-label="Move stock">
      <h3 className="mb-1 font-semibold">Move stock</h3>
      <div className="space-y-2">
        <div className="flex gap-2">
          <label className="flex flex-col gap-1">
            Units
            <input
              className="input input-sm figures w-20"
              value={text}
              ref={first}
              onChange={(event) => setText(event.target.value)}
            />
          </label>
          <label className="flex flex-1 flex-col gap-1">
            Why they are added
            <select
              className="select select-sm w-full"
              value={reason}
              onChange={(event) => setReason(event.target.value as typeof reason)}
            >
              {handReasons.map((one) => (
                <option key={one} value={one}>
                  {movementWords[one]}
                </option>
              ))}
            </select>
          </label>
        </div>
        <input
          aria-label="Note"
          placeholder="Note, if there is something to say"
          className="input input-sm w-full"
          maxLength={200}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="btn btn-sm"
            disabled={units === null || units === 0 || (added ?? 0) < 0}
            onClick={() => void act.run('add')}
          >
            {units === null ? 'Add to stock' : `Add ${units} to stock: ${there} becomes ${added}`}
          </button>
          <button
            type="button"
            className="btn btn-sm"
            disabled={units === null || units < 0}
            onClick={() => void act.run('set')}
          >
            {units === null ? 'Set stock to' : `Set stock to ${units}`}
          </button>
        </div>
        {act.problem ? (
          <p role="alert" className="text-error">
            {act.problem}
          </p>
        ) : null}
      </div>
    </section>
  );
}

/** At a fair, to a neighbour: the same as a sale on a marketplace. */
function SoldByHand({ item, there, done }: { item: Item; there: number; done: () => void }) {
  const [units, setUnits] = useState('1');
  const [price, setPrice] = useState('');
  const [variation, setVariation] = useState('');
  const on = item.variations.filter((one) => one.on && one.quantity > 0);
  const count = whole(units);
  const amount = price.trim() === '' ? item.price : parseAmount(price, item.currency);
  const sell = useCommand(async () => {
    if (count === null) return undefined;
    const { quantity } = await api('POST /items/{id}/sold', {
      params: { id: item.id },
      body: {
        quantity: count,
        unitPrice: amount ?? 0,
        ...(item.axes.length ? { variation: on[Number(variation)]?.values ?? [] } : {}),
      },
    });
    done();
    return quantity > 0 ? `Sold. ${quantity} are left everywhere` : 'Sold. It ends everywhere';
  });
  return (
    <section aria-label="Sold by hand">
      <h3 className="mb-1 font-semibold">Sold by hand</h3>
      <div className="flex flex-wrap items-end gap-2">
        {item.axes.length ? (
          <label className="flex w-full flex-col gap-1">
            Which one
            <select
              className="select select-sm w-full"
              value={variation}
              onChange={(event) => setVariation(event.target.value)}
            >
              <option value="">Choose</option>
              {on.map((one, index) => (
                <option key={one.values.join('/')} value={index}>
                  {one.values.join(', ')}, {one.quantity} there
                </option>
              ))}
            </select>
          </label>
        ) : null}
        <label className="flex flex-col gap-1">
          How many
          <input
            className="input input-sm figures w-20"
            value={units}
            onChange={(event) => setUnits(event.target.value)}
          />
        </label>
        <label className="flex flex-col gap-1">
          Each for
          <input
            className="input input-sm figures w-28"
            placeholder={item.price === null ? '' : amountToText(item.price, item.currency)}
            value={price}
            onChange={(event) => setPrice(event.target.value)}
          />
        </label>
        <button
          type="button"
          className="btn btn-sm"
          disabled={count === null || count < 1 || count > there || amount === null}
          onClick={() => void sell.run()}
        >
          {count !== null && count >= 1 && count <= there
            ? `Sold ${count}: ${there} becomes ${there - count}`
            : 'Sold by hand'}
        </button>
      </div>
      {sell.problem ? (
        <p role="alert" className="text-error">
          {sell.problem}
        </p>
      ) : null}
    </section>
  );
}

function Offered({ stock }: { stock: StockView }) {
  if (stock.offered.length === 0) return null;
  return (
    <section aria-label="Offered">
      <h3 className="mb-1 font-semibold">Offered</h3>
      <ul>
        {stock.offered.map((one) => (
          <li key={one.accountId} className="flex gap-2">
            <span className="min-w-0 flex-1 truncate">{one.name}</span>
            <span className="quiet text-[12px]">
              {one.reserve ? `${one.reserve} kept back` : ''}
              {one.cap ? ` at most ${one.cap}` : ''}
              {one.shown !== null && one.shown !== one.offered ? ` ${one.shown} there still` : ''}
            </span>
            <span className="figures">{one.offered}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

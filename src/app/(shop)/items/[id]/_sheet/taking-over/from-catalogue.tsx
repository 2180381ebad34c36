'use client';

import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import type { Item, ItemPatch } from '@/core/item/item';
import type { LookedUp } from '@/services/accounts/mapping/ask-catalogues';
import { Dialog } from '@/ui/controls/dialog';
import { Failed } from '@/ui/controls/states';
import { api } from '@/ui/data/api';

type Props = { item: Item; change: (patch: ItemPatch) => void; saved: () => Promise<unknown>; close: () => void };

const fields = [
  ['title', 'Title', 300],
  ['brand', 'Brand', 80],
  ['model', 'Model', 120],
  ['barcode', 'Barcode', 20],
  ['category', 'Category', 120],
] as const;
type FieldName = (typeof fields)[number][0];

const toldBy = (entry: LookedUp): Record<FieldName, string> => ({
  title: entry.name,
  brand: entry.brand,
  model: entry.model,
  barcode: entry.barcode,
  category: entry.category,
});

/** A catalogue's details taken over into an item that is there: what is empty at once, what differs when it is ticked. */
export function FromCatalogue({ item, change, saved, close }: Props) {
  const [words, setWords] = useState(item.barcode || [item.brand, item.model].filter(Boolean).join(' ') || item.title);
  const [entry, setEntry] = useState<LookedUp | null>(null);
  const found = useQuery({
    queryKey: ['catalogues', words.trim()],
    queryFn: () => api('GET /catalogues', { query: { q: words.trim() } }),
    enabled: words.trim().length >= 3,
    staleTime: 60_000,
  });
  const queries = useQueryClient();
  const adopt = useMutation({
    mutationFn: async ({ patch, records }: { patch: ItemPatch; records: LookedUp['records'] }) => {
      change(patch);
      await saved();
      for (const { accountId, ...product } of records)
        await api('POST /products/choose', { body: { accountId, itemId: item.id, product } });
      await queries.invalidateQueries();
    },
    onSuccess: close,
  });
  return (
    <Dialog title="From a catalogue" close={close}>
      <input
        data-first
        aria-label="Barcode, ISBN or name"
        className="input input-sm w-full"
        value={words}
        onChange={(event) => {
          setWords(event.target.value);
          setEntry(null);
        }}
      />
      {found.isFetching ? <p className="quiet mt-2">Asking the catalogues …</p> : null}
      {found.isError ? <Failed error={found.error} /> : null}
      {adopt.isError ? <Failed error={adopt.error} /> : null}
      {entry ? (
        <TakeOver
          item={item}
          entry={entry}
          isBusy={adopt.isPending}
          take={(patch) => adopt.mutate({ patch, records: entry.records })}
        />
      ) : (
        <ul className="my-2 max-h-72 overflow-auto" aria-label="Catalogue entries">
          {found.data?.found.map((one) => (
            <li key={`${one.market}-${one.id}`}>
              <button
                type="button"
                className="flex w-full gap-2 px-2 py-1 text-left hover:bg-base-200"
                onClick={() => setEntry(one)}
              >
                <span className="min-w-0 flex-1 truncate">{one.name}</span>
                <span className="mono quiet">{one.barcode}</span>
                <span className="quiet">{one.from}</span>
              </button>
            </li>
          ))}
          {found.data?.found.length === 0 ? <li className="quiet px-2 py-1">No catalogue knows it.</li> : null}
        </ul>
      )}
    </Dialog>
  );
}

type Taking = { item: Item; entry: LookedUp; isBusy: boolean; take: (patch: ItemPatch) => void };

function TakeOver({ item, entry, isBusy, take }: Taking) {
  const told = toldBy(entry);
  const other = fields.filter(([field]) => told[field] !== '' && told[field] !== item[field]);
  const [chosen, setChosen] = useState<FieldName[]>(
    other.filter(([field]) => item[field] === '').map(([field]) => field),
  );
  return (
    <div className="mt-3">
      {other.length === 0 ? <p>It says nothing that the item does not say already.</p> : null}
      <ul>
        {other.map(([field, label]) => (
          <li key={field}>
            <label className="flex items-baseline gap-2 py-0.5">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={chosen.includes(field)}
                onChange={(event) =>
                  setChosen(event.target.checked ? [...chosen, field] : chosen.filter((one) => one !== field))
                }
              />
              <span className="w-20 font-medium">{label}</span>
              <span>
                {item[field] ? (
                  <>
                    <del className="quiet">{item[field]}</del> →{' '}
                  </>
                ) : null}
                {told[field]}
              </span>
            </label>
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-primary btn-sm mt-2"
        disabled={isBusy}
        onClick={() =>
          take(
            Object.fromEntries(
              fields.flatMap(([field, , most]) =>
                chosen.includes(field) ? [[field, told[field].slice(0, most)]] : [],
              ),
            ),
          )
        }
      >
        {chosen.length
          ? `Take over ${chosen.length} ${chosen.length === 1 ? 'field' : 'fields'}`
          : 'It is this product'}
      </button>
    </div>
  );
}

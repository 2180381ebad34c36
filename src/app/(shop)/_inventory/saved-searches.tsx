'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { addressOf, type ItemFilter, readFilter } from '@/core/filter/address';
import type { SortName } from '@/core/filter/sorting';
import type { SavedSearch } from '@/services/searches/find-searches';
import { RemovedList } from '@/ui/controls/removed-list';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { bringBack } from '@/ui/data/bring-back';
import { useCommand } from '@/ui/data/use-command';
import { useEscape } from '@/ui/frame/use-escape';

export type Order = { sort: SortName; dir: 'asc' | 'desc' };
type Props = { filter: ItemFilter; order: Order; open: (search: SavedSearch) => void };

/** Searches under names of their own: opened, kept, forgotten. */
export function SavedSearches(props: Props) {
  const [shown, setShown] = useState(false);
  return (
    <div className="relative">
      <button type="button" className="btn btn-sm" aria-expanded={shown} onClick={() => setShown(!shown)}>
        Searches
      </button>
      {shown ? <Searches {...props} close={() => setShown(false)} /> : null}
    </div>
  );
}

/** How many items it finds now. */
function Count({ search }: { search: SavedSearch }) {
  const query = addressOf(search.filter);
  const { data } = useQuery({
    queryKey: ['items-count', JSON.stringify(query)],
    queryFn: () => api('GET /items/count', { query }),
    staleTime: 10_000,
  });
  return <span className="quiet figures px-2">{data?.count.toLocaleString('en') ?? ''}</span>;
}

const touches = { touches: [['searches'], ['removed']] };

function Searches({ filter, order, open, close }: Props & { close: () => void }) {
  const { data, isPending, error, refetch } = useQuery({ queryKey: ['searches'], queryFn: () => api('GET /searches') });
  const [name, setName] = useState('');
  const keep = useCommand(async () => {
    await api('POST /searches', { body: { name, filter: readFilter(filter), ...order } });
    setName('');
    return `Kept as ${name}`;
  }, touches);
  const forget = useCommand(
    async (one: SavedSearch) => {
      await api('DELETE /searches/{id}', { params: { id: one.id } });
      return { text: `${one.name} is forgotten; its items stay`, back: () => bringBack('search', one.id) };
    },
    { ...touches, tells: true },
  );
  useEscape(true, close);
  const isFiltered = Object.keys(filter).length > 0;
  return (
    <div
      role="group"
      aria-label="Kept searches"
      className="absolute left-0 z-20 mt-1 w-80 space-y-3 rounded border border-base-300 bg-base-100 p-3 shadow-lg"
    >
      {isPending ? <Loading what="the searches" /> : null}
      {error ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data?.searches.length === 0 ? <p className="quiet">No search has been kept yet.</p> : null}
      {data?.searches.length ? (
        <ul className="max-h-72 overflow-auto">
          {data.searches.map((one) => (
            <li key={one.id} className="flex items-center">
              <button
                type="button"
                className="btn btn-ghost btn-sm flex-1 justify-start truncate font-normal"
                title={`Kept by ${one.byName}`}
                onClick={() => {
                  open(one);
                  close();
                }}
              >
                <span className="truncate">{one.name}</span>
              </button>
              <Count search={one} />
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                aria-label={`Forget the search ${one.name}`}
                onClick={() => void forget.run(one)}
              >
                Forget
              </button>
            </li>
          ))}
        </ul>
      ) : null}
      <RemovedList kind="search" />
      <form
        className="flex flex-wrap gap-2 border-t border-base-300 pt-3"
        onSubmit={(event) => {
          event.preventDefault();
          void keep.run();
        }}
      >
        <input
          className="input input-sm min-w-0 flex-1"
          aria-label="Name of this search"
          placeholder={isFiltered ? 'Keep what is shown as …' : 'Filter first, then keep it'}
          maxLength={80}
          disabled={!isFiltered}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <button type="submit" className="btn btn-sm" disabled={!isFiltered || name.trim() === '' || keep.busy}>
          Keep
        </button>
        {keep.problem ? (
          <p role="alert" className="w-full text-error">
            {keep.problem}
          </p>
        ) : null}
      </form>
    </div>
  );
}

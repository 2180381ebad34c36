'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '@/ui/data/api';

type Props = {
  /** What is searched for at first. */
  words: string;
  chosen?: number | null;
  choose: (itemId: number) => void;
};

/** Which item is meant: the inventory is searched by words, and one of what was found is chosen. */
export function ItemFinder({ words: first, chosen = null, choose }: Props) {
  const [words, setWords] = useState(first);
  const found = useQuery({
    queryKey: ['items', 'finder', words],
    queryFn: () => api('GET /items', { query: { q: words, limit: 20 } }),
    enabled: words.trim().length > 1,
  });
  return (
    <>
      <label className="block">
        <span className="quiet text-[12px]">Search the inventory</span>
        <input
          data-first
          className="input input-sm w-full"
          value={words}
          onChange={(event) => setWords(event.target.value)}
        />
      </label>
      <ul className="my-2 max-h-64 overflow-auto rounded border border-base-300" aria-label="Items found">
        {found.data?.items.map((one) => (
          <li key={one.id}>
            <button
              type="button"
              aria-pressed={one.id === chosen}
              className={`w-full px-2 py-1 text-left hover:bg-base-200 ${one.id === chosen ? 'bg-base-200 font-medium' : ''}`}
              onClick={() => choose(one.id)}
            >
              {one.title || 'Without a title'} <span className="mono quiet">{one.sku}</span>
            </button>
          </li>
        ))}
        {found.data?.items.length === 0 ? <li className="quiet px-2 py-1">Nothing of that name</li> : null}
        {words.trim().length < 2 ? <li className="quiet px-2 py-1">Type two letters or more</li> : null}
        {found.isLoading ? <li className="quiet px-2 py-1">Searching …</li> : null}
        {found.isError ? <li className="px-2 py-1 text-error">The inventory could not be searched</li> : null}
      </ul>
    </>
  );
}

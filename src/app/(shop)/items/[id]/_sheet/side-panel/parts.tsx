'use client';

import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { PartsView } from '@/services/stock/find-parts';
import { ItemFinder } from '@/ui/controls/item-finder';
import { Link } from '@/ui/controls/link';
import { Failed, Loading } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { submitted, useCommand } from '@/ui/data/use-command';

type Relative = PartsView['parts'][number];

/** What an item is one stock with: the parts of a whole set, and the wholes that a part is in. */
export function Parts({ itemId }: { itemId: number }) {
  const found = useQuery({
    queryKey: ['parts', itemId],
    queryFn: () => api('GET /items/{id}/parts', { params: { id: itemId } }),
  });
  const [isAdding, setIsAdding] = useState(false);
  const save = useCommand(
    async (parts: { item: number; pieces: number }[]) => {
      const { quantity } = await api('PUT /items/{id}/parts', { params: { id: itemId }, body: { parts } });
      setIsAdding(false);
      return parts.length ? `${quantity.toLocaleString('en')} whole ones can be offered` : 'It is no set any more';
    },
    { touches: [['parts'], ['sheet'], ['items']] },
  );
  if (found.isPending) return <Loading what="the parts" />;
  if (found.error) return <Failed error={found.error} retry={() => void found.refetch()} />;
  const { parts, sets } = found.data;
  const given = parts.map(({ id, pieces }) => ({ item: id, pieces }));
  return (
    <div className="space-y-3 p-3 text-[13px]">
      {sets.length ? (
        <section aria-label="Part of">
          <h3 className="font-medium">Part of</h3>
          <Relatives all={sets} />
        </section>
      ) : null}
      <section aria-label="Made of">
        <h3 className="font-medium">Made of</h3>
        {parts.length ? (
          <Relatives
            all={parts}
            without={(id) => void save.run(given.filter((one) => one.item !== id))}
            pieces={(id, pieces) => void save.run(given.map((one) => (one.item === id ? { ...one, pieces } : one)))}
          />
        ) : (
          <p className="quiet">
            Nothing. Say what one of it is made of, and both are one stock: a whole that is sold takes its parts off, a
            part that is sold lowers how many wholes can be offered.
          </p>
        )}
      </section>
      {isAdding ? (
        <ItemFinder
          words=""
          choose={(id) => void save.run([...given.filter((one) => one.item !== id), { item: id, pieces: 1 }])}
        />
      ) : (
        <button type="button" className="btn btn-xs" disabled={save.busy} onClick={() => setIsAdding(true)}>
          Add a part
        </button>
      )}
      {save.problem ? (
        <p role="alert" className="text-error">
          {save.problem}
        </p>
      ) : null}
    </div>
  );
}

function Relatives({
  all,
  without,
  pieces,
}: {
  all: Relative[];
  without?: (id: number) => void;
  pieces?: (id: number, count: number) => void;
}) {
  return (
    <ul className="divide-y divide-base-300">
      {all.map((one) => (
        <li key={one.id} className="flex items-center gap-2 py-1">
          {pieces ? (
            <form onSubmit={submitted((form) => pieces(one.id, Number(form.get('pieces'))))}>
              <input
                key={one.pieces}
                className="input input-xs figures w-14 text-right"
                name="pieces"
                type="number"
                min={1}
                max={10_000}
                required
                aria-label={`Pieces of ${one.title}`}
                defaultValue={one.pieces}
                onBlur={({ currentTarget }) => {
                  const typed = Number(currentTarget.value);
                  if (typed !== one.pieces && currentTarget.checkValidity()) pieces(one.id, typed);
                }}
              />
            </form>
          ) : (
            <span className="figures">{one.pieces} in</span>
          )}
          <Link className="min-w-0 flex-1 truncate hover:underline" href={`/items/${one.id}`} title={one.title}>
            {one.title || one.sku}
          </Link>
          <span className="quiet figures" title="In stock">
            {one.quantity.toLocaleString('en')}
          </span>
          {without ? (
            <button
              type="button"
              className="btn btn-ghost btn-xs"
              aria-label={`Take ${one.title} out`}
              onClick={() => without(one.id)}
            >
              ×
            </button>
          ) : null}
        </li>
      ))}
    </ul>
  );
}

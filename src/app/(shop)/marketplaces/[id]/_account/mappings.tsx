'use client';

import { useQuery } from '@tanstack/react-query';
import type { Mapping } from '@/services/accounts/mapping/find-mappings';
import { DataTable } from '@/ui/controls/data-table';
import { Failed, Loading } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

const kinds: Record<Mapping['kind'], string> = {
  category: 'Category',
  attribute: 'Property',
  value: 'Value',
  product: 'Product',
};

/** What was matched or found on this marketplace, by whom; each can be taken back. */
export function Mappings({ market, changed }: { market: string; changed: () => void }) {
  const forget = useCommand(
    async (thing: Mapping) => {
      await api('POST /mappings/forget', { body: { market, id: thing.id } });
      changed();
      return `“${thing.source}” is no longer matched`;
    },
    { tells: true },
  );
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['knowledge', market],
    queryFn: () => api('GET /mappings', { query: { market } }),
  });
  if (isPending) return <Loading what="what was learned" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  return (
    <section aria-labelledby="known" className="border-t border-base-300 p-4">
      <h2 id="known" className="mb-2 font-semibold">
        What was learned
      </h2>
      {data.known.length === 0 ? (
        <p className="quiet">
          Nothing yet. Choosing a category or a value for an item teaches it for all that say the same.
        </p>
      ) : (
        <div className="max-h-96 overflow-auto" role="region" aria-label="What was learned" tabIndex={0}>
          <DataTable
            look="part"
            rows={data.known}
            idOf={(thing) => thing.id}
            columns={[
              { id: 'kind', head: 'Kind', cell: (thing) => kinds[thing.kind] },
              {
                id: 'yours',
                head: 'Yours',
                cellClass: 'wrap-anywhere',
                cell: (thing) => (
                  <>
                    {thing.attribute ? <span className="quiet">{thing.attribute} </span> : null}
                    {thing.source}
                  </>
                ),
              },
              { id: 'theirs', head: 'Theirs', cellClass: 'wrap-anywhere', cell: (thing) => thing.target },
              {
                id: 'by',
                head: 'By',
                cellClass: 'quiet whitespace-nowrap',
                cell: (thing) => (
                  <>
                    {thing.byName}, <When at={thing.at} />
                  </>
                ),
              },
              {
                id: 'forget',
                head: 'Take back',
                isHeard: true,
                align: 'right',
                cell: (thing) => (
                  <button
                    type="button"
                    className="btn btn-ghost btn-xs"
                    aria-label={`Take back ${thing.source}`}
                    onClick={() => void forget.run(thing)}
                  >
                    Take back
                  </button>
                ),
              },
            ]}
          />
        </div>
      )}
    </section>
  );
}

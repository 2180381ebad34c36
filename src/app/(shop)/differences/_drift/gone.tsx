'use client';

import { useQuery } from '@tanstack/react-query';
import { AsFile } from '@/ui/controls/as-file';
import { Knot } from '@/ui/controls/knot';
import { Link } from '@/ui/controls/link';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';

/** Listings that are wanted and have something to offer, but are not there any more. */
export function Gone({ accountName, only }: { accountName: (id: number) => string; only: number | null }) {
  const { data } = useQuery({
    queryKey: ['gone'],
    queryFn: () => api('GET /gone'),
    refetchInterval: 10_000,
  });
  const settle = useCommand(
    async (listings: number[], how: 'end' | 'make-again') => {
      const { settled } = await api('POST /gone/settle', { body: { listings, how } });
      return how === 'end' ? `${settled} ended here, too` : `${settled} are made again`;
    },
    { tells: true },
  );
  const gone = data?.gone.filter((one) => !only || one.accountId === only) ?? [];
  if (gone.length === 0) return null;
  const all = gone.map((one) => one.listingId);
  return (
    <section aria-label="Gone there" className="border-b border-base-300 px-4 py-2">
      <div className="mb-1 flex items-center gap-3">
        <h2 className="font-semibold">Gone or sold there, more in stock here</h2>
        <button type="button" className="btn btn-xs" onClick={() => void settle.run(all, 'make-again')}>
          Make all {gone.length} again
        </button>
        <button type="button" className="btn btn-xs" onClick={() => void settle.run(all, 'end')}>
          End all {gone.length} here
        </button>
        <AsFile of="GET /gone/file" what="What is not there any more" />
      </div>
      <ul>
        {gone.map((one) => (
          <li key={one.listingId} className="flex items-center gap-3 py-0.5">
            <Knot state={one.wasSold ? 'sold' : 'ended'} />
            <Link href={`/items/${one.itemId}`} className="truncate hover:underline">
              {one.title || one.sku}
            </Link>
            <span className="mono quiet">{one.sku}</span>
            <span className="quiet">
              {accountName(one.accountId)}
              {one.wasSold ? ', sold there' : ''}, {one.quantity} in stock
            </span>
            <button
              type="button"
              className="btn btn-xs ml-auto"
              aria-label={`Make ${one.sku} on ${accountName(one.accountId)} again`}
              onClick={() => void settle.run([one.listingId], 'make-again')}
            >
              Make again
            </button>
            <button
              type="button"
              className="btn btn-xs"
              aria-label={`End ${one.sku} on ${accountName(one.accountId)} here`}
              onClick={() => void settle.run([one.listingId], 'end')}
            >
              End here
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

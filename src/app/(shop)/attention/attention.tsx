'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import type { Cause } from '@/services/outbox/find-causes';
import { Knot } from '@/ui/controls/knot';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { Findings } from './findings';

/** What needs a person, grouped by cause, with the one mend for all of the same cause. */
export function Attention() {
  const causes = useQuery({
    queryKey: ['causes'],
    queryFn: () => api('GET /causes'),
    refetchInterval: 4_000,
  });
  const retry = useCommand(
    async (cause: Cause) => {
      const { queued } = await api('POST /jobs/retry', { body: { account: cause.accountId, message: cause.message } });
      return `${queued} queued again`;
    },
    { tells: true },
  );
  const look = useCommand(
    async () => {
      const { found } = await api('POST /audit', { body: {} });
      return found.length ? `${found.length} kinds of things do not add up` : 'Everything adds up';
    },
    { tells: true },
  );
  const audit = useQuery({ queryKey: ['audit'], queryFn: () => api('GET /audit'), refetchInterval: 20_000 });
  return (
    <>
      <PageHead title="Attention" />
      {causes.isPending ? <Loading what="what needs you" /> : null}
      {causes.isError ? <Failed error={causes.error} retry={() => void causes.refetch()} /> : null}
      {causes.data?.causes.length === 0 && audit.data?.found.length === 0 ? (
        <Empty title="Nothing needs you">
          <p>When a marketplace refuses something, the reason and its mend stand here.</p>
        </Empty>
      ) : null}
      <ol>
        {causes.data?.causes.map((cause) => (
          <li key={`${cause.accountId}${cause.message}`} className="border-b border-base-300 px-4 py-3">
            <div className="flex items-center gap-3">
              <Knot state="attention" />
              <h2 className="font-semibold">{cause.message}</h2>
              <span className="quiet figures">
                {cause.count} {cause.count === 1 ? 'listing' : 'listings'} on {cause.accountName}
              </span>
              <button type="button" className="btn btn-sm ml-auto" onClick={() => void retry.run(cause)}>
                Try {cause.count === 1 ? 'it' : `all ${cause.count}`} again
              </button>
            </div>
            {cause.fix ? <p className="mt-1 pl-7">To mend it: {cause.fix}.</p> : null}
            <ul className="mt-1 flex flex-wrap gap-x-4 gap-y-0.5 pl-7">
              {cause.items.map((item) => (
                <li key={item.id} className="max-w-72 truncate">
                  <Link className="underline" href={`/items/${item.id}${cause.field ? `#row-${cause.field}` : ''}`}>
                    {item.title || item.sku}
                  </Link>
                </li>
              ))}
              {cause.count > cause.items.length ? (
                <li className="quiet">and {cause.count - cause.items.length} more</li>
              ) : null}
            </ul>
          </li>
        ))}
      </ol>
      {audit.data ? <Findings audit={audit.data} look={() => void look.run()} isLooking={look.busy} /> : null}
    </>
  );
}

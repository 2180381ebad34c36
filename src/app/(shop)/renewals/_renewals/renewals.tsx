'use client';

import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { parseAsInteger, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { useState } from 'react';
import type { RenewalView } from '@/services/listings/renewal/find-renewals';
import type { RenewalPlan } from '@/services/listings/renewal/plan-renewal';
import { AsFile } from '@/ui/controls/as-file';
import { ChoiceButtons } from '@/ui/controls/choice-buttons';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { duration, Price } from '@/ui/controls/format';
import { ItemCell } from '@/ui/controls/item-cell';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { AccountSelect, useAccounts } from '@/ui/data/accounts';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { DailyPlan } from './daily-plan';

const orders = ['due', 'longest', 'newest'] as const;
const orderWords = { due: 'Their renewal first', longest: 'Longest unrenewed', newest: 'Newest' };

/** Live listings by age; chosen ones are ended and made anew, after it is said what that costs. */
export function RenewalsPage() {
  const [query, setQuery] = useQueryStates(
    {
      account: parseAsInteger,
      order: parseAsStringLiteral(orders).withDefault('due'),
      minDays: parseAsInteger.withDefault(0),
    },
    { history: 'replace' },
  );
  const router = useRouter();
  const [chosen, setChosen] = useState<number[]>([]);
  const { accountOf } = useAccounts();
  const search = { ...query, account: query.account ?? undefined };
  const found = useInfiniteQuery({
    queryKey: ['renewals', search],
    queryFn: ({ pageParam }) => api('GET /renewals', { query: { ...search, from: pageParam } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    refetchInterval: 10_000,
  });
  const plan = useQuery({
    queryKey: ['renewal-plan', chosen.join(',')],
    enabled: chosen.length > 0,
    queryFn: () => api('POST /renewals/plan', { body: { listings: chosen } }),
  });
  const listings = found.data?.pages.flatMap((page) => page.listings) ?? [];
  const unsettled = found.data?.pages[0]?.unsettled ?? [];
  const nameOf = (id: number) => accountOf(id)?.name ?? '';
  const account = accountOf(query.account);
  const go = useCommand(
    async () => {
      const { runId } = await api('POST /renewals', { body: { listings: chosen } });
      setChosen([]);
      router.push(`/outbox?run=${runId}`);
      return undefined;
    },
    { tells: true },
  );
  return (
    <>
      <PageHead title="Renewal">
        <ChoiceButtons
          legend="Order"
          options={orders}
          words={orderWords}
          value={query.order}
          choose={(order) => void setQuery({ order })}
        />
        <AccountSelect
          value={query.account}
          choose={(account) => {
            setChosen([]);
            void setQuery({ account });
          }}
        />
        <label className="flex items-center gap-2">
          At least
          <input
            type="number"
            min={0}
            className="input input-sm w-20"
            value={query.minDays}
            onChange={(event) => void setQuery({ minDays: Math.max(0, Number(event.target.value) || 0) })}
          />
          days old
        </label>
        <AsFile of="GET /renewals/file" what="These listings" query={query} />
      </PageHead>
      <Consequences plan={chosen.length ? plan.data : undefined} chosen={chosen.length} go={() => void go.run()} />
      {account ? <DailyPlan key={account.id} account={account} /> : null}
      {found.isPending ? <Loading what="the live listings" /> : null}
      {found.isError ? <Failed error={found.error} retry={() => void found.refetch()} /> : null}
      {found.data && listings.length === 0 ? (
        <Empty title="Nothing is live so long">
          <p>Live listings stand here by age. New ones are seen most, so the oldest are worth making anew.</p>
        </Empty>
      ) : null}
      {unsettled.length ? (
        <section aria-labelledby="unsettled" className="border-b border-base-300 bg-base-200 px-4 py-2">
          <h2 id="unsettled" className="font-semibold">
            Ended, and not made anew yet
          </h2>
          <ul>
            {unsettled.map((one) => (
              <li key={one.listingId} className="flex items-center gap-3 py-1">
                <Link className="max-w-96 truncate underline" href={`/items/${one.itemId}`}>
                  {one.title || one.sku}
                </Link>
                <span className="quiet">{nameOf(one.accountId)}</span>
                <span className={one.job?.state === 'failed' ? 'text-warning' : 'quiet'}>
                  {one.job?.message ?? 'on its way'}
                </span>
                {one.job?.state === 'failed' ? (
                  <Link className="btn btn-xs ml-auto" href="/attention">
                    Settle it
                  </Link>
                ) : null}
              </li>
            ))}
          </ul>
        </section>
      ) : null}
      {listings.length ? <RenewalTable listings={listings} chosen={chosen} choose={setChosen} nameOf={nameOf} /> : null}
      {found.hasNextPage ? (
        <button type="button" className="btn btn-sm m-4" onClick={() => void found.fetchNextPage()}>
          More of them
        </button>
      ) : null}
    </>
  );
}

const days = (count: number | null) => (count === null ? '–' : `${count} ${count === 1 ? 'day' : 'days'}`);

/** How far the renewal of a listing is, or why it cannot be. */
function Progress({ one: { job, blocks } }: { one: RenewalView }) {
  switch (job?.state) {
    case 'waiting':
    case 'running':
    case 'held':
      return 'waiting';
    case 'failed':
      return <span className="text-warning">failed: {job.message}</span>;
  }
  if (blocks) return <span className="text-warning">{blocks}</span>;
  return job?.state === 'done' ? 'done' : <span className="quiet">can be renewed</span>;
}

function RenewalTable({
  listings,
  chosen,
  choose,
  nameOf,
}: {
  listings: RenewalView[];
  chosen: number[];
  choose: (ids: number[]) => void;
  nameOf: (account: number) => string;
}) {
  const columns: Column<RenewalView>[] = [
    {
      id: 'item',
      head: 'Item',
      className: 'max-w-96',
      cell: (one) => <ItemCell {...one} href={`/items/${one.itemId}`} />,
    },
    { id: 'account', head: 'Account', cell: (one) => nameOf(one.accountId) },
    { id: 'age', head: 'Live for', cellClass: 'figures', cell: (one) => days(one.days) },
    { id: 'theirs', head: 'They renew in', cellClass: 'figures', cell: (one) => days(one.daysToTheirs) },
    {
      id: 'made',
      head: 'Made',
      cellClass: 'figures',
      cell: (one) => (one.timesMade === 1 ? 'once' : `${one.timesMade} times`),
    },
    { id: 'renewal', head: 'Renewal', cell: (one) => <Progress one={one} /> },
  ];
  return (
    <DataTable
      rows={listings}
      columns={columns}
      idOf={(one) => one.listingId}
      choice={{
        chosen,
        choose,
        all: 'Choose all that can be renewed',
        label: (one) => `Choose ${one.sku} on ${nameOf(one.accountId)}`,
        canBe: (one) => !one.blocks,
      }}
    />
  );
}

/** What it costs and what follows, before it is done. */
function Consequences({ plan, chosen, go }: { plan: RenewalPlan | undefined; chosen: number; go: () => void }) {
  if (chosen === 0) return null;
  return (
    <section
      aria-label="What follows"
      className="flex flex-wrap items-start gap-4 border-b border-base-300 bg-base-200 px-4 py-2"
    >
      {plan ? (
        <ul className="space-y-0.5">
          {plan.accounts.map((one) => (
            <li key={one.accountId}>
              <b className="font-medium">{one.name}</b>: {one.count} end and are made anew under new numbers, listing
              fees <Price amount={one.fees} currency={one.currency} />, about {duration(one.seconds)}
              {one.reviewed ? <span className="text-warning">. Their review starts over</span> : null}
            </li>
          ))}
          {plan.blocked.map((one) => (
            <li key={one.reason} className="text-warning">
              {one.count} not: {one.reason}
            </li>
          ))}
          <li className="quiet">What buyers had saved or asked there stays with the old number.</li>
        </ul>
      ) : (
        <span role="status" className="quiet">
          Working out what it costs …
        </span>
      )}
      <button type="button" className="btn btn-primary btn-sm ml-auto" disabled={!plan} onClick={go}>
        Renew {chosen} {chosen === 1 ? 'listing' : 'listings'}
      </button>
    </section>
  );
}

'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { parseAsInteger, useQueryStates } from 'nuqs';
import type { AccountView } from '@/services/accounts/find-accounts';
import { AsFile } from '@/ui/controls/as-file';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { AccountSelect, useAccounts } from '@/ui/data/accounts';
import { api, type RequestOf } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { useNotice } from '@/ui/frame/providers';
import { DriftRow } from './drift-row';
import { Gone } from './gone';
import { Kinds } from './kinds';

/** What marketplaces show differently from what was sent: side by side, settled one by one or all of a kind. */
export function DriftPage() {
  const [query, setQuery] = useQueryStates({ account: parseAsInteger }, { history: 'replace' });
  const notice = useNotice();
  const { accountOf } = useAccounts();
  const pages = useInfiniteQuery({
    queryKey: ['drift', query.account],
    queryFn: ({ pageParam }) =>
      api('GET /drift', { query: { account: query.account ?? undefined, after: pageParam || undefined } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    refetchInterval: (q) => ((q.state.data?.pages.length ?? 0) <= 1 ? 10_000 : false),
  });
  const listings = pages.data?.pages.flatMap((page) => page.listings) ?? [];
  const settle = useCommand(
    async (body: NonNullable<RequestOf<'POST /drift/settle'>['body']>, said: string) => {
      let settled = 0;
      // Portion by portion: what is settled by then stays so when the page is left.
      for (let after: number | null = 0; after !== null; ) {
        const done: { settled: number; next: number | null } = await api('POST /drift/settle', {
          body: { ...body, after },
        });
        settled += done.settled;
        after = done.next;
        if (after !== null) notice(`${said}: ${settled} so far …`);
      }
      return `${said}: ${settled} ${settled === 1 ? 'field' : 'fields'}`;
    },
    { tells: true },
  );
  const compare = useCommand(
    async (account: AccountView) => {
      notice(`Reading everything on ${account.name} …`);
      const found = await api('POST /accounts/{id}/compare', { params: { id: account.id }, body: {} });
      return `${account.name}: ${found.read} read, ${found.differing} changed since, ${found.gone} gone, ${found.unlinked} not linked`;
    },
    { tells: true },
  );
  const chosen = query.account ? accountOf(query.account) : undefined;
  return (
    <>
      <PageHead title="Differences">
        <AccountSelect value={query.account} choose={(account) => void setQuery({ account })} />
        {chosen ? (
          <button type="button" className="btn btn-sm" onClick={() => void compare.run(chosen)}>
            Compare all of {chosen.name} now
          </button>
        ) : (
          <span className="quiet">
            Choose an account to compare everything on it now; by night it happens by itself
          </span>
        )}
        <AsFile of="GET /drift/file" what="These differences" query={query} />
      </PageHead>
      {pages.isPending ? <Loading what="the differences" /> : null}
      {pages.isError ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      <Gone accountName={(id) => accountOf(id)?.name ?? ''} only={query.account} />
      {pages.data && listings.length === 0 ? (
        <Empty title="Both sides agree">
          <p>When somebody changes a listing on the marketplace itself, it stands here with both values.</p>
        </Empty>
      ) : null}
      {listings.length > 0 ? (
        <Kinds listings={listings} hasMore={pages.hasNextPage} accountOf={accountOf} settle={settle.run} />
      ) : null}
      <ul aria-label="Listings that differ">
        {listings.map((one) => (
          <DriftRow key={one.listingId} listing={one} account={accountOf(one.accountId)} settle={settle.run} />
        ))}
      </ul>
      {pages.hasNextPage ? (
        <button type="button" className="btn btn-sm m-4" onClick={() => void pages.fetchNextPage()}>
          More of them
        </button>
      ) : null}
    </>
  );
}

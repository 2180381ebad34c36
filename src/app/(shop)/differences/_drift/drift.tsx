'use client';

import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { parseAsInteger, useQueryStates } from 'nuqs';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { DriftView } from '@/services/sync/find-drift';
import { AccountSelect, useAccounts } from '@/ui/accounts';
import { api } from '@/ui/api';
import { useNotice } from '@/ui/providers';
import { Empty, Failed, Loading, PageHead } from '@/ui/states';
import { DriftRow } from './drift-row';
import { Gone } from './gone';
import { Kinds } from './kinds';

export type Settle = (body: unknown, said: string) => Promise<void>;

/** What marketplaces show differently from what was sent: side by side, settled one by one or all of a kind. */
export function Differences() {
  const [query, setQuery] = useQueryStates({ account: parseAsInteger }, { history: 'replace' });
  const client = useQueryClient();
  const notice = useNotice();
  const { accountOf } = useAccounts();
  const pages = useInfiniteQuery({
    queryKey: ['drift', query.account],
    queryFn: ({ pageParam }) =>
      api<{ listings: DriftView[]; next: number | null }>(
        `/drift?${query.account ? `account=${query.account}&` : ''}${pageParam ? `after=${pageParam}` : ''}`,
      ),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
    refetchInterval: (q) => ((q.state.data?.pages.length ?? 0) <= 1 ? 10_000 : false),
  });
  const listings = pages.data?.pages.flatMap((page) => page.listings) ?? [];
  const settle: Settle = async (body, said) => {
    try {
      const { settled } = await api<{ settled: number }>('/drift/settle', { method: 'POST', body });
      notice(`${said}: ${settled} ${settled === 1 ? 'field' : 'fields'}`);
    } catch (error) {
      notice(error instanceof Error ? error.message : 'That did not work');
    }
    await client.invalidateQueries();
  };
  const compare = async (account: AccountView) => {
    notice(`Reading everything on ${account.name} …`);
    try {
      const found = await api<{ read: number; differing: number; gone: number; unlinked: number }>(
        `/accounts/${account.id}/compare`,
        { method: 'POST', body: {} },
      );
      notice(
        `${account.name}: ${found.read} read, ${found.differing} changed since, ${found.gone} gone, ${found.unlinked} not linked`,
      );
    } catch (error) {
      notice(error instanceof Error ? error.message : 'It could not be read');
    }
    await client.invalidateQueries();
  };
  const chosen = query.account ? accountOf(query.account) : undefined;
  return (
    <>
      <PageHead title="Differences">
        <AccountSelect value={query.account} choose={(account) => void setQuery({ account })} />
        {chosen ? (
          <button type="button" className="btn btn-sm" onClick={() => void compare(chosen)}>
            Compare all of {chosen.name} now
          </button>
        ) : (
          <span className="quiet">
            Choose an account to compare everything on it now; by night it happens by itself
          </span>
        )}
      </PageHead>
      {pages.isPending ? <Loading what="the differences" /> : null}
      {pages.isError ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      <Gone accountName={(id) => accountOf(id)?.name ?? ''} only={query.account} />
      {pages.data && listings.length === 0 ? (
        <Empty title="Both sides agree">
          <p>When somebody changes a listing on the marketplace itself, it stands here with both values.</p>
        </Empty>
      ) : null}
      {listings.length > 0 ? <Kinds listings={listings} accountOf={accountOf} settle={settle} /> : null}
      <ul aria-label="Listings that differ">
        {listings.map((one) => (
          <DriftRow key={one.listingId} listing={one} account={accountOf(one.accountId)} settle={settle} />
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

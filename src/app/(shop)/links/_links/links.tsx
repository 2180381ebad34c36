'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { parseAsInteger, parseAsString, useQueryStates } from 'nuqs';
import { useState } from 'react';
import { knotLabels } from '@/core/sync/state';
import { AsFile } from '@/ui/controls/as-file';
import { DataTable } from '@/ui/controls/data-table';
import { ItemCell } from '@/ui/controls/item-cell';
import { Knot } from '@/ui/controls/knot';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { AccountSelect, useAccounts } from '@/ui/data/accounts';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { Unlinked } from './unlinked';

/** Own stock number ↔ the marketplace's number: seen, cut, made by matching. */
export function Links() {
  const [query, setQuery] = useQueryStates(
    { account: parseAsInteger, q: parseAsString.withDefault('') },
    { history: 'replace' },
  );
  const [chosen, setChosen] = useState<number[]>([]);
  const { accountOf } = useAccounts();
  const search = { account: query.account ?? undefined, q: query.q || undefined };
  const pages = useInfiniteQuery({
    queryKey: ['links', search],
    queryFn: ({ pageParam }) => api('GET /links', { query: { ...search, after: pageParam || undefined } }),
    initialPageParam: 0,
    getNextPageParam: (page) => page.next ?? undefined,
  });
  const links = pages.data?.pages.flatMap((page) => page.links) ?? [];
  const account = accountOf(query.account);
  const nameOf = (id: number) => accountOf(id)?.name ?? '';
  const cut = useCommand(
    async () => {
      const done = await api('POST /links/cut', { body: { listings: chosen } });
      setChosen([]);
      return `${done.cut} cut. Their listings stay as they are; here they count as not listed`;
    },
    { tells: true },
  );
  return (
    <>
      <PageHead title="Links">
        <AccountSelect
          value={query.account}
          choose={(account) => {
            setChosen([]);
            void setQuery({ account });
          }}
        />
        <input
          type="search"
          aria-label="Stock number, title or their number"
          placeholder="Stock number, title or their number"
          className="input input-sm w-80"
          value={query.q}
          onChange={(event) => void setQuery({ q: event.target.value || null })}
        />
        {chosen.length ? (
          <button type="button" className="btn btn-sm ml-auto" onClick={() => void cut.run()}>
            Cut {chosen.length} {chosen.length === 1 ? 'link' : 'links'}, leave the listings there
          </button>
        ) : null}
        <AsFile of="GET /links/file" what="These links" query={query} />
      </PageHead>
      {account ? <Unlinked key={account.id} account={account} /> : null}
      {pages.isPending ? <Loading what="the links" /> : null}
      {pages.isError ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      {pages.data && links.length === 0 ? (
        <Empty title="No link yet">
          <p>Publish an item, or choose an account above to link what is live there already.</p>
        </Empty>
      ) : null}
      {links.length ? (
        <DataTable
          rows={links}
          idOf={(one) => one.listingId}
          choice={{
            chosen,
            choose: setChosen,
            label: (one) => `Choose the link of ${one.sku} on ${nameOf(one.accountId)}`,
          }}
          columns={[
            { id: 'sku', head: 'Stock number', cellClass: 'mono', cell: (one) => one.sku },
            {
              id: 'item',
              head: 'Item',
              className: 'max-w-96',
              cell: (one) => <ItemCell {...one} href={`/items/${one.itemId}`} />,
            },
            { id: 'account', head: 'Account', cell: (one) => nameOf(one.accountId) },
            {
              id: 'number',
              head: 'Their number',
              cellClass: 'mono',
              cell: (one) =>
                one.url ? (
                  <a className="underline" href={one.url} target="_blank" rel="noreferrer">
                    {one.remoteId}
                  </a>
                ) : (
                  one.remoteId
                ),
            },
            {
              id: 'state',
              head: 'State',
              cell: (one) => (
                <span className="flex items-center gap-2">
                  <Knot state={one.state} />
                  {knotLabels[one.state]}
                </span>
              ),
            },
            {
              id: 'before',
              head: 'Before',
              cellClass: 'quiet mono text-[12px]',
              cell: (one) => one.previous.map((previous) => previous.remoteId).join(', '),
            },
          ]}
        />
      ) : null}
      {pages.hasNextPage ? (
        <button type="button" className="btn btn-sm m-4" onClick={() => void pages.fetchNextPage()}>
          More of them
        </button>
      ) : null}
    </>
  );
}

'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { parseAsInteger, parseAsString, useQueryStates } from 'nuqs';
import { useState } from 'react';
import { knotLabels } from '@/core/sync/state';
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
        <table className="w-full">
          <thead className="bg-base-200 text-left text-[12px]">
            <tr>
              <th scope="col" className="w-10 py-1.5 pl-4">
                <span className="sr-only">Choose</span>
              </th>
              {['Stock number', 'Item', 'Account', 'Their number', 'State', 'Before'].map((name) => (
                <th key={name} scope="col" className="px-2 py-1.5 font-medium">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {links.map((one) => (
              <tr key={one.listingId} className="border-b border-base-300/60">
                <td className="py-1 pl-4">
                  <input
                    type="checkbox"
                    aria-label={`Choose the link of ${one.sku} on ${nameOf(one.accountId)}`}
                    className="checkbox checkbox-sm"
                    checked={chosen.includes(one.listingId)}
                    onChange={(event) =>
                      setChosen(
                        event.target.checked ? [...chosen, one.listingId] : chosen.filter((id) => id !== one.listingId),
                      )
                    }
                  />
                </td>
                <td className="mono px-2 py-1">{one.sku}</td>
                <td className="max-w-96 truncate px-2 py-1">
                  <Link className="hover:underline" href={`/items/${one.itemId}`}>
                    {one.title || 'Untitled'}
                  </Link>
                </td>
                <td className="px-2 py-1">{nameOf(one.accountId)}</td>
                <td className="mono px-2 py-1">
                  {one.url ? (
                    <a className="underline" href={one.url} target="_blank" rel="noreferrer">
                      {one.remoteId}
                    </a>
                  ) : (
                    one.remoteId
                  )}
                </td>
                <td className="px-2 py-1">
                  <span className="flex items-center gap-2">
                    <Knot state={one.state} />
                    {knotLabels[one.state]}
                  </span>
                </td>
                <td className="quiet mono px-2 py-1 text-[12px]">
                  {one.previous.map((previous) => previous.remoteId).join(', ')}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
      {pages.hasNextPage ? (
        <button type="button" className="btn btn-sm m-4" onClick={() => void pages.fetchNextPage()}>
          More of them
        </button>
      ) : null}
    </>
  );
}

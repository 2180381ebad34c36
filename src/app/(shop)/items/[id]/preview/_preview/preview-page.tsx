'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { parseAsInteger, useQueryState } from 'nuqs';
import type { AccountPreview } from '@/services/items/preview-item';
import { Knot } from '@/ui/controls/knot';
import { Link } from '@/ui/controls/link';
import { Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { BuyerView } from './buyer-view';
import { PricePanel } from './price-panel';
import { Values } from './values';

// The chart's code is large and stands at the foot of the page: it comes when the rest is there.
const Comparables = dynamic(() => import('./comparables').then((module) => module.Comparables), {
  loading: () => <Loading what="comparable sales" />,
});

/** What each account would get of one item: the values with their origins, a buyer's view, the prices. */
export function PreviewPage({ itemId }: { itemId: number }) {
  const client = useQueryClient();
  const [chosen, choose] = useQueryState('account', parseAsInteger);
  const { data, isPending, isLoadingError, error, refetch } = useQuery({
    queryKey: ['preview', itemId],
    queryFn: () => api('GET /items/{id}/preview', { params: { id: itemId } }),
  });
  if (isPending) return <Loading what="what each marketplace gets" />;
  if (isLoadingError) return <Failed error={error} retry={() => void refetch()} />;
  const account = data.accounts.find((one) => one.accountId === chosen) ?? data.accounts[0];
  const changed = () => {
    void client.invalidateQueries({ queryKey: ['preview', itemId] });
    void client.invalidateQueries({ queryKey: ['prices', itemId] });
  };
  return (
    <>
      <PageHead title="What each marketplace gets">
        <Link className="underline" href={`/items/${itemId}`}>
          {data.item.title || data.item.sku}
        </Link>
        <span className="mono quiet">{data.item.sku}</span>
      </PageHead>
      {account ? (
        <div className="grid grid-cols-[12rem_minmax(0,1fr)_21rem] max-lg:grid-cols-1">
          <AccountList accounts={data.accounts} chosen={account.accountId} choose={(id) => void choose(id)} />
          <Values itemId={itemId} account={account} changed={changed} />
          <BuyerView account={account} />
        </div>
      ) : (
        <p className="quiet p-6">
          No account is connected yet.{' '}
          <Link className="underline" href="/marketplaces">
            Connect one
          </Link>
          , then look again.
        </p>
      )}
      <PricePanel itemId={itemId} currency={data.item.currency} changed={changed} version={data.item.version} />
      <Comparables itemId={itemId} item={data.item} changed={changed} />
    </>
  );
}

function AccountList({
  accounts,
  chosen,
  choose,
}: {
  accounts: AccountPreview[];
  chosen: number;
  choose: (id: number) => void;
}) {
  return (
    <nav aria-label="Accounts" className="border-r border-base-300 py-2">
      <ul>
        {accounts.map((account) => (
          <li key={account.accountId}>
            <button
              type="button"
              aria-current={account.accountId === chosen ? 'true' : undefined}
              onClick={() => choose(account.accountId)}
              className={`flex w-full items-center gap-2 border-l-2 px-3 py-1.5 text-left hover:bg-base-200 ${account.accountId === chosen ? 'border-base-content bg-base-200 font-semibold' : 'border-transparent'}`}
            >
              <Knot state={account.state} where={account.name} />
              <span className="min-w-0 flex-1 truncate">{account.name}</span>
              {account.blocking ? (
                <span className="figures text-warning" title={`${account.blocking} missing or wrong`}>
                  {account.blocking}
                </span>
              ) : null}
            </button>
          </li>
        ))}
      </ul>
    </nav>
  );
}

'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { AccountCard } from './account-card';
import { ConnectCard } from './connect-card';

/** Connected accounts with their state and defaults, and the marketplaces that can be connected. */
export function Accounts() {
  const client = useQueryClient();
  const params = useSearchParams();
  const { data, isPending, isError, error, refetch } = useQuery({
    queryKey: ['accounts'],
    queryFn: () => api('GET /accounts'),
    refetchInterval: 5_000,
  });
  const changed = () => client.invalidateQueries({ queryKey: ['accounts'] });
  const connected = data?.accounts.find((account) => String(account.id) === params.get('connected'));
  return (
    <>
      <PageHead title="Marketplaces" />
      {params.get('problem') ? (
        <p role="alert" className="m-4 rounded border border-error px-3 py-2">
          {params.get('problem')}
        </p>
      ) : null}
      {connected ? (
        <p role="status" className="m-4 rounded border border-success px-3 py-2">
          {connected.name} is connected. Set its defaults below, then publish, or{' '}
          <Link className="link" href={`/bring-in?account=${connected.id}`}>
            bring in what is listed there
          </Link>
          .
        </p>
      ) : null}
      {isPending ? <Loading what="the accounts" /> : null}
      {isError ? <Failed error={error} retry={() => void refetch()} /> : null}
      {data?.accounts.length === 0 ? (
        <Empty title="No account is connected yet">
          Choose a marketplace below. You sign in there yourself; Netting never sees your password.
        </Empty>
      ) : null}
      {data ? (
        <div className="grid grid-cols-2 gap-4 p-4 max-lg:grid-cols-1">
          {data.accounts.map((account) => (
            <AccountCard key={account.id} account={account} changed={changed} />
          ))}
        </div>
      ) : null}
      {data ? (
        <section aria-labelledby="connect" className="border-t border-base-300 p-4">
          <h2 id="connect" className="mb-2 font-semibold">
            Connect another account
          </h2>
          <ul className="divide-y divide-base-300/60">
            {data.available.map((choice) => (
              <ConnectCard key={choice.market} choice={choice} changed={() => void changed()} />
            ))}
          </ul>
        </section>
      ) : null}
    </>
  );
}

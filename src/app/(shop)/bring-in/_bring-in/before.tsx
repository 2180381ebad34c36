'use client';

import { useQuery } from '@tanstack/react-query';
import type { AccountView } from '@/services/accounts/find-accounts';
import { Link } from '@/ui/controls/link';
import { When } from '@/ui/controls/when';
import { api } from '@/ui/data/api';

const words = { working: 'is under way', asking: 'has questions', done: 'is done' } as const;

/** Which account to begin with, and what was brought in before. */
export function Before({ accounts, choose }: { accounts: AccountView[]; choose: (id: number) => void }) {
  const before = useQuery({ queryKey: ['gatherings'], queryFn: () => api('GET /gatherings') });
  const rows = before.data?.gatherings ?? [];
  return (
    <div className="grid min-h-0 flex-1 grid-cols-2 divide-x divide-base-300 max-lg:grid-cols-1">
      <section aria-label="Accounts" className="overflow-auto p-4">
        <h2 className="mb-2 font-semibold">Where from?</h2>
        <ul>
          {accounts.map((one) => (
            <li key={one.id}>
              <button
                type="button"
                className="flex w-full items-baseline gap-3 rounded px-2 py-1.5 text-left hover:bg-base-200"
                onClick={() => choose(one.id)}
              >
                <span className="w-36 shrink-0 font-medium">{one.name}</span>
                <span className="quiet min-w-0 truncate">{one.about}</span>
                <span className="quiet figures ml-auto shrink-0">{one.live.toLocaleString('en')} linked</span>
              </button>
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="Brought in before" className="overflow-auto p-4">
        <h2 className="mb-2 font-semibold">Brought in before</h2>
        {rows.length === 0 ? (
          <p className="quiet">
            Nothing yet. What was brought in stands here, with what came of it and what is still to be decided.
          </p>
        ) : (
          <ul>
            {rows.map((one) => (
              <li key={one.id} className="flex items-baseline gap-3 py-1">
                <Link className="link" href={`/bring-in/${one.id}`}>
                  {one.title}
                </Link>
                <span className={one.state === 'asking' ? 'text-warning' : 'quiet'}>{words[one.state]}</span>
                <span className="quiet ml-auto">
                  <When at={one.at} /> by {one.byName}
                </span>
              </li>
            ))}
          </ul>
        )}
      </section>
    </div>
  );
}

'use client';

import { skipToken, useQuery } from '@tanstack/react-query';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { Selection } from '@/services/records/items/selection';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { readSelection } from '@/ui/data/selection';
import { useCommand } from '@/ui/data/use-command';

/** A whole shop copied to another marketplace; what is there already is skipped. */
export function Copies() {
  const router = useRouter();
  const params = useSearchParams();
  const [from, setFrom] = useState<number | null>(null);
  const [to, setTo] = useState<number | null>(null);
  const [as, setAs] = useState<'live' | 'draft'>('draft');
  const [takeOwn, setTakeOwn] = useState(true);
  const accounts = useQuery({ queryKey: ['accounts'], queryFn: () => api('GET /accounts') });
  const [selection, setSelection] = useState<Selection | null>(null);
  useEffect(() => setSelection(readSelection(new URLSearchParams(params.toString()))), [params]);
  const chosen = selection ? { selection } : {};
  const body = from !== null && to !== null && from !== to ? { from, to, as, takeOwn, ...chosen } : null;
  const plan = useQuery({
    queryKey: ['copy-plan', from, to, JSON.stringify(selection)],
    queryFn: body ? () => api('POST /copies/plan', { body }) : skipToken,
  });
  const go = useCommand(
    async () => {
      if (!body) return undefined;
      const done = await api('POST /copies', { body });
      router.push(as === 'draft' ? `/?account=${to}&state=draft` : `/outbox?run=${done.runId}`);
      return as === 'draft' ? `${done.copied} kept as drafts` : `${done.queued} are sent`;
    },
    { tells: true },
  );
  if (accounts.isPending) return <Loading what="the accounts" />;
  if (accounts.isError) return <Failed error={accounts.error} retry={() => void accounts.refetch()} />;
  if (accounts.data.accounts.length < 2)
    return <Empty title="Connect a second account first">Then what is live on one can be copied to the other.</Empty>;
  const choose = (label: string, value: number | null, set: (id: number | null) => void) => (
    <label className="flex flex-col gap-1">
      {label}
      <select
        aria-label={label}
        className="select select-sm w-56"
        value={value ?? ''}
        onChange={(event) => set(Number(event.target.value) || null)}
      >
        <option value="">Choose an account</option>
        {accounts.data.accounts.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}, {one.live} live
          </option>
        ))}
      </select>
    </label>
  );
  const found = from !== to ? plan.data : undefined;
  return (
    <>
      <PageHead title={selection ? 'Copy what was chosen' : 'Copy a shop'}>
        {selection ? (
          <>
            <span className="quiet">
              {selection.kind === 'items' ? `${selection.ids.length} chosen` : 'Everything that the filter finds'}
            </span>
            <button type="button" className="btn btn-ghost btn-sm" onClick={() => router.replace('/copies')}>
              The whole shop instead
            </button>
          </>
        ) : null}
      </PageHead>
      <div className="max-w-3xl space-y-4 p-4">
        <p className="quiet">
          {selection ? 'What was chosen and is' : 'Everything that is'} live on one account is told anew for another,
          from the same records and under the same stock numbers. To copy only some of a shop, choose them in the
          inventory and press Copy there.
        </p>
        <div className="flex flex-wrap gap-4">
          {choose('From', from, setFrom)}
          {choose('To', to, setTo)}
          <label className="flex flex-col gap-1">
            As
            <select
              aria-label="As"
              className="select select-sm w-40"
              value={as}
              onChange={(event) => setAs(event.target.value === 'live' ? 'live' : 'draft')}
            >
              <option value="draft">Drafts</option>
              <option value="live">Live now</option>
            </select>
          </label>
        </div>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={takeOwn}
            onChange={(event) => setTakeOwn(event.target.checked)}
          />
          Take the first shop as the model: wording, tags and prices written for it alone go along
        </label>
        {from !== null && from === to ? (
          <p role="alert" className="text-error">
            Choose two different accounts.
          </p>
        ) : null}
        {plan.isError ? <Failed error={plan.error} /> : null}
        {found ? (
          <ul aria-label="What it brings" className="figures space-y-0.5">
            <li>{found.live} live there now</li>
            <li>{found.there} on the other account already, skipped</li>
            {found.leftOut ? <li>{found.leftOut} left out on their sheets, skipped</li> : null}
            <li className="font-semibold">{found.copied} to copy</li>
          </ul>
        ) : null}
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={go.busy || !found || found.copied === 0}
          onClick={() => void go.run()}
        >
          {go.busy ? 'Copying …' : `Copy ${found?.copied ?? 0} ${found?.copied === 1 ? 'listing' : 'listings'}`}
        </button>
      </div>
    </>
  );
}

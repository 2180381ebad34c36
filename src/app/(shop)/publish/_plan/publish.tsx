'use client';

import { keepPreviousData, skipToken, useQuery } from '@tanstack/react-query';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { PublishPlan } from '@/services/listings/publish/plan-publish';
import type { Selection } from '@/services/records/items/selection';
import { duration, Price } from '@/ui/controls/format';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { counted } from '@/ui/data/counted';
import { readSelection } from '@/ui/data/selection';
import { useCommand } from '@/ui/data/use-command';
import { LeftOut } from './left-out';
import { Missing } from './missing';
import { PlanTable } from './plan-table';

type How = 'live' | 'later' | 'draft';

/** What the button does, with its number. */
function buttonWords(how: How, totals: { go: number; fresh: number } | undefined): string {
  // Nothing is counted yet, or nowhere is chosen: no number says that there is nothing to send.
  if (!totals) return { draft: 'Keep as drafts', later: 'Send then', live: 'Send' }[how];
  const count = how === 'draft' ? totals.fresh : totals.go;
  const listings = `${count.toLocaleString('en')} ${count === 1 ? 'listing' : 'listings'}`;
  if (how === 'draft') return `Keep ${listings} as ${count === 1 ? 'a draft' : 'drafts'}`;
  return how === 'later' ? `Send ${listings} then` : `Send ${listings}`;
}

/** First what will happen, what it costs and what is missing; then go. */
export function PublishPage() {
  const params = useSearchParams();
  const router = useRouter();
  const [selection, setSelection] = useState<Selection | null>(null);
  const [ready, setReady] = useState(false);
  const [chosen, setChosen] = useState<number[] | null>(null);
  const [without, setWithout] = useState<{ itemId: number; accountId: number }[]>([]);
  const [left, setLeft] = useState<Record<number, string[]>>({});
  const [how, setHow] = useState<How>('live');
  const [at, setAt] = useState('');
  const accounts = useQuery({ queryKey: ['accounts'], queryFn: () => api('GET /accounts') });
  useEffect(() => {
    const search = new URLSearchParams(params.toString());
    setSelection(readSelection(search));
    const named = (search.get('accounts') ?? '')
      .split(',')
      .map(Number)
      .filter((id) => id > 0);
    if (named.length) setChosen(named);
    setReady(true);
  }, [params]);
  const on = chosen ?? accounts.data?.accounts.map((account) => account.id) ?? [];
  const leave = Object.entries(left).flatMap(([account, fields]) =>
    fields.length && on.includes(Number(account)) ? [{ account: Number(account), fields }] : [],
  );
  const body =
    selection && on.length > 0
      ? { selection, accounts: on, without, leave, as: how === 'draft' ? ('draft' as const) : ('live' as const) }
      : null;
  const plan = useQuery({
    queryKey: ['plan', JSON.stringify(body)],
    queryFn: body ? ({ signal }) => api('POST /publish/plan', { body, signal }) : skipToken,
    placeholderData: keepPreviousData,
  });

  // With no account chosen there is no plan, whatever was shown before.
  const planned = on.length > 0 ? plan.data : undefined;

  const go = useCommand(async () => {
    if (!body) return undefined;
    if (how === 'later') {
      if (!at) throw new Error('Say when it is to go out');
      const when = new Date(at).toISOString();
      const title = `${counted(planned?.itemCount ?? 0, 'item')} to ${counted(on.length, 'account')}`;
      await api('POST /publish/later', { body: { publish: body, at: when, title } });
      router.push('/outbox');
      return undefined;
    }
    const { runId } = await api('POST /publish', { body });
    router.push(how === 'draft' ? '/?stage=drafts' : `/outbox?run=${runId}`);
    return undefined;
  });

  if (!ready || accounts.isPending) return <Loading what="the plan" />;
  if (accounts.isError) return <Failed error={accounts.error} retry={() => void accounts.refetch()} />;
  if (!selection)
    return (
      <Empty title="Choose items first">
        <p>Choose rows or knots in the inventory, then press Publish (or the key P).</p>
        <Link className="btn btn-sm" href="/">
          To the inventory
        </Link>
      </Empty>
    );
  if (accounts.data.accounts.length === 0)
    return (
      <Empty title="Connect a marketplace first">
        <Link className="btn btn-primary btn-sm" href="/marketplaces">
          To the marketplaces
        </Link>
      </Empty>
    );
  const totals = planned?.accounts.reduce(
    (sum, one) => ({
      go: sum.go + one.create + one.update,
      fresh: sum.fresh + one.create + one.notReady,
      fees: sum.fees + one.listingFees,
      seconds: Math.max(sum.seconds, one.seconds),
    }),
    { go: 0, fresh: 0, fees: 0, seconds: 0 },
  );
  return (
    <>
      <PageHead title="Publish">
        <span className="quiet figures">
          {planned ? `${planned.itemCount} ${planned.itemCount === 1 ? 'item' : 'items'}` : ''}
        </span>
        <div className="ml-auto flex items-center gap-3">
          {totals ? (
            <span className="figures">
              Listing fees now <Price amount={totals.fees} />
              {totals.seconds ? <span className="quiet">, about {duration(totals.seconds)}</span> : null}
            </span>
          ) : null}
          <select
            aria-label="How"
            className="select select-sm w-36"
            value={how}
            onChange={(event) => setHow(event.target.value as How)}
          >
            <option value="live">Live now</option>
            <option value="later">At a time</option>
            <option value="draft">As drafts</option>
          </select>
          {how === 'later' ? (
            <input
              type="datetime-local"
              aria-label="When"
              className="input input-sm w-52"
              value={at}
              onChange={(event) => setAt(event.target.value)}
            />
          ) : null}
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={go.busy || !totals || (how === 'draft' ? totals.fresh : totals.go) === 0}
            onClick={() => void go.run()}
          >
            {go.busy ? 'Queuing …' : buttonWords(how, totals)}
          </button>
        </div>
      </PageHead>
      {go.error ? <Failed error={go.error} /> : null}
      <fieldset className="flex flex-wrap gap-x-6 gap-y-1 border-b border-base-300 px-4 py-2">
        <legend className="sr-only">Accounts</legend>
        <button
          type="button"
          className="btn btn-xs"
          onClick={() => setChosen(on.length ? [] : accounts.data.accounts.map((account) => account.id))}
        >
          {on.length ? 'Choose none' : 'Choose all'}
        </button>
        {accounts.data.accounts.map((account) => {
          const line = planned?.accounts.find((one) => one.accountId === account.id);
          return (
            <label key={account.id} className="flex items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={on.includes(account.id)}
                onChange={(event) =>
                  setChosen(event.target.checked ? [...on, account.id] : on.filter((id) => id !== account.id))
                }
              />
              <span className="font-medium">{account.name}</span>
              {line ? (
                <span className="quiet figures">
                  {[
                    line.create ? `${line.create} new` : '',
                    line.update ? `${line.update} changed` : '',
                    line.nothing ? `${line.nothing} as they are` : '',
                  ]
                    .filter(Boolean)
                    .join(', ') || 'nothing'}
                  {line.notReady ? <span className="text-warning">, {line.notReady} not ready</span> : null}
                  {line.days.length
                    ? `: ${daysInWords(line.days)}`
                    : line.seconds > 60
                      ? `, about ${duration(line.seconds)}`
                      : ''}
                  {line.holdup ? <span className="text-warning">. {line.holdup}</span> : null}
                  {line.isBare ? (
                    <Link className="text-warning underline" href={`/marketplaces/${account.id}`}>
                      . Nothing is set for it yet
                    </Link>
                  ) : null}
                </span>
              ) : null}
            </label>
          );
        })}
      </fieldset>
      {planned ? <LeftOut plan={planned} left={left} leave={setLeft} /> : null}
      {on.length === 0 ? <Empty title="Choose at least one account" /> : null}
      {plan.isError ? <Failed error={plan.error} retry={() => void plan.refetch()} /> : null}
      {plan.isLoading ? <Loading what="the plan" /> : null}
      {planned && planned.causes.length > 0 ? <Missing plan={planned} accounts={accounts.data.accounts} /> : null}
      {planned && on.length > 0 ? (
        <PlanTable
          plan={planned}
          accounts={accounts.data.accounts.filter((account) => on.includes(account.id))}
          leaveOut={(knot) => setWithout([...without, knot])}
        />
      ) : null}
    </>
  );
}

const shownDays = 4;
const dayWords = (on: string) =>
  new Date(on).toLocaleDateString('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' });

/** So many new listings on which days; of many days the first ones and the last. */
function daysInWords(days: PublishPlan['accounts'][number]['days']): string {
  const told = (some: typeof days) => some.map(({ on, count }) => `${count} on ${dayWords(on)}`).join(', ');
  return days.length <= shownDays ? told(days) : `${told(days.slice(0, shownDays - 1))} … ${told(days.slice(-1))}`;
}

'use client';

import { useInfiniteQuery, useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { parseAsInteger, parseAsString, parseAsStringLiteral, useQueryStates } from 'nuqs';
import { useState } from 'react';
import { AsFile } from '@/ui/controls/as-file';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { AccountSelect, useAccounts } from '@/ui/data/accounts';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { Before } from './before';
import { ChoiceBar } from './choice-bar';
import { FoundHead } from './found-head';
import { FoundTable } from './found-table';
import { useChoice } from './use-choice';

const states = ['live', 'review', 'off', 'ended', 'sold', 'refused'] as const;
const onlys = ['open', 'in', 'all'] as const;

/** What is listed on one's accounts, whoever put it there, to be chosen and made items of. */
export function BringIn() {
  const router = useRouter();
  const client = useQueryClient();
  const [query, setQuery] = useQueryStates(
    {
      account: parseAsInteger,
      state: parseAsStringLiteral(states),
      section: parseAsString,
      q: parseAsString.withDefault(''),
      only: parseAsStringLiteral(onlys).withDefault('open'),
    },
    { history: 'replace' },
  );
  const [problem, setProblem] = useState('');
  const { accounts, accountOf } = useAccounts();
  const account = accountOf(query.account);
  const choice = useChoice(account?.id ?? null);
  const filter = {
    account: account?.id ?? 0,
    ...(query.state ? { state: query.state } : {}),
    ...(query.section ? { section: query.section } : {}),
    ...(query.q ? { q: query.q } : {}),
    ...(query.only === 'all' ? {} : { only: query.only }),
  };
  const found = useInfiniteQuery({
    queryKey: ['found', filter],
    enabled: account !== undefined,
    queryFn: ({ pageParam }) => api('GET /found', { query: { ...filter, after: pageParam || undefined } }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next ?? undefined,
    // Grows while it is being read.
    refetchInterval: ({ state }) =>
      state.data?.pages.some((page) => page.reading && page.reading.state !== 'failed') ? 1_000 : false,
  });
  const read = useCommand(
    async () => {
      if (account) await api('POST /accounts/{id}/found', { params: { id: account.id } });
      return undefined;
    },
    { touches: [['found']], tells: true },
  );
  const narrow = (part: Parameters<typeof setQuery>[0]) => {
    // What all of them are is another matter from here on.
    if (choice.isAll) choice.forgetHere();
    void setQuery(part);
  };
  const begin = async (mode: 'at-once' | 'one-by-one', prefer: Record<string, string>) => {
    setProblem('');
    try {
      const { id } = await api('POST /gatherings', { body: { choices: choice.choices, mode, prefer } });
      choice.forget();
      void client.invalidateQueries({ queryKey: ['gatherings'] });
      router.push(`/bring-in/${id}`);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : 'That did not work');
    }
  };
  const rows = found.data?.pages.flatMap((page) => page.found) ?? [];
  const [first] = found.data?.pages ?? [];
  return (
    <div className="flex flex-col lg:h-[calc(100dvh-var(--frame))]">
      <PageHead title="Bring in">
        <AccountSelect
          value={query.account}
          all="Choose an account"
          choose={(id) => void setQuery({ account: id, state: null, section: null, q: null, only: null })}
        />
        {account ? (
          <FoundHead page={first} reading={read.busy} read={() => void read.run()} account={account} />
        ) : (
          <p className="quiet">What you have listed already becomes items that stay linked with it. Nothing is sent.</p>
        )}
        {account ? <AsFile of="GET /found/file" what="What was found" query={filter} /> : null}
      </PageHead>
      {account ? (
        <>
          <search className="flex flex-wrap items-center gap-2 border-b border-base-300 px-4 py-1.5">
            <select
              aria-label="Which of them"
              className="select select-sm w-40"
              value={query.only}
              onChange={(event) => narrow({ only: event.target.value as (typeof onlys)[number] })} // one of the options below
            >
              <option value="open">Not in yet</option>
              <option value="in">In already</option>
              <option value="all">All of them</option>
            </select>
            <select
              aria-label="State there"
              className="select select-sm w-40"
              value={query.state ?? ''}
              onChange={(event) => narrow({ state: (event.target.value || null) as (typeof states)[number] | null })} // one of the options below
            >
              <option value="">Every state</option>
              {first?.states.map((one) => (
                <option key={one.name} value={one.name}>
                  {stateWords[one.name]} ({one.count})
                </option>
              ))}
            </select>
            <select
              aria-label="Section"
              className="select select-sm w-52"
              value={query.section ?? ''}
              onChange={(event) => narrow({ section: event.target.value || null })}
            >
              <option value="">Every section</option>
              {first?.sections.map((one) => (
                <option key={one.name} value={one.name}>
                  {one.name} ({one.count})
                </option>
              ))}
            </select>
            <input
              type="search"
              aria-label="Words, stock number or their number"
              placeholder="Words, stock number or their number"
              className="input input-sm w-80"
              value={query.q}
              onChange={(event) => narrow({ q: event.target.value || null })}
            />
          </search>
          <div className="min-h-0 flex-1 overflow-auto">
            {found.isPending ? <Loading what="what was found" /> : null}
            {found.isError ? <Failed error={found.error} retry={() => void found.refetch()} /> : null}
            {first && rows.length === 0 ? (
              <NothingFound page={first} read={() => void read.run()} name={account.name} />
            ) : null}
            {rows.length ? <FoundTable rows={rows} account={account} choice={choice} words={stateWords} /> : null}
            {found.hasNextPage ? (
              <p className="px-4 py-2">
                <button
                  type="button"
                  className="btn btn-sm"
                  disabled={found.isFetchingNextPage}
                  onClick={() => void found.fetchNextPage()}
                >
                  Show more of {first?.total.toLocaleString('en')}
                </button>
              </p>
            ) : null}
          </div>
          <ChoiceBar
            choice={choice}
            total={query.only === 'in' ? 0 : (first?.total ?? 0)}
            takeAll={() => choice.takeAll({ ...filter, only: 'open' }, first ? openOf(first, query.only) : 0)}
            nameOf={(id) => accountOf(id)?.name ?? ''}
            problem={problem}
            begin={(mode, prefer) => void begin(mode, prefer)}
          />
        </>
      ) : accounts.length ? (
        <Before accounts={accounts} choose={(id) => void setQuery({ account: id })} />
      ) : (
        <Empty title="No account is connected yet">
          <p>
            <Link className="link" href="/marketplaces">
              Connect the one on which you have listed most
            </Link>
            ; what stands there is brought in from here.
          </p>
        </Empty>
      )}
    </div>
  );
}

const stateWords = {
  live: 'Live',
  review: 'In review',
  off: 'Switched off',
  ended: 'Ended',
  sold: 'Sold',
  refused: 'Refused',
} as const;

type Page = { total: number; read: number; in: number; reading: unknown };
/** With those that are in already in sight, how many are not is known of the whole account alone. */
const openOf = (page: Page, only: (typeof onlys)[number]) => (only === 'open' ? page.total : page.read - page.in);

function NothingFound({ page, read, name }: { page: Page; read: () => void; name: string }) {
  if (page.reading) return <Empty title={`Reading what is on ${name} …`}>It may be left; it goes on.</Empty>;
  if (page.read === 0)
    return (
      <Empty title={`What is on ${name} was not read yet`}>
        <button type="button" className="btn btn-primary btn-sm" onClick={read}>
          Read what is there
        </button>
      </Empty>
    );
  return (
    <Empty
      title={page.read === page.in ? 'Everything that was found there is in already' : 'Nothing there is like this'}
    >
      <p>
        {page.read.toLocaleString('en')} were found, {page.in.toLocaleString('en')} of them are in.
      </p>
    </Empty>
  );
}

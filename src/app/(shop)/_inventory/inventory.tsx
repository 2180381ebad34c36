'use client';

import { keepPreviousData, useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { debounce, useQueryStates } from 'nuqs';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { addressOf } from '@/core/filter/address';
import type { Selection } from '@/services/records/items/selection';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { foundIds } from '@/ui/data/found-ids';
import { filterSelection, standingSteps, withSelection } from '@/ui/data/selection';
import { useCommand } from '@/ui/data/use-command';
import { type Chosen, keepChosen, keptChosen, noneChosen } from './chosen';
import { ChosenBar, mostOneByOne } from './chosen-bar';
import { ColumnMenu } from './column-menu';
import { type ColumnPreferences, columnsFor, keepPreferences, readPreferences } from './columns';
import { FilterBar } from './filter-bar';
import { filterOf, firstRows, inventoryParams, nothingSaid } from './filters';
import { Net } from './net';

// Fetched when something is to be ended.
const EndDialog = dynamic(() => import('@/ui/controls/end-dialog').then((module) => module.EndDialog));

/** Rows of each further page. */
const furtherRows = 100;
const countAfterMs = 200;
const addressAfterMs = 250;

/** The inventory as the net itself: rows are items, columns are accounts, where they cross is the listing. */
export function Inventory() {
  const router = useRouter();
  const client = useQueryClient();
  const [query, setQuery] = useQueryStates(inventoryParams, { history: 'replace' });
  const filter = useMemo(() => filterOf(query), [query]);
  const [chosen, setChosenHere] = useState<Chosen>(noneChosen);
  const [ending, setEnding] = useState<{ selection: Selection; only?: number[] } | null>(null);
  const [preferences, setPreferences] = useState<ColumnPreferences>({
    hidden: ['brand', 'category', 'cost'],
    widths: {},
  });
  useEffect(() => setPreferences(readPreferences()), []);
  const keep = (next: ColumnPreferences) => {
    setPreferences(next);
    keepPreferences(next);
  };

  const accounts = useQuery({ queryKey: ['accounts'], queryFn: () => api('GET /accounts') });
  const search = useMemo(() => ({ ...filter, sort: query.sort, dir: query.dir }), [filter, query.sort, query.dir]);
  const pages = useInfiniteQuery({
    queryKey: ['items', search],
    queryFn: ({ pageParam, signal }) =>
      api('GET /items', {
        query: { ...search, after: pageParam || undefined, limit: pageParam ? furtherRows : firstRows },
        signal,
      }),
    initialPageParam: '',
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: keepPreviousData,
    refetchInterval: (q) => ((q.state.data?.pages.length ?? 0) <= 3 ? 4_000 : false),
  });
  const filterKey = JSON.stringify(filter);
  const count = useQuery({
    queryKey: ['items-count', filterKey],
    queryFn: async ({ signal }) => {
      // Whoever is still typing waits for rows, not for their number.
      await new Promise((resolve) => setTimeout(resolve, countAfterMs));
      signal.throwIfAborted();
      return api('GET /items/count', { query: filter, signal });
    },
    placeholderData: keepPreviousData,
    enabled: pages.isSuccess && !pages.isPlaceholderData,
  });
  // A new filter means another set: what was chosen is let go. Coming back to the same one finds it again.
  useEffect(() => setChosenHere(keptChosen(filterKey)), [filterKey]);
  const setChosen = useCallback(
    (next: Chosen) => {
      setChosenHere(next);
      keepChosen(filterKey, next);
    },
    [filterKey],
  );

  const items = useMemo(() => pages.data?.pages.flatMap((page) => page.items) ?? [], [pages.data]);
  const all = useMemo(() => columnsFor(accounts.data?.accounts ?? []), [accounts.data]);
  const columns = useMemo(
    () =>
      all
        .filter((column) => !preferences.hidden.includes(column.id))
        .map((column) => ({ ...column, width: preferences.widths[column.id] ?? column.width })),
    [all, preferences],
  );
  const total = count.data?.count ?? 0;
  const number = chosen.all ? total - chosen.ids.size : chosen.ids.size;
  const selection = useCallback(
    (): Selection => (chosen.all ? filterSelection(filter, [...chosen.ids]) : { kind: 'items', ids: [...chosen.ids] }),
    [chosen, filter],
  );
  const chooseFirst = useCommand(
    async (count: number) => {
      const ids = await foundIds(search, Math.min(count, mostOneByOne));
      setChosen({ all: false, ids: new Set(ids) });
      return undefined;
    },
    { tells: true },
  );
  // The names are those of the parameters; each value is parsed again when the address is read.
  const change = useCallback(
    (next: object) =>
      void setQuery(
        next as Parameters<typeof setQuery>[0],
        // While words are typed the rows follow each letter, the address the pause after them.
        Object.keys(next).join() === 'q' ? { limitUrlUpdates: debounce(addressAfterMs) } : {},
      ),
    [setQuery],
  );

  return (
    <div className="flex h-[calc(100dvh-var(--frame))] flex-col">
      <PageHead title="Inventory">
        <FilterBar
          filter={filter}
          accounts={accounts.data?.accounts ?? []}
          change={change}
          order={{ sort: query.sort, dir: query.dir }}
          open={({ filter: kept, sort, dir }) =>
            change({ ...nothingSaid, q: null, stage: null, ...addressOf(kept), sort, dir })
          }
        />
        <span className="quiet figures ml-auto" role="status">
          {count.data ? `${total.toLocaleString('en')} ${total === 1 ? 'item' : 'items'}` : ''}
        </span>
        <ColumnMenu columns={all} preferences={preferences} change={keep} />
      </PageHead>
      {pages.isPending || accounts.isPending ? <Loading what="the inventory" /> : null}
      {pages.isError ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      {pages.data && items.length === 0 ? (
        <NothingHere filtered={Object.keys(filter).length > 0} reset={() => void setQuery(null)} />
      ) : null}
      <div className="relative flex min-h-0 flex-1 flex-col">
        {number > 0 ? (
          <ChosenBar
            number={number}
            total={total}
            all={chosen.all}
            change={() => router.push(withSelection('/workbench', selection()))}
            publish={() => router.push(withSelection('/publish', selection()))}
            end={() => setEnding({ selection: selection() })}
            putAway={() => router.push(withSelection('/workbench', selection(), { steps: standingSteps('archived') }))}
            copy={() => router.push(withSelection('/copies', selection()))}
            labels={() => router.push(withSelection('/labels', selection()))}
            writeOut={() => router.push(withSelection('/files', selection()))}
            chooseAll={() => setChosen({ all: true, ids: new Set() })}
            chooseFirst={(count) => void chooseFirst.run(count)}
            chooseNone={() => setChosen(noneChosen)}
          />
        ) : null}
        {ending ? <EndDialog {...ending} close={() => setEnding(null)} /> : null}
        {items.length > 0 && accounts.data ? (
          <Net
            isBarShown={number > 0}
            items={items}
            total={total}
            columns={columns}
            sort={{ by: query.sort, dir: query.dir }}
            onSort={(by) => void setQuery({ sort: by, dir: query.sort === by && query.dir === 'asc' ? 'desc' : 'asc' })}
            chosen={chosen}
            choose={setChosen}
            resize={(id, width) => keep({ ...preferences, widths: { ...preferences.widths, [id]: width } })}
            more={() => {
              if (pages.hasNextPage && !pages.isFetchingNextPage) void pages.fetchNextPage();
            }}
            saved={() => void client.invalidateQueries({ queryKey: ['items'] })}
            act={(what) =>
              number > 0 && router.push(withSelection(what === 'change' ? '/workbench' : '/publish', selection()))
            }
            endKnots={(ids, only) => setEnding({ selection: { kind: 'items', ids }, only })}
            publishKnots={(ids, accountIds) =>
              router.push(withSelection('/publish', { kind: 'items', ids }, { accounts: accountIds.join(',') }))
            }
          />
        ) : null}
      </div>
    </div>
  );
}

function NothingHere({ filtered, reset }: { filtered: boolean; reset: () => void }) {
  if (filtered)
    return (
      <Empty title="No item fits these filters">
        <button type="button" className="btn btn-sm" onClick={reset}>
          Remove all filters
        </button>
      </Empty>
    );
  return (
    <Empty title="Record your first item">
      <p>
        Press New item above (or the key N), add its photos, and write what it is. Connect a marketplace to send it
        there.
      </p>
      <p>
        What you have listed already need not be typed again:{' '}
        <a className="link" href="/bring-in">
          bring in what you have
        </a>
        .
      </p>
    </Empty>
  );
}

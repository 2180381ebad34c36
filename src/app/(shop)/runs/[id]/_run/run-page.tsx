'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { RunChanges, RunItem } from '@/services/changes/undo/find-run-changes';
import { AsFile } from '@/ui/controls/as-file';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { ItemCell } from '@/ui/controls/item-cell';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { When } from '@/ui/controls/when';
import { useAccounts } from '@/ui/data/accounts';
import { api } from '@/ui/data/api';
import { counted, countedAre } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';

type Row = RunItem['changes'][number] & { item: RunItem; isFirst: boolean };

const stateWords: Record<Row['state'], string> = {
  'as-made': 'as the change made it',
  'changed-since': 'changed since',
  'taken-back': 'taken back',
};

/** What a change of many did to each item, with the way back: all of it, or what is chosen. */
export function RunPage({ runId }: { runId: number }) {
  const { accountOf } = useAccounts();
  const [chosen, setChosen] = useState<number[]>([]);
  const [send, setSend] = useState(true);
  const [left, setLeft] = useState(0);
  const pages = useInfiniteQuery({
    queryKey: ['run-changes', runId],
    queryFn: ({ pageParam, signal }) =>
      api('GET /runs/{id}/changes', { params: { id: runId }, query: { after: pageParam }, signal }),
    initialPageParam: 0,
    getNextPageParam: (page: RunChanges) => page.next ?? undefined,
  });
  const undo = useCommand(async (changes: number[] | null) => {
    const body = changes ? { send, overwrite: changes } : { send };
    const undone = await api('POST /runs/{id}/undo', { params: { id: runId }, body });
    setChosen([]);
    setLeft(undone.changedSince.length);
    return undone.finished
      ? `${countedAre(undone.items, 'item')} as before`
      : 'It is being taken back; the foot of every page tells how far it is';
  });
  const run = pages.data?.pages[0]?.run;
  if (pages.isPending) return <Loading what="the change" />;
  if (pages.isError) return <Failed error={pages.error} retry={() => void pages.refetch()} />;
  if (!run) return null;
  const rows = pages.data.pages
    .flatMap((page) => page.items)
    .flatMap((item) => item.changes.map((one, index): Row => ({ ...one, item, isFirst: index === 0 })));
  const isRedo = run.kind === 'undo';
  const canBe = (row: Row) => row.state !== 'taken-back';
  const columns: Column<Row>[] = [
    {
      id: 'item',
      head: 'Item',
      className: 'max-w-64',
      cell: ({ item, isFirst }) =>
        isFirst ? <ItemCell {...item} href={`/items/${item.id}`} below={item.sku} /> : null,
    },
    {
      id: 'field',
      head: 'Field',
      cell: (row) => (
        <>
          {row.field}
          {row.accountId === null ? '' : `, ${accountOf(row.accountId)?.name ?? 'an account'}`}
          {row.combination ? <span className="quiet block">{row.combination}</span> : null}
        </>
      ),
    },
    {
      id: 'before',
      head: 'Before',
      className: 'max-w-56',
      cellClass: 'break-words',
      cell: (row) => row.before || none,
    },
    {
      id: 'made',
      head: 'By this change',
      className: 'max-w-56',
      cellClass: 'break-words',
      cell: (row) => row.made || none,
    },
    {
      id: 'now',
      head: 'Now',
      className: 'max-w-56',
      cellClass: 'break-words',
      cell: (row) =>
        row.state === 'changed-since' ? <b className="font-semibold">{row.now || none}</b> : row.now || none,
    },
    {
      id: 'state',
      head: 'State',
      cell: (row) => (
        <span className={row.state === 'changed-since' ? 'text-warning' : 'quiet'}>{stateWords[row.state]}</span>
      ),
    },
  ];
  return (
    <>
      <PageHead title={isRedo ? 'Taken back' : 'What a change did'}>
        <span className="truncate" title={run.title}>
          {run.title}
        </span>
        <span className="quiet whitespace-nowrap">
          {counted(run.itemCount, 'item')}, <When at={run.at} />, {run.byName}
        </span>
        <Link className="btn btn-ghost btn-sm ml-auto" href={`/outbox?run=${run.id}`}>
          What was sent of it
        </Link>
        <AsFile of="GET /runs/{id}/changes/file" what="These values" params={{ id: run.id }} />
      </PageHead>
      {undo.problem ? <Failed error={undo.error} /> : null}
      {rows.length === 0 ? (
        <Empty title="Nothing is known of it any more">
          <p>Changes are kept as long as the settings say; those of this one are gone.</p>
        </Empty>
      ) : (
        <>
          <div className="flex flex-wrap items-center gap-3 border-b border-base-300 bg-base-200 px-4 py-1.5">
            <button
              type="button"
              className="btn btn-sm"
              disabled={undo.busy || run.undoneBy !== null}
              onClick={() => void undo.run(null)}
            >
              {run.undoneBy === null
                ? `${isRedo ? 'Do again' : 'Take back'} all ${counted(run.itemCount, 'item')}`
                : 'Taken back as a whole'}
            </button>
            <button
              type="button"
              className="btn btn-primary btn-sm"
              disabled={undo.busy || chosen.length === 0}
              onClick={() => void undo.run(chosen)}
            >
              {isRedo ? 'Do again' : 'Take back'} {counted(chosen.length, 'chosen value')}
            </button>
            <label className="flex items-center gap-1.5">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={send}
                onChange={(event) => setSend(event.target.checked)}
              />
              and send
            </label>
            <span className="quiet">
              {left > 0
                ? `${counted(left, 'value')} changed since ${left === 1 ? 'stays as it is' : 'stay as they are'}: choose one to take it back all the same.`
                : 'What was changed since stays as it is, unless it is chosen here.'}
            </span>
          </div>
          <DataTable
            rows={rows}
            columns={columns}
            idOf={(row) => row.id}
            choice={{
              chosen,
              choose: setChosen,
              all: 'Choose all that are shown',
              label: (row) => `Choose ${row.field} of ${row.item.sku}`,
              canBe,
            }}
            rowClass={(row) => (canBe(row) ? '' : 'quiet')}
          />
          {pages.hasNextPage ? (
            <button type="button" className="btn btn-sm m-4" onClick={() => void pages.fetchNextPage()}>
              More items
            </button>
          ) : null}
        </>
      )}
    </>
  );
}

const none = <span className="quiet">nothing</span>;

'use client';

import { useInfiniteQuery } from '@tanstack/react-query';
import { parseAsInteger, useQueryState } from 'nuqs';
import { useState } from 'react';
import type { UnsentListing } from '@/services/outbox/find-unsent';
import { AsFile } from '@/ui/controls/as-file';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { ItemCell } from '@/ui/controls/item-cell';
import { Link } from '@/ui/controls/link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { AccountSelect, useAccounts } from '@/ui/data/accounts';
import { api } from '@/ui/data/api';
import { counted, countedAre } from '@/ui/data/counted';
import { useCommand } from '@/ui/data/use-command';
import { PhotoRow } from '@/ui/photos/photo-row';

type Row = UnsentListing['fields'][number] & { id: number; listing: UnsentListing; isFirst: boolean };

/** A number for each field of each listing, for as long as the page is open. */
const rowId = (listingId: number, at: number) => listingId * 1_000 + at;
const none = <span className="quiet">nothing</span>;

/** What was changed and not sent, field by field: chosen fields of chosen listings are sent from here. */
export function Changed() {
  const [account, setAccount] = useQueryState('account', parseAsInteger.withOptions({ history: 'replace' }));
  const { accountOf } = useAccounts();
  const [chosen, setChosen] = useState<number[]>([]);
  const [only, setOnly] = useState<string[]>([]);
  const pages = useInfiniteQuery({
    queryKey: ['unsent', account],
    queryFn: ({ pageParam, signal }) =>
      api('GET /unsent', { query: { account: account ?? undefined, after: pageParam }, signal }),
    initialPageParam: 0,
    getNextPageParam: (page: { next: number | null }) => page.next ?? undefined,
    refetchInterval: (query) => ((query.state.data?.pages.length ?? 0) <= 2 ? 8_000 : false),
  });
  const all = (pages.data?.pages.flatMap((page) => page.listings) ?? []).flatMap((listing) =>
    listing.fields.map((one, at): Row => ({ ...one, id: rowId(listing.listingId, at), listing, isFirst: at === 0 })),
  );
  const offered = [...new Map(all.map(({ field, label }) => [field, label]))];
  // What is no longer among them is asked for no more.
  const wanted = only.filter((field) => offered.some(([one]) => one === field));
  const rows = wanted.length ? all.filter((row) => wanted.includes(row.field)) : all;
  const taken = rows.filter((row) => chosen.includes(row.id));
  const send = useCommand(async (what: 'chosen' | 'all') => {
    const listings = [...new Set(taken.map((row) => row.listing))].map((listing) => ({
      id: listing.listingId,
      fields: taken.filter((row) => row.listing === listing).map((row) => row.field),
    }));
    const fields = wanted.length ? wanted : undefined;
    const body = what === 'all' ? { all: true as const, account: account ?? undefined, fields } : { listings };
    const { queued } = await api('POST /unsent/send', { body });
    setChosen([]);
    return `${countedAre(queued, 'listing')} on ${queued === 1 ? 'its' : 'their'} way`;
  });
  const wantedWords = offered
    .flatMap(([field, label]) => (wanted.includes(field) ? [label.toLowerCase()] : []))
    .join(', ');
  const where = account === null ? 'everywhere' : `on ${accountOf(account)?.name ?? 'this account'}`;
  const columns: Column<Row>[] = [
    {
      id: 'item',
      head: 'Item',
      className: 'max-w-64',
      cell: ({ listing, isFirst }) =>
        isFirst ? <ItemCell {...listing} href={`/items/${listing.itemId}`} below={listing.sku} /> : null,
    },
    {
      id: 'account',
      head: 'Account',
      cell: ({ listing, isFirst }) =>
        isFirst ? (
          <>
            {accountOf(listing.accountId)?.name}
            {listing.busy ? <span className="quiet block">on its way</span> : null}
            {listing.problem ? <span className="block text-warning">{listing.problem}</span> : null}
          </>
        ) : null,
    },
    { id: 'field', head: 'Field', cell: (row) => row.label },
    {
      id: 'there',
      head: 'There',
      className: 'max-w-72',
      cellClass: 'break-words',
      cell: (row) =>
        row.photos?.there.length ? <PhotoRow references={row.photos.there} label="There" /> : row.there || none,
    },
    {
      id: 'wanted',
      head: 'Here',
      className: 'max-w-72',
      cellClass: 'break-words',
      cell: (row) =>
        row.photos?.wanted.length ? (
          <PhotoRow references={row.photos.wanted} label="As they will stand there" />
        ) : (
          row.wanted || none
        ),
    },
  ];
  return (
    <>
      <PageHead title="Changed">
        <AccountSelect value={account} choose={(id) => void setAccount(id)} />
        <Link className="btn btn-ghost btn-sm" href="/?stage=changed">
          As rows of the inventory
        </Link>
        <button
          type="button"
          className="btn btn-sm ml-auto"
          disabled={send.busy || rows.length === 0}
          onClick={() => void send.run('all')}
        >
          Send {wanted.length ? wantedWords : 'everything'} {where}
        </button>
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={send.busy || taken.length === 0}
          onClick={() => void send.run('chosen')}
        >
          Send {counted(taken.length, 'chosen field')}
        </button>
        <AsFile of="GET /unsent/file" what="These changes" query={{ account }} />
      </PageHead>
      {offered.length > 1 ? (
        <fieldset className="flex flex-wrap gap-1 border-b border-base-300 px-4 py-1.5">
          <legend className="sr-only">Only these fields</legend>
          <span className="quiet self-center pr-1 text-[12px]">Only</span>
          {offered.map(([field, label]) => {
            const isWanted = wanted.includes(field);
            return (
              <button
                key={field}
                type="button"
                aria-pressed={isWanted}
                className={`btn btn-xs ${isWanted ? 'bg-base-300' : 'btn-ghost'}`}
                onClick={() => setOnly(isWanted ? wanted.filter((one) => one !== field) : [...wanted, field])}
              >
                {label}
              </button>
            );
          })}
        </fieldset>
      ) : null}
      {send.problem ? <Failed error={send.error} /> : null}
      {pages.isPending ? <Loading what="what was changed" /> : null}
      {pages.isError ? <Failed error={pages.error} retry={() => void pages.refetch()} /> : null}
      {pages.data && rows.length === 0 ? (
        <Empty title={`Nothing waits to be sent ${where}`}>
          <p>What you save without sending stands here, field by field, until you send it.</p>
        </Empty>
      ) : null}
      {rows.length ? (
        <DataTable
          rows={rows}
          columns={columns}
          idOf={(row) => row.id}
          choice={{
            chosen,
            choose: setChosen,
            all: 'Choose all that are shown',
            label: (row) =>
              `Choose ${row.label} of ${row.listing.sku} on ${accountOf(row.listing.accountId)?.name ?? 'its account'}`,
          }}
        />
      ) : null}
      {pages.hasNextPage ? (
        <button type="button" className="btn btn-sm m-4" onClick={() => void pages.fetchNextPage()}>
          More listings
        </button>
      ) : null}
    </>
  );
}

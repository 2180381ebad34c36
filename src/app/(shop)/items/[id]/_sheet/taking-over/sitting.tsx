'use client';

import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { useCallback, useMemo } from 'react';
import { type ItemField, isPatchable } from '@/core/item/item';
import { Link } from '@/ui/controls/link';
import { api } from '@/ui/data/api';
import { useCommand } from '@/ui/data/use-command';
import { usePageActions } from '@/ui/frame/actions';

/** So many items are written in one request. */
const atOnce = 50;

type Props = {
  id: number;
  itemId: number;
  /** Everything that was typed is stored when it is done. */
  settle: () => Promise<number>;
  /** Changes when something was stored: what is missing is asked for anew. */
  version: number;
};

/**
 * Items that were brought in are looked through one after the other: which one this is, what the marketplace does not know
 * of it, what is missing with the others that wait, and the one key that goes on.
 */
export function Sitting({ id, itemId, settle, version }: Props) {
  const router = useRouter();
  const sitting = useQuery({
    queryKey: ['sitting', id, itemId, version],
    queryFn: () => api('GET /gatherings/{id}/sitting/{item}', { params: { id, item: itemId } }),
    placeholderData: (before) => before,
  });
  const next = useCommand(
    async () => {
      await settle();
      const { next, at } = await api('POST /gatherings/{id}/sitting/{item}', { params: { id, item: itemId } });
      router.push(next === null ? `/bring-in/${id}` : `/items/${next}?sitting=${id}${at ? `&at=${at}` : ''}`);
      return undefined;
    },
    { touches: [['sitting'], ['gatherings']], tells: true },
  );
  const { run } = next;
  const go = useCallback(() => void run(), [run]);
  usePageActions(
    useMemo(
      () => [{ label: 'Save and next', hint: 'Of those that were brought in', keys: 'Ctrl Enter', run: go }],
      [go],
    ),
  );
  const data = sitting.data;
  const takeOver = useCommand(
    async (field: ItemField, label: string, to: number[]) => {
      const from = await settle();
      let changed = 0;
      for (let at = 0; at < to.length; at += atOnce) {
        const body = { from, fields: [field], to: to.slice(at, at + atOnce) };
        changed += (await api('POST /items/take-over', { body })).changed.length;
      }
      return `${label} taken over into ${changed} more`;
    },
    { touches: [['sitting'], ['items']], tells: true },
  );
  if (!data || data.at === null) return null;
  const lacks = new Set(data.missing.map((one) => one.field));
  // What others lack and this one says can be taken over into them.
  const offered = data.waiting.filter((one) => !lacks.has(one.field) && one.count > 0);
  return (
    <section
      aria-label="Look through"
      className="flex flex-wrap items-center gap-x-3 gap-y-1 border-b border-base-300 bg-base-200 px-4 py-1.5 text-[13px]"
    >
      <Link className="link" href={`/bring-in/${id}`}>
        {data.title}
      </Link>
      <span>
        {data.at} of {data.total}, {data.done} looked through
      </span>
      <span role="status">
        {data.missing.length ? (
          <span className="text-warning">Not known there: {data.missing.map((one) => one.label).join(', ')}</span>
        ) : (
          'Nothing is missing in the record'
        )}
      </span>
      {data.accounts.length ? (
        <span className="quiet" title="Of those that wait: on how many something is missing">
          Missing: {data.accounts.map((one) => `${one.name} ${one.count}`).join(', ')}
        </span>
      ) : null}
      <span className="ml-auto flex flex-wrap items-center gap-2">
        {offered.map(({ field, label, count, items }) =>
          isPatchable(field) ? (
            <button
              key={field}
              type="button"
              className="btn btn-xs"
              disabled={takeOver.busy}
              onClick={() => void takeOver.run(field, label, items)}
            >
              {label} also for {count.toLocaleString('en')} without
            </button>
          ) : null,
        )}
        <button type="button" className="btn btn-primary btn-sm" disabled={next.busy} onClick={go}>
          {data.next === null ? 'Save, that was the last' : 'Save and next'}{' '}
          <kbd className="kbd kbd-xs">Ctrl Enter</kbd>
        </button>
      </span>
    </section>
  );
}

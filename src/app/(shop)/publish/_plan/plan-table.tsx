'use client';

import { useState } from 'react';
import type { KnotState } from '@/core/sync/state';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { PlannedKnot } from '@/services/listings/publish/plan-portions';
import type { PublishPlan } from '@/services/listings/publish/plan-publish';
import { type Column, DataTable } from '@/ui/controls/data-table';
import { Price } from '@/ui/controls/format';
import { ItemCell } from '@/ui/controls/item-cell';
import { Knot } from '@/ui/controls/knot';
import { fieldName } from '@/ui/controls/shown-value';
import { PhotoRow } from '@/ui/photos/photo-row';

const nameOf = (field: string) => fieldName(field).toLowerCase();

type PlannedItem = PublishPlan['items'][number];
type Place = { itemId: number; accountId: number };

/** What will happen in words. */
const wordsOf = (knot: PlannedKnot): string =>
  ({
    create: knot.why ? `New listing. ${knot.why}` : 'New listing',
    update: `Change ${knot.fields.map(nameOf).join(', ')}`,
    end: 'End',
    nothing: knot.why ?? 'Nothing to do',
    'not-ready': knot.issues
      .filter((issue) => issue.blocks)
      .map((issue) => issue.message)
      .join('. '),
  })[knot.action];

/** How it will stand there. */
const after: Record<PlannedKnot['action'], KnotState | null> = {
  create: 'live',
  update: 'live',
  end: 'ended',
  nothing: null,
  'not-ready': 'attention',
};

/** Per item and account: how it stands, how it will, and what will be left of it; the words for one at a time, when asked. */
export function PlanTable({
  plan,
  accounts,
  leaveOut,
}: {
  plan: PublishPlan;
  accounts: AccountView[];
  leaveOut: (knot: Place) => void;
}) {
  const [asked, setAsked] = useState<Place | null>(null);
  const byKey = new Map(plan.knots.map((knot) => [`${knot.itemId}/${knot.accountId}`, knot]));
  const told = asked && byKey.get(`${asked.itemId}/${asked.accountId}`);
  const item = told && plan.items.find((one) => one.id === told.itemId);
  const account = told && accounts.find((one) => one.id === told.accountId);
  const columns: Column<PlannedItem>[] = [
    {
      id: 'item',
      head: 'Item',
      className: 'w-56',
      cell: (one) => <ItemCell {...one} href={`/items/${one.id}`} />,
    },
    ...accounts.map(
      (there): Column<PlannedItem> => ({
        id: String(there.id),
        head: (
          <span className="block truncate" title={there.name}>
            {there.name}
          </span>
        ),
        className: 'w-[5.4rem] border-l border-base-300/60 first:border-l-0',
        cellClass: '!p-0',
        cell: (one) => {
          const knot = byKey.get(`${one.id}/${there.id}`);
          if (!knot) return <span className="quiet px-2 text-[12px]">left out</span>;
          const isAsked = told === knot;
          return (
            <Planned
              knot={knot}
              currency={there.currency}
              name={`${one.sku} on ${there.name}`}
              isAsked={isAsked}
              ask={() => setAsked(isAsked ? null : knot)}
            />
          );
        },
      }),
    ),
  ];
  return (
    <>
      <section aria-label="Plan" className="overflow-x-auto" tabIndex={0}>
        <DataTable rows={plan.items} columns={columns} idOf={(one) => one.id} fixed />
        {plan.itemCount > plan.items.length ? (
          <p className="quiet px-4 py-2">
            The first {plan.items.length} of {plan.itemCount.toLocaleString('en')} items are shown; all are counted
            above.
          </p>
        ) : null}
      </section>
      {told && item && account ? (
        <aside
          aria-label="What happens here"
          className="sticky bottom-8 flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-base-300 bg-base-200 px-4 py-2"
        >
          <b className="font-semibold">
            {item.title || item.sku} on {account.name}
          </b>
          <span className={`flex-1 ${told.action === 'not-ready' ? 'text-warning' : ''}`}>{wordsOf(told)}</span>
          {told.photos?.length ? <PhotoRow references={told.photos} label="Photos as they will stand there" /> : null}
          {told.net === null ? null : (
            <span>
              <Price amount={told.price} currency={account.currency} />, net{' '}
              <Price amount={told.net} currency={account.currency} tone />
            </span>
          )}
          {told.action === 'create' || told.action === 'update' ? (
            <button
              type="button"
              className="btn btn-sm"
              aria-label={`Leave out ${item.sku} on ${account.name}`}
              onClick={() => {
                setAsked(null);
                leaveOut(told);
              }}
            >
              Leave it out
            </button>
          ) : null}
          <button type="button" className="btn btn-ghost btn-sm" onClick={() => setAsked(null)}>
            Close
          </button>
        </aside>
      ) : null}
    </>
  );
}

type PlannedProps = { knot: PlannedKnot; currency: string; name: string; isAsked: boolean; ask: () => void };

const figures = (amount: number | null): string => (amount === null ? '–' : (amount / 100).toFixed(2));

function Planned({ knot, currency, name, isAsked, ask }: PlannedProps) {
  const words = wordsOf(knot);
  const goes = knot.action === 'create' || knot.action === 'update';
  const next = after[knot.action];
  return (
    <button
      type="button"
      aria-label={`${name}: ${words}`}
      aria-expanded={isAsked}
      title={words}
      className={`block w-full px-1.5 py-0.5 text-left hover:bg-base-200 ${isAsked ? 'bg-base-300' : ''}`}
      onClick={ask}
    >
      <span className="flex h-4 items-center gap-1" aria-hidden="true">
        <Knot state={knot.state} size={12} />
        {next === null ? null : (
          <>
            <span className="quiet text-[11px]">→</span>
            <Knot state={next} size={12} />
          </>
        )}
        {knot.action === 'not-ready' ? (
          <span className="text-[11px] text-warning">{knot.issues.filter((issue) => issue.blocks).length}</span>
        ) : null}
      </span>
      <span
        className="figures flex h-4 justify-between gap-1 text-[10.5px] tracking-tight"
        aria-hidden="true"
        title={currency}
      >
        {goes ? (
          <>
            <span>{figures(knot.price)}</span>
            <span className={knot.net !== null && knot.net < 0 ? 'font-semibold text-error' : 'quiet'}>
              {figures(knot.net)}
            </span>
          </>
        ) : null}
      </span>
    </button>
  );
}

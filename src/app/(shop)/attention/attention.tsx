'use client';

import { useQuery } from '@tanstack/react-query';
import type { Cause } from '@/services/outbox/find-causes';
import { AsFile } from '@/ui/controls/as-file';
import { Knot } from '@/ui/controls/knot';
import { Link } from '@/ui/controls/link';
import { SelectionLink } from '@/ui/controls/selection-link';
import { Empty, Failed, Loading, PageHead } from '@/ui/controls/states';
import { api } from '@/ui/data/api';
import { OfferRow, useOffers } from '@/ui/data/offers';
import { useCommand } from '@/ui/data/use-command';
import { ViolationRow } from '@/ui/data/violation-row';
import { Findings } from './findings';
import { Needs, useNeeds } from './needs';
import { Reminders, useReminders } from './reminders';

/** What needs a person, grouped by cause, with the one mend for all of the same cause. */
export function Attention() {
  const causes = useQuery({
    queryKey: ['causes'],
    queryFn: () => api('GET /causes'),
    refetchInterval: 4_000,
  });
  const retry = useCommand(
    async (cause: Cause) => {
      const { queued } = await api('POST /jobs/retry', { body: { account: cause.accountId, message: cause.message } });
      return `${queued} queued again`;
    },
    { tells: true },
  );
  const offers = (useOffers().data?.offers ?? []).filter((one) => one.state === 'open');
  const reminders = useReminders();
  const needs = useNeeds();
  const look = useCommand(
    async () => {
      const { found } = await api('POST /audit', { body: {} });
      return found.length ? `${found.length} kinds of things do not add up` : 'Everything adds up';
    },
    { tells: true },
  );
  const audit = useQuery({ queryKey: ['audit'], queryFn: () => api('GET /audit'), refetchInterval: 20_000 });
  return (
    <>
      <PageHead title="Attention">
        <AsFile of="GET /causes/file" what="What needs you" />
      </PageHead>
      {causes.isPending ? <Loading what="what needs you" /> : null}
      {causes.isError ? <Failed error={causes.error} retry={() => void causes.refetch()} /> : null}
      {causes.data?.causes.length === 0 &&
      reminders.length === 0 &&
      needs.length === 0 &&
      offers.length === 0 &&
      audit.data?.found.length === 0 ? (
        <Empty title="Nothing needs you">
          <p>When a marketplace refuses something, the reason and its mend stand here.</p>
        </Empty>
      ) : null}
      <Reminders reminders={reminders} />
      {offers.length ? (
        <section aria-labelledby="offers" className="border-b border-base-300 px-4 py-2">
          <div className="flex items-center">
            <h2 id="offers" className="font-semibold">
              Offers that wait for your answer
            </h2>
            <AsFile of="GET /offers/file" what="The offers" query={{ state: 'open' }} />
          </div>
          <ul className="divide-y divide-base-300/60">
            {offers.map((offer) => (
              <OfferRow key={offer.id} offer={offer} />
            ))}
          </ul>
        </section>
      ) : null}
      <ol>
        {causes.data?.causes.map((cause) => (
          <CauseRow
            key={`${cause.kind}/${cause.accountId}/${cause.message}`}
            cause={cause}
            retry={() => void retry.run(cause)}
            changed={() => void causes.refetch()}
          />
        ))}
      </ol>
      <Needs needs={needs} />
      {audit.data ? <Findings audit={audit.data} look={() => void look.run()} isLooking={look.busy} /> : null}
    </>
  );
}

const words: Record<Cause['kind'], string> = { failed: '', refused: 'Refused in review: ', rules: 'Fits no longer: ' };

/** One cause: what it is, how many, the way to mend it, and sending again where that can help as it is. */
function CauseRow({ cause, retry, changed }: { cause: Cause; retry: () => void; changed: () => void }) {
  const { kind, count, field, items, itemIds } = cause;
  const [only] = items;
  const place = (id: number) => `/items/${id}${field ? `?at=${encodeURIComponent(field)}#row-${field}` : ''}`;
  const mend =
    count === 1 && only ? (
      <Link className={`btn btn-sm ${cause.mayPass ? '' : 'btn-primary'}`} href={place(only.id)}>
        Mend it
      </Link>
    ) : (
      <SelectionLink
        to="/workbench"
        className={`btn btn-sm ${cause.mayPass ? '' : 'btn-primary'}`}
        selection={{ kind: 'items', ids: itemIds }}
      >
        {itemIds.length < count && kind !== 'rules'
          ? `Change the first ${itemIds.length.toLocaleString('en')} in the workbench`
          : `Change all ${itemIds.length.toLocaleString('en')} in the workbench`}
      </SelectionLink>
    );
  return (
    <li className="border-b border-base-300 px-4 py-3" data-cause={kind}>
      <div className="flex flex-wrap items-center gap-3">
        <Knot state="attention" />
        <h2 className="font-semibold">
          {words[kind]}
          {cause.message}
        </h2>
        <span className="quiet figures">
          {count} {kind === 'rules' ? 'live ' : ''}
          {count === 1 ? 'listing' : 'listings'} on {cause.accountName}
        </span>
        <span className="ml-auto flex flex-wrap gap-2">
          {cause.violation && cause.violation.how !== 'item' ? null : mend}
          {kind === 'rules' ? null : (
            <button
              type="button"
              className={`btn btn-sm ${cause.mayPass ? 'btn-primary' : 'btn-ghost'}`}
              onClick={retry}
            >
              {kind === 'refused' ? 'Send' : 'Try'} {count === 1 ? 'it' : `all ${count}`} again
            </button>
          )}
        </span>
      </div>
      {cause.violation && cause.violation.how !== 'item' ? (
        <ul className="pl-7">
          <ViolationRow violation={cause.violation} changed={changed} />
        </ul>
      ) : (
        <>
          {cause.fix ? <p className="mt-1 pl-7">To mend it: {cause.fix}.</p> : null}
          <ul className="mt-1 flex flex-wrap gap-x-4 gap-y-0.5 pl-7">
            {items.map((item) => (
              <li key={item.id} className="max-w-72 truncate">
                <Link className="underline" href={place(item.id)}>
                  {item.title || item.sku}
                </Link>
              </li>
            ))}
            {count > items.length ? <li className="quiet">and {count - items.length} more</li> : null}
          </ul>
        </>
      )}
    </li>
  );
}

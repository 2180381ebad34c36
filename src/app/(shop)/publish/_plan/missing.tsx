'use client';

import { useState } from 'react';
import type { AccountView } from '@/services/accounts/find-accounts';
import type { PublishPlan } from '@/services/listings/publish/plan-publish';
import { Link } from '@/ui/controls/link';
import { SelectionLink } from '@/ui/controls/selection-link';

type Cause = PublishPlan['causes'][number];
const shownAtFirst = 8;

/** What is not ready, by cause, most frequent first; each can be mended for one, or for all of them. */
export function Missing({ plan, accounts }: { plan: PublishPlan; accounts: AccountView[] }) {
  const [isWhole, setIsWhole] = useState(false);
  const { causes } = plan;
  const shown = isWhole ? causes : causes.slice(0, shownAtFirst);
  return (
    <section aria-label="What is missing" className="border-b border-base-300 px-4 py-2">
      <h2 className="mb-1 font-semibold">What is missing</h2>
      <ul className="space-y-0.5">
        {shown.map((cause) => (
          <li key={`${cause.accountId}${cause.field}${cause.message}`} className="flex flex-wrap gap-x-3">
            <span className="figures w-8 text-right">{cause.count}</span>
            <span className="w-28 shrink-0 truncate">
              {accounts.find((account) => account.id === cause.accountId)?.name}
            </span>
            <span>{cause.message}</span>
            <Mend cause={cause} />
          </li>
        ))}
      </ul>
      {causes.length > shown.length ? (
        <button type="button" className="btn btn-xs mt-1" onClick={() => setIsWhole(true)}>
          {causes.length - shown.length} more causes
        </button>
      ) : null}
    </section>
  );
}

/** Where it is mended: the account's defaults, the field of the item, or all the items at once. */
function Mend({ cause: { fix, field, accountId, itemIds, count } }: { cause: Cause }) {
  if (fix.kind === 'account-default')
    return (
      <Link className="underline" href={`/marketplaces#account-${accountId}`}>
        {fix.label}
      </Link>
    );
  return (
    <>
      <Link className="underline" href={`/items/${itemIds[0]}#row-${'field' in fix ? fix.field : field}`}>
        {fix.label}
        {count > 1 ? ' of the first' : ''}
      </Link>
      {count > 1 ? (
        <SelectionLink className="underline" to="/workbench" selection={{ kind: 'items', ids: itemIds }}>
          Change {itemIds.length < count ? 'the first' : 'all'} {itemIds.length.toLocaleString('en')} on the workbench
        </SelectionLink>
      ) : null}
    </>
  );
}

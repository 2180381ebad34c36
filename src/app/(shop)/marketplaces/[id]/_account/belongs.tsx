'use client';

import { useState } from 'react';
import { plainConditions } from '@/core/filter/plain';
import { ConditionList } from '@/ui/controls/condition-list';
import { useCommand } from '@/ui/data/use-command';
import type { AccountPart } from './account-part';
import { useSeen } from './use-seen';

/** Which items are meant for this account, as long as no person says otherwise on an item's sheet. */
export function Belongs({ account, changed, again }: AccountPart) {
  const plain = plainConditions(account.belongs);
  const [conditions, setConditions] = useState(() => plain ?? []);
  const keep = useSeen(account, ['belongs']);
  const save = useCommand(async () => {
    const before = await keep({ belongs: conditions.length ? { all: conditions } : null });
    changed();
    return {
      text: conditions.length
        ? `Drafts for ${account.name} follow this from now on; what you chose yourself stays`
        : `Every new item is meant for ${account.name}`,
      back: async () => {
        await keep(before);
        await again();
      },
    };
  });
  return (
    <section aria-labelledby="belongs" className="border-t border-base-300 p-4">
      <h2 id="belongs" className="mb-1 font-semibold">
        What belongs here
      </h2>
      <ConditionList
        legend="Items of which all this holds; none means every item"
        conditions={conditions}
        set={setConditions}
      />
      {plain === null ? (
        <p role="status" className="mt-1 text-warning">
          A filter that says more than such a list holds here. Keeping conditions replaces it.
        </p>
      ) : null}
      {account.autoDraft ? null : (
        <p className="quiet mt-1">New items do not become drafts here by themselves: see All accounts.</p>
      )}
      {save.problem ? (
        <p role="alert" className="mt-1 text-error">
          {save.problem}
        </p>
      ) : null}
      <button
        type="button"
        className="btn btn-primary btn-sm mt-2"
        disabled={save.busy || (plain === null && conditions.length === 0)}
        onClick={() => void save.run()}
      >
        {save.busy ? 'Looking through the items …' : 'Keep what belongs here'}
      </button>
    </section>
  );
}

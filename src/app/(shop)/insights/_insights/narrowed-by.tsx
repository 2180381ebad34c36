'use client';

import { useState } from 'react';
import { addressParts, writeParts } from '@/core/filter/address';
import type { Condition } from '@/core/filter/filter';
import { plainConditions } from '@/core/filter/plain';
import { sayFilter } from '@/core/filter/say';
import { homeCurrency } from '@/core/measure/money';
import { ConditionList } from '@/ui/controls/condition-list';
import { Dialog } from '@/ui/controls/dialog';
import { useAccounts } from '@/ui/data/accounts';

const isSaid = ({ op, value }: Condition) => op === 'empty' || op === 'filled' || (value !== undefined && value !== '');

/** The items that are looked at, by the one filter; what it says stands beside the button. */
export function NarrowedBy({ where, set }: { where: string | null; set: (where: string | null) => void }) {
  const { accounts } = useAccounts();
  const parts = where ? addressParts({ where }) : [];
  const [editing, setEditing] = useState<Condition[] | null>(null);
  const context = {
    currency: homeCurrency,
    custom: [],
    accountName: (id: number) => accounts.find((one) => one.id === id)?.name ?? String(id),
  };
  return (
    <>
      <button type="button" className="btn btn-sm" onClick={() => setEditing(plainConditions({ all: parts }) ?? [])}>
        Only some items
      </button>
      {parts.length ? (
        <span className="flex h-7 max-w-md items-center gap-1 rounded border border-base-300 bg-base-200 px-2">
          <span className="truncate">{parts.map((part) => sayFilter(part, context)).join(', ')}</span>
          <button type="button" className="link" onClick={() => set(null)}>
            All items
          </button>
        </span>
      ) : null}
      {editing ? (
        <Dialog title="Only some items" close={() => setEditing(null)}>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              set(writeParts(editing.filter(isSaid)));
              setEditing(null);
            }}
          >
            <ConditionList legend="Conditions, all of which must hold" conditions={editing} set={setEditing} />
            <button type="submit" className="btn btn-primary btn-sm mt-3">
              Show
            </button>
          </form>
        </Dialog>
      ) : null}
    </>
  );
}

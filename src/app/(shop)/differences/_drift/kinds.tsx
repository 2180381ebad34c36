'use client';

import type { AccountView } from '@/services/accounts/find-accounts';
import type { DriftView } from '@/services/sync/find-drift';
import { fieldName } from '@/ui/controls/shown-value';
import { counted } from '@/ui/data/counted';
import type { Settle } from './settle';

type Kind = { accountId: number; field: string; verdict: 'theirs' | 'conflict'; count: number; canBeTaken: boolean };

/** The same difference on many listings of an account, settled for all of them at once. */
export function Kinds({
  listings,
  hasMore,
  accountOf,
  settle,
}: {
  listings: DriftView[];
  /** Further ones are not on the page yet; they are settled as well. */
  hasMore: boolean;
  accountOf: (id: number) => AccountView | undefined;
  settle: Settle;
}) {
  const kinds = new Map<string, Kind>();
  for (const { accountId, fields } of listings) {
    for (const { field, verdict, canBeTaken } of fields) {
      const key = `${accountId}/${field}/${verdict}`;
      const kind = kinds.get(key) ?? { accountId, field, verdict, canBeTaken, count: 0 };
      kind.count++;
      kinds.set(key, kind);
    }
  }
  const many = [...kinds.values()].filter((kind) => kind.count > 1).sort((a, b) => b.count - a.count);
  if (many.length === 0) return null;
  return (
    <section aria-label="Of the same kind" className="border-b border-base-300 bg-base-200 px-4 py-2">
      <h2 className="mb-1 font-semibold">Of the same kind</h2>
      <ul className="space-y-1">
        {many.map(({ accountId, field, verdict, count, canBeTaken }) => {
          const which = { account: accountId, field, verdict };
          return (
            <li key={`${accountId}${field}${verdict}`} className="flex flex-wrap items-center gap-3">
              <span>
                <b className="font-medium">{fieldName(field)}</b> on {accountOf(accountId)?.name}:{' '}
                {counted(count, 'listing')}
                {hasMore ? ' here and all further ones' : ''},{' '}
                {verdict === 'conflict' ? 'changed on both sides' : 'changed only there'}
              </span>
              {canBeTaken ? (
                <button
                  type="button"
                  className="btn btn-xs"
                  onClick={() => void settle({ which, side: 'theirs' }, 'Taken over')}
                >
                  Take all theirs
                </button>
              ) : null}
              <button
                type="button"
                className="btn btn-xs"
                onClick={() => void settle({ which, side: 'ours' }, 'Ours goes back')}
              >
                Put all ours back
              </button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

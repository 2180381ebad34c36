'use client';

import { useState } from 'react';
import type { FoundFilter } from '@/services/gathering/found-filter';

/** What is chosen on one account: single ones, or all that a filter finds but for some. */
type Choice = { ids: number[] } | { filter: FoundFilter; without: number[]; count: number };

export type Chosen = ReturnType<typeof useChoice>;

/** What is chosen to be brought in, account by account: going to another account keeps what was chosen on this one. */
export function useChoice(account: number | null) {
  const [all, setAll] = useState<Record<number, Choice>>({});
  const here = account === null ? undefined : all[account];
  const put = (choice: Choice | null) => {
    if (account === null) return;
    const { [account]: _gone, ...others } = all;
    setAll(choice ? { ...others, [account]: choice } : others);
  };
  const countOf = (one: Choice) => ('ids' in one ? one.ids.length : one.count - one.without.length);
  return {
    has: (id: number) => (here ? ('ids' in here ? here.ids.includes(id) : !here.without.includes(id)) : false),
    toggle(id: number) {
      if (here && !('ids' in here)) {
        const isOut = here.without.includes(id);
        put({ ...here, without: isOut ? here.without.filter((one) => one !== id) : [...here.without, id] });
        return;
      }
      const ids = here?.ids ?? [];
      const next = ids.includes(id) ? ids.filter((one) => one !== id) : [...ids, id];
      put(next.length ? { ids: next } : null);
    },
    takeAll: (filter: FoundFilter, count: number) => put({ filter, without: [], count }),
    /** The filter is another one: what was chosen by it is not seen any more. */
    forgetHere: () => put(null),
    forget: () => setAll({}),
    isAll: here !== undefined && !('ids' in here),
    here: here ? countOf(here) : 0,
    total: Object.values(all).reduce((sum, one) => sum + countOf(one), 0),
    accounts: Object.keys(all).map(Number),
    choices: Object.values(all).map((one) =>
      'ids' in one ? { ids: one.ids } : { filter: one.filter, without: one.without },
    ),
  };
}

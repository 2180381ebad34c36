/** Rows that are chosen: these, or all that the filters find but these. */
export type Chosen = { all: boolean; ids: Set<number> };

export const noneChosen: Chosen = { all: false, ids: new Set() };

const storageKey = 'netting.chosen';

/** Kept by the browser while a page is open, so that a choice outlives a look at an item; let go with the filters. */
export function keepChosen(filter: string, { all, ids }: Chosen): void {
  if (!all && ids.size === 0) sessionStorage.removeItem(storageKey);
  else sessionStorage.setItem(storageKey, JSON.stringify({ filter, all, ids: [...ids] }));
}

/** What was chosen under these filters, nothing where the filters were others. */
export function keptChosen(filter: string): Chosen {
  try {
    const kept: unknown = JSON.parse(sessionStorage.getItem(storageKey) ?? 'null');
    if (typeof kept !== 'object' || kept === null || !('filter' in kept) || kept.filter !== filter) return noneChosen;
    const { all, ids } = kept as unknown as { all: boolean; ids: number[] }; // written by the function above
    return { all, ids: new Set(ids) };
  } catch {
    return noneChosen;
  }
}

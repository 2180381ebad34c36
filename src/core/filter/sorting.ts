import type { Traits } from '../field/field';
import { itemFieldEntries, itemFieldIds, keptFieldEntries } from '../field/item-fields';

const isSortable = ({ traits }: { traits: Traits }): boolean => traits.sortable === true;
const fields = [
  ...itemFieldIds.filter((id) => isSortable(itemFieldEntries[id])),
  ...(isSortable(keptFieldEntries.quantity) ? (['quantity'] as const) : []),
];

/** In which orders the inventory can be put: by when an item was changed or recorded, and by the fields that say so. */
export type SortName = 'updated' | 'created' | (typeof fields)[number];
export const sortNames: [SortName, ...SortName[]] = ['updated', 'created', ...fields];
export const isSortName = (name: string): name is SortName => sortNames.some((one) => one === name);

import type { AccountView } from '@/services/accounts/find-accounts';
import type { sortNames } from './filters';

type SortName = (typeof sortNames)[number];
export type Column =
  | { kind: 'check'; id: 'check'; label: string; width: number }
  | {
      kind: 'field';
      id: string;
      label: string;
      width: number;
      sort?: SortName;
      align?: 'right';
      edit?: 'title' | 'price' | 'quantity' | 'location';
    }
  | { kind: 'knot'; id: string; label: string; width: number; accountId: number };

const fields: Column[] = [
  { kind: 'check', id: 'check', label: 'Choose', width: 36 },
  { kind: 'field', id: 'title', label: 'Item', width: 340, sort: 'title', edit: 'title' },
  { kind: 'field', id: 'sku', label: 'Stock no.', width: 104, sort: 'sku' },
  { kind: 'field', id: 'condition', label: 'Condition', width: 92, sort: 'condition' },
  { kind: 'field', id: 'location', label: 'Place', width: 60, sort: 'location', edit: 'location' },
  { kind: 'field', id: 'quantity', label: 'Stock', width: 62, sort: 'quantity', align: 'right', edit: 'quantity' },
  { kind: 'field', id: 'price', label: 'Price', width: 88, sort: 'price', align: 'right', edit: 'price' },
];

const tail: Column[] = [
  { kind: 'field', id: 'cost', label: 'Cost', width: 80, sort: 'cost', align: 'right' },
  { kind: 'field', id: 'brand', label: 'Brand', width: 100, sort: 'brand' },
  { kind: 'field', id: 'category', label: 'Category', width: 130, sort: 'category' },
  { kind: 'field', id: 'updated', label: 'Changed', width: 122, sort: 'updated' },
];

/** The net's columns: what the item is, then one per account, then the rest. */
export const columnsFor = (accounts: AccountView[]): Column[] => [
  ...fields,
  ...accounts.map(
    (account): Column => ({
      kind: 'knot',
      id: `account-${account.id}`,
      label: account.name,
      width: 84,
      accountId: account.id,
    }),
  ),
  ...tail,
];

export type ColumnPreferences = { hidden: string[]; widths: Record<string, number> };
const key = 'netting.columns';

export function readPreferences(): ColumnPreferences {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<ColumnPreferences>; // written below; missing parts are filled in
    return { hidden: kept.hidden ?? ['brand', 'category', 'cost'], widths: kept.widths ?? {} };
  } catch {
    return { hidden: ['brand', 'category', 'cost'], widths: {} };
  }
}

export const keepPreferences = (preferences: ColumnPreferences): void =>
  localStorage.setItem(key, JSON.stringify(preferences));

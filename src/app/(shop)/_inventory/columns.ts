import { itemField } from '@/core/field/catalogue';
import { isSortName, type SortName } from '@/core/filter/sorting';
import type { AccountView } from '@/services/accounts/find-accounts';

export type EditableField =
  | 'title'
  | 'sku'
  | 'condition'
  | 'price'
  | 'quantity'
  | 'location'
  | 'cost'
  | 'brand'
  | 'category';

type FieldColumn = {
  kind: 'field';
  id: string;
  label: string;
  width: number;
  sort?: SortName;
  align?: 'right';
  /** It can be typed into. */
  edit?: EditableField;
};
export type Column =
  | { kind: 'check'; id: 'check'; label: string; width: number }
  | FieldColumn
  | { kind: 'knot'; id: string; label: string; width: number; accountId: number };

type Shown = Pick<FieldColumn, 'width' | 'edit'> & { label?: string };

/** A column of a field of the catalogue: what it is called, whether it can be sorted by, and on which side it stands. */
function column(id: string, { width, edit, label }: Shown): FieldColumn {
  const field = itemField(id);
  const isNumber = field !== undefined && ['money', 'whole', 'weight', 'length', 'number'].includes(field.kind.is);
  return {
    kind: 'field',
    id,
    label: label ?? field?.label ?? id,
    width,
    ...(isSortName(id) ? { sort: id } : {}),
    ...(isNumber ? { align: 'right' } : {}),
    ...(edit ? { edit } : {}),
  };
}

const fields: Column[] = [
  { kind: 'check', id: 'check', label: 'Choose', width: 36 },
  column('title', { label: 'Item', width: 300, edit: 'title' }),
  column('sku', { label: 'Stock no.', width: 104, edit: 'sku' }),
  column('condition', { width: 92, edit: 'condition' }),
  column('location', { width: 60, edit: 'location' }),
  column('quantity', { width: 62, edit: 'quantity' }),
  column('price', { width: 88, edit: 'price' }),
];

const tail: Column[] = [
  column('cost', { width: 80, edit: 'cost' }),
  column('brand', { width: 100, edit: 'brand' }),
  column('category', { width: 130, edit: 'category' }),
  column('updated', { label: 'Changed', width: 122 }),
];

/** From this width on an account's column has its name lying, and shows a price of its own in figures. */
export const wideEnough = 76;

/** The net's columns: what the item is, then one per account, then the rest. */
export const columnsFor = (accounts: AccountView[]): Column[] => [
  ...fields,
  ...accounts.map(
    (account): Column => ({
      kind: 'knot',
      id: `account-${account.id}`,
      label: account.name,
      width: 36,
      accountId: account.id,
    }),
  ),
  ...tail,
];

export type ColumnPreferences = { hidden: string[]; widths: Record<string, number> };
const key = 'netting.columns-2';

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

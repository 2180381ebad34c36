import { attributeField, itemField } from '@/core/field/catalogue';
import { ownField } from '@/core/field/custom-field';
import type { Field } from '@/core/field/field';
import { askedFieldIds, itemFieldEntries, itemFieldIds, type KeptFieldId } from '@/core/field/item-fields';
import { choicesOf } from '@/core/field/kind';
import { isShownFor } from '@/core/item/custom-fields';
import type { ItemField } from '@/core/item/item';
import { arranged, type RowPlan } from '@/core/item/row-plan';
import type { ItemSheet, SheetColumn, SheetField } from '@/services/items/item-sheet';

export type SheetRow = {
  id: string;
  label: string;
  /** The item's own field; null where only marketplaces have it. */
  field: Field | null;
  fieldOf: (column: SheetColumn) => SheetField | undefined;
  /** Values that some marketplace's list holds, proposed while one writes. */
  words?: string[];
  /** The one marketplace that has such a field; undefined for what several have, or the item itself. */
  market?: string;
};

const nowhere = () => undefined;
const named = (id: string) => (column: SheetColumn) => column.fields.find((one) => one.field === id);

/** Fields that stand in another one's row, or have rows of their own below. */
const within: readonly string[] = ['axes', 'widthMm', 'heightMm', 'attributes', 'own'];
/** What the system keeps, behind what it belongs to. */
const behind: Partial<Record<ItemField, readonly KeptFieldId[]>> = {
  retailPrice: ['quantity'],
  lengthMm: ['photos', 'clip'],
};

/** A row is called after the listing's field that it feeds; the three sides share one. */
function rowOf(id: ItemField | KeptFieldId): SheetRow[] {
  const field = itemField(id);
  if (!field) return [];
  const { sent, inside } = field.traits;
  return [
    {
      id: sent ?? id,
      label: sent === 'size' ? 'Parcel size' : field.label,
      field,
      fieldOf: sent && !inside ? named(sent) : nowhere,
    },
  ];
}

const rowsAmong = (ids: readonly ItemField[]): SheetRow[] =>
  ids
    .filter((id) => !within.includes(id))
    .flatMap((id) => [id, ...(behind[id] ?? [])])
    .flatMap(rowOf);

// The catalogue is in the order of the sheet: attributes and own fields come where it names them.
const first = rowsAmong(itemFieldIds.slice(0, itemFieldIds.indexOf('attributes')));
const last = rowsAmong(itemFieldIds.slice(itemFieldIds.indexOf('own')));

/** The sheet's rows: what every item has, the attributes that any marketplace asks for, their own fields, and what stays private. */
export function rowsFor({ item, columns, customFields }: ItemSheet): SheetRow[] {
  const labelled = (prefix: 'attr.' | 'extra.') =>
    columns.flatMap((column) =>
      column.fields.filter((field) => field.field.startsWith(prefix)).map((field) => field.label),
    );
  const extras = [...new Set(labelled('extra.'))];
  const withLabel = (label: string) => (column: SheetColumn) =>
    column.fields.find((field) => field.label === label && /^(attr|extra)\./.test(field.field));
  const wordsFor = (label: string) => [
    ...new Set(
      columns.flatMap((column) => choicesOf(withLabel(label)(column)?.kind ?? { is: 'date' }).map((one) => one.label)),
    ),
  ];
  // What marketplaces ask for and the item has a field of its own for stands in that field's row.
  const asked = new Set(askedFieldIds.map((id) => itemFieldEntries[id].label));
  const attributes = [...new Set([...Object.keys(item.attributes), ...labelled('attr.')])].filter(
    (label) => !asked.has(label) || Object.hasOwn(item.attributes, label),
  );
  const withAsked = (row: SheetRow): SheetRow =>
    asked.has(row.label) ? { ...row, fieldOf: (column) => row.fieldOf(column) ?? withLabel(row.label)(column) } : row;
  const attributeRow = (label: string): SheetRow => ({
    id: `attributes.${label}`,
    label,
    field: attributeField(label),
    fieldOf: withLabel(label),
    words: wordsFor(label),
  });
  const marketsOf = (label: string) => [
    ...new Set(columns.filter((column) => withLabel(label)(column)).map((column) => column.marketName)),
  ];
  const extraRows = extras.map((label): SheetRow => {
    if (item.attributes[label] !== undefined || /decade|maker|material|supply/i.test(label)) return attributeRow(label);
    const markets = marketsOf(label);
    const row: SheetRow = { id: `extras.${label}`, label, field: null, fieldOf: withLabel(label) };
    return markets.length === 1 ? { ...row, market: markets[0] } : row;
  });
  return [
    ...first.map(withAsked),
    ...attributes.filter((label) => !extras.includes(label)).map(attributeRow),
    ...extraRows.filter((row) => row.market === undefined),
    ...customFields
      .filter((field) => isShownFor(field, item.category))
      .map(
        (field): SheetRow => ({ id: `own.${field.key}`, label: field.label, field: ownField(field), fieldOf: nowhere }),
      ),
    ...last,
    // What one marketplace alone has stands under its name.
    ...extraRows
      .filter((row) => row.market !== undefined)
      .sort((a, b) => ((a.market ?? '') < (b.market ?? '') ? -1 : a.market === b.market ? 0 : 1)),
  ];
}

/** Whether some account asks for what is missing in a row. */
export const isWanted = (row: SheetRow, columns: readonly SheetColumn[]): boolean =>
  columns.some((column) => row.fieldOf(column)?.issues.some((issue) => issue.blocks));

/**
 * The rows that are looked at, in the order that was chosen for the category. A hidden row shows itself while somebody
 * asks for what is missing in it; a marketplace's own rows are folded until they are opened, but for those.
 */
export function shownRows(
  rows: readonly SheetRow[],
  columns: readonly SheetColumn[],
  plan: RowPlan | null,
  open: readonly string[],
): SheetRow[] {
  const hidden = new Set(plan?.hidden ?? []);
  const own = (row: SheetRow) => columns.some((column) => row.fieldOf(column)?.origin === 'override');
  return arranged(rows, plan?.order ?? []).filter((row) => {
    if (isWanted(row, columns)) return true;
    if (hidden.has(row.id)) return false;
    return row.market === undefined || open.includes(row.market) || own(row);
  });
}

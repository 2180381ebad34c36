import { type CustomField, isShownFor } from '@/core/item/custom-fields';
import type { ItemField } from '@/core/item/item';
import type { ItemSheet, SheetColumn, SheetField } from '@/services/items/item-sheet';

/** How the item's own value of a row is written. */
export type MasterEditor =
  | { kind: 'text'; field: ItemField; mono?: boolean }
  | { kind: 'long'; field: ItemField }
  | { kind: 'rich'; field: 'description' }
  | { kind: 'lines'; field: 'highlights' }
  | { kind: 'chips'; field: 'keywords' }
  | { kind: 'money'; field: 'price' | 'cost' | 'retailPrice' }
  | { kind: 'weight' }
  | { kind: 'size' }
  | { kind: 'condition' }
  | { kind: 'date'; field: 'boughtOn' | 'expiresOn' }
  | { kind: 'variations' }
  | { kind: 'own'; field: CustomField }
  | { kind: 'stock' }
  | { kind: 'attribute'; name: string }
  | { kind: 'none' };

export type SheetRow = {
  id: string;
  label: string;
  master: MasterEditor;
  fieldOf: (column: SheetColumn) => SheetField | undefined;
  /** Values that some marketplace's list holds, proposed while one writes. */
  words?: string[];
};

const named = (field: string) => (column: SheetColumn) => column.fields.find((one) => one.field === field);
const nowhere = () => undefined;

const fixed: SheetRow[] = [
  { id: 'title', label: 'Title', master: { kind: 'text', field: 'title' }, fieldOf: named('title') },
  { id: 'brand', label: 'Brand', master: { kind: 'text', field: 'brand' }, fieldOf: named('brand') },
  { id: 'model', label: 'Model', master: { kind: 'text', field: 'model' }, fieldOf: nowhere },
  { id: 'category', label: 'Category', master: { kind: 'text', field: 'category' }, fieldOf: named('category') },
  { id: 'condition', label: 'Condition', master: { kind: 'condition' }, fieldOf: named('condition') },
  {
    id: 'conditionNote',
    label: 'Condition note',
    master: { kind: 'long', field: 'conditionNote' },
    fieldOf: named('conditionNote'),
  },
  {
    id: 'description',
    label: 'Description',
    master: { kind: 'rich', field: 'description' },
    fieldOf: named('description'),
  },
  {
    id: 'highlights',
    label: 'Highlights',
    master: { kind: 'lines', field: 'highlights' },
    fieldOf: named('highlights'),
  },
  { id: 'tags', label: 'Keywords', master: { kind: 'chips', field: 'keywords' }, fieldOf: named('tags') },
  { id: 'price', label: 'Price', master: { kind: 'money', field: 'price' }, fieldOf: named('price') },
  { id: 'cost', label: 'Cost', master: { kind: 'money', field: 'cost' }, fieldOf: nowhere },
  { id: 'retailPrice', label: 'Retail price', master: { kind: 'money', field: 'retailPrice' }, fieldOf: nowhere },
  { id: 'quantity', label: 'Stock', master: { kind: 'stock' }, fieldOf: named('quantity') },
  { id: 'variations', label: 'Variations', master: { kind: 'variations' }, fieldOf: named('variations') },
  { id: 'weightGrams', label: 'Weight', master: { kind: 'weight' }, fieldOf: named('weightGrams') },
  { id: 'size', label: 'Parcel size', master: { kind: 'size' }, fieldOf: named('size') },
  { id: 'photos', label: 'Photos', master: { kind: 'none' }, fieldOf: named('photos') },
];

const own: SheetRow[] = [
  { id: 'sku', label: 'Stock number', master: { kind: 'text', field: 'sku', mono: true }, fieldOf: nowhere },
  { id: 'barcode', label: 'Barcode', master: { kind: 'text', field: 'barcode', mono: true }, fieldOf: nowhere },
  { id: 'location', label: 'Place', master: { kind: 'text', field: 'location', mono: true }, fieldOf: nowhere },
  { id: 'supplier', label: 'Supplier', master: { kind: 'text', field: 'supplier' }, fieldOf: nowhere },
  { id: 'boughtOn', label: 'Bought on', master: { kind: 'date', field: 'boughtOn' }, fieldOf: nowhere },
  { id: 'expiresOn', label: 'Best before', master: { kind: 'date', field: 'expiresOn' }, fieldOf: nowhere },
  { id: 'notes', label: 'Private notes', master: { kind: 'long', field: 'notes' }, fieldOf: nowhere },
];

/** The sheet's rows: what every item has, the attributes that any marketplace asks for, their own fields, and what stays private. */
export function rowsFor({ item, columns, customFields }: ItemSheet): SheetRow[] {
  const labelled = (prefix: 'attr.' | 'extra.') =>
    columns.flatMap((column) =>
      column.fields.filter((field) => field.field.startsWith(prefix)).map((field) => field.label),
    );
  const fromFields = new Set(['Brand', 'Model']);
  const attributes = [...new Set([...Object.keys(item.attributes), ...labelled('attr.')])].filter(
    (label) => !fromFields.has(label),
  );
  const extras = [...new Set(labelled('extra.'))];
  const withLabel = (label: string) => (column: SheetColumn) =>
    column.fields.find((field) => field.label === label && /^(attr|extra)\./.test(field.field));
  const wordsFor = (label: string) => [
    ...new Set(columns.flatMap((column) => withLabel(label)(column)?.choices?.map((choice) => choice.label) ?? [])),
  ];
  const attributeRow = (label: string): SheetRow => ({
    id: `attributes.${label}`,
    label,
    master: { kind: 'attribute', name: label },
    fieldOf: withLabel(label),
    words: wordsFor(label),
  });
  return [
    ...fixed,
    ...attributes.filter((label) => !extras.includes(label)).map(attributeRow),
    ...extras.map(
      (label): SheetRow =>
        item.attributes[label] === undefined && !/decade|maker|material|supply/i.test(label)
          ? { id: `extras.${label}`, label, master: { kind: 'none' }, fieldOf: withLabel(label) }
          : attributeRow(label),
    ),
    ...customFields
      .filter((field) => isShownFor(field, item.category))
      .map(
        (field): SheetRow => ({
          id: `own.${field.key}`,
          label: field.label,
          master: { kind: 'own', field },
          fieldOf: nowhere,
        }),
      ),
    ...own,
  ];
}

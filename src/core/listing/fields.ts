import type { Json } from '../json';

/**
 * A listing's content: field id → value, in our own units and words, as a marketplace shall hold it or does hold it.
 * Fixed fields below; a category's attributes are `attr.<id>`, a marketplace's own fields `extra.<id>`.
 */
export type Content = Record<string, Json>;

export const fixedFields = [
  'title',
  'brand',
  'category',
  'condition',
  'conditionNote',
  'product',
  'description',
  'highlights',
  'tags',
  'price',
  'quantity',
  'variations',
  'photos',
  'weightGrams',
  'size',
  'sku',
] as const;
export type FixedField = (typeof fixedFields)[number];

export const fieldLabels: Record<FixedField, string> = {
  title: 'Title',
  brand: 'Brand',
  category: 'Category',
  condition: 'Condition',
  conditionNote: 'Condition note',
  product: 'Catalogue product',
  description: 'Description',
  highlights: 'Highlights',
  tags: 'Tags',
  price: 'Price',
  quantity: 'Quantity',
  variations: 'Variations',
  photos: 'Photos',
  weightGrams: 'Weight',
  size: 'Parcel size',
  sku: 'Stock number',
};

/** Which item fields a listing field is made of: a change to one of them may change the listing. */
export const sourcesOf: Record<FixedField, string[]> = {
  title: ['title', 'brand', 'model'],
  brand: ['brand'],
  category: ['category'],
  condition: ['condition'],
  conditionNote: ['conditionNote', 'condition'],
  product: ['barcode', 'brand', 'model'],
  description: ['description', 'conditionNote', 'highlights', 'title'],
  highlights: ['highlights', 'attributes'],
  tags: ['keywords'],
  price: ['price', 'axes', 'variations'],
  quantity: ['quantity', 'axes', 'variations'],
  variations: ['axes', 'variations', 'price'],
  photos: ['photos'],
  weightGrams: ['weightGrams'],
  size: ['lengthMm', 'widthMm', 'heightMm'],
  sku: ['sku'],
};

/** Where a value comes from. */
export type Origin =
  | 'master' // as written in the item
  | 'fitted' // the item's, made to fit this marketplace
  | 'override' // written for this marketplace alone
  | 'template' // from one of your templates
  | 'account' // the account's own default
  | 'rule' // a mapping or the marketplace's default
  | 'unused'; // not used there

export const originLabels: Record<Origin, string> = {
  master: 'from the item',
  fitted: 'from the item, made to fit',
  override: 'own here',
  template: 'from a template',
  account: 'from the account',
  rule: 'by rule',
  unused: 'not used here',
};

/** What mends an issue without leaving the place, or where to go. */
export type Fix =
  | { kind: 'edit-master'; field: string; label: string }
  | { kind: 'edit-override'; field: string; label: string }
  | { kind: 'account-default'; field: string; label: string }
  | { kind: 'map-category'; label: string }
  /** Match the item's value with one of theirs; learned for all items that say the same. */
  | { kind: 'map-value'; field: string; source: string; label: string }
  | { kind: 'find-product'; label: string }
  | { kind: 'edit-template'; label: string }
  /** Say which combinations are offered here, make items of them, or leave the item out. */
  | { kind: 'variations'; label: string }
  | { kind: 'pricing'; label: string };

export type Issue = {
  code: string;
  field: string;
  /** A plain sentence: what is wrong. */
  message: string;
  /** Blocking issues keep the listing from being sent. */
  blocks: boolean;
  fix: Fix;
};

export type ListingValue = {
  field: string;
  label: string;
  value: Json;
  origin: Origin;
  /** Length as the marketplace counts it, and its limit, where there is one. */
  length?: number;
  max?: number;
  /** How it was made, in a few words. */
  how?: string;
  /** What was left out to make it fit. */
  lost?: string[];
  issues: Issue[];
};

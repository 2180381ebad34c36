import { z } from 'zod';
import { conditionGrades, conditionIds } from '../item/condition';
import { skuPattern } from '../item/sku';
import { standingLabels, standings } from '../item/standing';
import { axisSchema, mostAxes, mostCombinations, variationSchema } from '../item/variations';
import type { Traits } from './field';
import type { Kind } from './kind';

const entry = <Schema extends z.ZodType>(
  label: string,
  kind: Kind,
  schema: Schema,
  empty: z.output<Schema>,
  traits: Traits,
) => ({ label, kind, schema, empty, traits });

const limited = (most: number) => z.string().max(most, `At most ${most.toLocaleString('en')} characters`);
const text = (label: string, most: number, traits: Traits = {}, lines = false) =>
  entry(label, lines ? { is: 'text', most, lines } : { is: 'text', most }, limited(most), '', traits);
const minor = z.number().int().min(0, 'Not below zero').max(100_000_000_00, 'Too large');
const money = (label: string, traits: Traits = {}) => entry(label, { is: 'money' }, minor.nullable(), null, traits);
const day = (label: string, traits: Traits = {}) => entry(label, { is: 'date' }, z.iso.date().nullable(), null, traits);
const side = (label: string) =>
  entry(label, { is: 'length' }, z.number().int().min(0).max(20_000).nullable(), null, { sent: 'size' });
const words = (label: string, most: number, each: number, traits: Traits, short = false) =>
  entry(
    label,
    short ? { is: 'list', most, each, words: true } : { is: 'list', most, each },
    z.array(limited(each)).max(most, `At most ${most}`),
    [],
    traits,
  );

/**
 * The list of what a person writes about an item, in the order of the sheet: label, kind, schema, what it is while nothing
 * is written, and what is done with it. Schema, sheet, columns, filters, copies and files are made of it.
 */
export const itemFieldEntries = {
  title: text('Title', 300, { sent: 'title', sortable: true }),
  brand: text('Brand', 80, { sent: 'brand', sortable: true, asked: true }),
  model: text('Model', 120, { asked: true }),
  category: text('Category', 120, { sent: 'category', sortable: true }),
  condition: entry(
    'Condition',
    { is: 'choice', choices: conditionGrades.map(({ id, label }) => ({ id, label })) },
    z.enum(conditionIds).nullable(),
    null,
    {
      sent: 'condition',
      sortable: true,
    },
  ),
  conditionNote: text('Condition note', 1_000, { sent: 'conditionNote', copied: false }, true),
  description: entry('Description', { is: 'rich', most: 60_000 }, limited(60_000), '', { sent: 'description' }),
  highlights: words('Highlights', 12, 250, { sent: 'highlights' }),
  keywords: words('Keywords', 60, 60, { sent: 'tags' }, true),
  price: money('Price', { sent: 'price', sortable: true }),
  cost: money('Cost', { copied: false, sortable: true, inside: true }),
  retailPrice: money('Retail price'),
  axes: entry('Axes', { is: 'axes' }, z.array(axisSchema).max(mostAxes), [], { takeable: false }),
  variations: entry('Variations', { is: 'combinations' }, z.array(variationSchema).max(mostCombinations), [], {
    sent: 'variations',
    takeable: false,
  }),
  weightGrams: entry('Weight', { is: 'weight' }, z.number().int().min(0).max(1_000_000).nullable(), null, {
    sent: 'weightGrams',
  }),
  lengthMm: side('Length'),
  widthMm: side('Width'),
  heightMm: side('Height'),
  countryOfOrigin: text('Country of origin', 60, { asked: true }),
  attributes: entry(
    'Attributes',
    { is: 'map', name: 60, each: 300 },
    z.record(z.string().min(1).max(60), limited(300)),
    {},
    {},
  ),
  own: entry(
    'Fields of your own',
    { is: 'map', name: 30, each: 10_000 },
    z.record(z.string().max(30), z.json()),
    {},
    { inside: true },
  ),
  sku: entry(
    'Stock number',
    { is: 'text', most: 40 },
    z.string().regex(skuPattern, 'Use 1 to 40 letters, digits, dots, dashes or slashes'),
    '',
    { identifies: true, copied: false, takeable: false, sortable: true, inside: true, mono: true },
  ),
  barcode: text('Barcode', 20, { inside: true, mono: true }),
  location: text('Place', 60, { copied: false, sortable: true, inside: true, mono: true }),
  supplier: text('Supplier', 120, { copied: false, inside: true }),
  boughtOn: day('Bought on', { copied: false, inside: true }),
  batch: text('Batch', 20, { copied: false, inside: true, mono: true }),
  expiresOn: day('Best before', { copied: false, inside: true }),
  remindOn: day('Remind on', { copied: false, inside: true }),
  remindOf: text('Remind of', 120, { copied: false, inside: true }),
  notes: text('Private notes', 10_000, { copied: false, inside: true }, true),
};

/** What the system keeps of an item besides: units by the ledger, photos by their own ways. */
export const keptFieldEntries = {
  quantity: entry('Stock', { is: 'whole', least: -1_000_000, most: 1_000_000 }, z.number().int(), 0, {
    sent: 'quantity',
    copied: false,
    ledger: true,
    takeable: false,
    sortable: true,
  }),
  elsewhere: entry(
    'At warehouses',
    { is: 'map', name: 60, each: 300 },
    z.record(z.string().min(1).max(60), limited(300)),
    {},
    { copied: false, takeable: false, inside: true, byItself: true },
  ),
  standing: entry(
    'Standing',
    { is: 'choice', choices: standings.map((id) => ({ id, label: standingLabels[id] })) },
    z.enum(standings, 'In the inventory, archived or deleted'),
    'active',
    { copied: false, takeable: false, inside: true },
  ),
  photos: entry(
    'Photos',
    { is: 'photos' },
    z.array(z.string().regex(/^[0-9a-f]{64}$/)).max(60, 'At most 60 photos stand on an item'),
    [],
    {
      sent: 'photos',
      copied: false,
      takeable: false,
    },
  ),
  clip: entry('Clip', { is: 'clip' }, z.string().regex(/^([0-9a-f]{64})?$/), '', {
    sent: 'clip',
    copied: false,
    takeable: false,
  }),
  flaws: entry(
    'Flaws shown',
    { is: 'map', name: 64, each: 200 },
    z.record(z.string(), limited(200)),
    {},
    {
      copied: false,
      takeable: false,
      inside: true,
      byItself: true,
    },
  ),
  placings: entry(
    'Placed by hand',
    { is: 'map', name: 60, each: 60 },
    z.record(z.string().min(1).max(60), limited(60)),
    {},
    { copied: false, takeable: false, inside: true, byItself: true },
  ),
  looks: entry(
    'Looked over',
    { is: 'map', name: 130, each: 60 },
    z.record(z.string().min(1).max(130), limited(60)),
    {},
    { copied: false, takeable: false, inside: true, byItself: true },
  ),
};

export type ItemFieldId = keyof typeof itemFieldEntries;
export type KeptFieldId = keyof typeof keptFieldEntries;

// keys of the constants above
export const itemFieldIds = Object.keys(itemFieldEntries) as [ItemFieldId, ...ItemFieldId[]];

const traitsOf = (id: ItemFieldId): Traits => itemFieldEntries[id].traits;

/** Fields that marketplaces may ask for as an attribute of the same name. */
export const askedFieldIds = itemFieldIds.filter((id) => traitsOf(id).asked === true);

/** Whether a field may travel from one piece to another. */
export const takeable = (id: ItemFieldId): boolean => traitsOf(id).takeable !== false;

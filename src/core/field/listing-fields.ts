import { z } from 'zod';
import { jsonSchema } from '../json';
import type { ExtraRule, MarketRules } from '../rules/rules';
import { type Field, type FieldEntry, makeField } from './field';
import type { Choice, Kind } from './kind';

type Entry = { label: string; kind: (rules: MarketRules | undefined) => Kind; takeable?: false };

/** A marketplace's limits are told by the checks; the record keeps what was written. */
const long = 60_000;
const text: Kind = { is: 'text', most: long };
const lines: Kind = { is: 'text', most: long, lines: true };
const list: Kind = { is: 'list', most: 1_000, each: long };
const asChoices = (values: readonly string[]): Choice[] => values.map((value) => ({ id: value, label: value }));

/** Fields that every listing may have, in the order in which they are told. */
const entries = {
  title: { label: 'Title', kind: () => text },
  brand: {
    label: 'Brand',
    kind: (rules) =>
      rules?.brand?.values
        ? { is: 'choice', choices: asChoices([...rules.brand.values, ...(rules.brand.none ? [rules.brand.none] : [])]) }
        : text,
  },
  category: {
    label: 'Category',
    kind: (rules) =>
      rules
        ? {
            is: 'choice',
            choices: rules.categories
              .filter((one) => one.leaf)
              .map(({ id, path }) => ({ id, label: path.join(' › ') })),
          }
        : text,
  },
  condition: {
    label: 'Condition',
    kind: (rules) => (rules ? { is: 'choice', choices: rules.conditions } : text),
  },
  conditionNote: { label: 'Condition note', kind: () => lines },
  product: { label: 'Catalogue product', kind: () => text, takeable: false },
  description: {
    label: 'Description',
    kind: (rules) => (rules?.description?.format === 'rich' ? { is: 'rich', most: long } : lines),
  },
  highlights: { label: 'Highlights', kind: () => list },
  tags: { label: 'Tags', kind: () => ({ ...list, words: true }) },
  price: { label: 'Price', kind: () => ({ is: 'money' }) },
  quantity: { label: 'Quantity', kind: () => ({ is: 'whole', least: 0, most: 1_000_000 }), takeable: false },
  variations: { label: 'Variations', kind: () => ({ is: 'map', name: 40, each: 60 }), takeable: false },
  photos: { label: 'Photos', kind: () => ({ is: 'photos' }), takeable: false },
  clip: { label: 'Clip', kind: () => ({ is: 'clip' }), takeable: false },
  weightGrams: { label: 'Weight', kind: () => ({ is: 'weight' }) },
  size: { label: 'Parcel size', kind: () => ({ is: 'size' }) },
  sku: { label: 'Stock number', kind: () => text, takeable: false },
} satisfies Record<string, Entry>;

export type FixedField = keyof typeof entries;
// keys of the constant above
export const fixedFields = Object.keys(entries) as [FixedField, ...FixedField[]];
export const isFixedField = (id: string): id is FixedField => Object.hasOwn(entries, id);

export const fixedFieldLabel = (id: FixedField): string => entries[id].label;

/** What a field needs of a list's entries; what they look like, or are printed on, is no matter of fields. */
const namesOf = ({ values }: ExtraRule) => (values ?? []).map(({ id, label }) => ({ id, label }));

const extraKinds: Record<ExtraRule['type'], (extra: ExtraRule) => Kind> = {
  choice: (extra) => ({ is: 'choice', choices: namesOf(extra) }),
  choices: (extra) => ({ is: 'list', most: 1_000, each: long, choices: namesOf(extra) }),
  text: () => text,
  boolean: () => ({ is: 'boolean' }),
  list: () => list,
  integer: () => ({ is: 'whole', least: -1_000_000_000, most: 1_000_000_000 }),
  money: () => ({ is: 'money' }),
  date: () => ({ is: 'date' }),
};

/** `attr.film_format` as words, where the rules that name it are not at hand. */
const nameOf = (id: string): string =>
  id
    .replace(/^(attr|extra)\./, '')
    .replace(/[_-]+/g, ' ')
    .replace(/^./, (letter) => letter.toUpperCase());

const attributeRules = new WeakMap<MarketRules, Map<string, { label: string; values: string[] | null }>>();

function attributeRule(rules: MarketRules, id: string) {
  let known = attributeRules.get(rules);
  if (!known) {
    known = new Map(
      rules.categories.flatMap((category) => category.attributes.map((one) => [`attr.${one.id}`, one] as const)),
    );
    attributeRules.set(rules, known);
  }
  return known.get(id);
}

/** Values that lists do not hold may have been written before the list changed: the checks tell them. */
function looseSchema(kind: Kind): z.ZodType {
  switch (kind.is) {
    case 'choice':
      return z.string().max(long).nullable();
    case 'money':
    case 'whole':
    case 'weight':
      return z.number('A whole number is needed').int('A whole number is needed').nullable();
    case 'list':
      return z.array(z.string().max(long)).max(1_000).nullable();
    default:
      return jsonSchema;
  }
}

const made = (id: string, { traits, ...entry }: FieldEntry): Field =>
  makeField('listing', id, {
    ...entry,
    schema: entry.schema ?? looseSchema(entry.kind),
    traits: { sent: id, ...traits },
  });

const amount = z.number('A whole number is needed').int('A whole number is needed').min(0, 'A whole number is needed');

/** Whether an item is for an account at all: no content of a listing, and yet said account by account. */
const targetField = makeField('listing', 'target', {
  label: 'Meant for it',
  kind: { is: 'boolean', words: ['meant for it', 'left out'] },
  schema: z.boolean('Say yes or no'),
  empty: false,
  traits: { takeable: false, copied: false, inside: true },
});

/**
 * A field of a listing: one that all have, `attr.<id>` or `extra.<id>`. With a marketplace's rules its kind is as they
 * say; without them it is what can be told from the id.
 * @returns undefined when there is no such field there
 */
export function listingField(id: string, rules?: MarketRules): Field | undefined {
  if (isFixedField(id)) {
    const entry: Entry = entries[id];
    return made(id, {
      label: entry.label,
      kind: entry.kind(rules),
      schema: id === 'price' || id === 'quantity' ? amount.nullable() : undefined,
      traits: entry.takeable === false ? { takeable: false } : {},
    });
  }
  if (id === targetField.id) return targetField;
  if (!/^(attr|extra)\.[\w-]+$/.test(id)) return undefined;
  if (!rules) return made(id, { label: nameOf(id), kind: text, schema: jsonSchema });
  if (id.startsWith('extra.')) {
    const extra = rules.extras.find((one) => `extra.${one.id}` === id);
    return extra && made(id, { label: extra.label, kind: extraKinds[extra.type](extra) });
  }
  const attribute = attributeRule(rules, id);
  if (!attribute) return undefined;
  const kind: Kind = attribute.values ? { is: 'choice', choices: asChoices(attribute.values) } : text;
  return made(id, { label: attribute.label, kind });
}

/** Every field that listings of this marketplace may have. */
export const listingFieldIds = (rules: MarketRules): string[] => [
  ...fixedFields,
  ...new Set(rules.categories.flatMap((category) => category.attributes.map((one) => `attr.${one.id}`))),
  ...rules.extras.map((one) => `extra.${one.id}`),
  targetField.id,
];

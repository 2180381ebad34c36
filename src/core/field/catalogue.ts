import type { CustomField } from '../item/custom-fields';
import type { MarketRules } from '../rules/rules';
import { combinationFieldIds, combinationFields } from './combination-fields';
import { ownField } from './custom-field';
import { type Field, makeField } from './field';
import { itemFieldEntries, keptFieldEntries } from './item-fields';
import { listingField, listingFieldIds } from './listing-fields';

const fixed = new Map<string, Field>(
  Object.entries({ ...itemFieldEntries, ...keptFieldEntries }).map(([id, entry]) => [id, makeField('item', id, entry)]),
);

/** One attribute of an item by its name; nothing written is the empty text. */
export const attributeField = (name: string): Field =>
  makeField('item', `attributes.${name}`, {
    label: name,
    kind: { is: 'text', most: 300 },
    empty: '',
    traits: { asked: true },
  });

export type Catalogue = {
  /** Every field that can be listed: attributes, which anybody may name, only where they were given. */
  fields: readonly Field[];
  /** `title`, `attributes.<name>`, `own.<key>`. */
  item(id: string): Field | undefined;
  /** `title`, `attr.<id>`, `extra.<id>`. */
  listing(id: string): Field | undefined;
  /** `quantity`, `price`, `sku` … of one combination. */
  combination(id: string): Field | undefined;
};

/**
 * The catalogue of fields: the item's, those that the sellers added, the combinations', and with a marketplace's rules
 * what may be written for it alone.
 */
export function fieldsFor(customFields: readonly CustomField[] = [], rules?: MarketRules): Catalogue {
  const own = new Map(customFields.map((one) => [`own.${one.key}`, ownField(one)]));
  const listings = new Map<string, Field | undefined>();
  const listing = (id: string) => {
    if (!listings.has(id)) listings.set(id, listingField(id, rules));
    return listings.get(id);
  };
  return {
    fields: [
      ...fixed.values(),
      ...own.values(),
      ...combinationFieldIds.map((id) => combinationFields[id]),
      ...(rules ? listingFieldIds(rules).flatMap((id) => listing(id) ?? []) : []),
    ],
    item(id) {
      if (id.startsWith('attributes.') && id.length > 'attributes.'.length && id.length <= 71)
        return attributeField(id.slice('attributes.'.length));
      return fixed.get(id) ?? own.get(id);
    },
    listing,
    combination: (id) => combinationFieldIds.flatMap((one) => (one === id ? combinationFields[one] : []))[0],
  };
}

/** The item's own fields, which are the same for every shop. */
export const itemField = (id: string): Field | undefined => fixed.get(id);

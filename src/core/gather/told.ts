import { askedFieldIds, itemFieldEntries } from '../field/item-fields';
import { type ConditionGrade, conditionGrades } from '../item/condition';
import type { ItemPatch } from '../item/item';
import type { Json } from '../json';
import type { AccountContext, Content } from '../listing';
import { toRichText } from '../listing/fit/rich-text';
import { knownProduct } from '../listing/map/product';
import { namesLike } from '../listing/map/synonyms';
import { packedGrams } from '../measure/parcel';
import { homeAmount } from '../measure/rate';
import { nameKey } from '../rules/compiled';
import { variationsTold } from './variations-told';

/** What a listing tells of the thing that it offers, in the words of our own items. */
export type Told = {
  /** Only what it says something about. */
  fields: ItemPatch;
  /** Grades that their condition may stand for, best first; none where it says nothing. */
  grades: ConditionGrade[];
  /** Units that are offered; null where it does not say. */
  quantity: number | null;
  /** It offers as many as the marketplace takes at once: there may be more. */
  isCapped: boolean;
};

const text = (value: Json | undefined): string => (typeof value === 'string' ? value.trim() : '');
const words = (value: Json | undefined): string[] =>
  Array.isArray(value) ? value.filter((one): one is string => typeof one === 'string' && one.trim() !== '') : [];
const amount = (value: Json | undefined): number | null =>
  typeof value === 'number' && Number.isInteger(value) && value >= 0 ? value : null;

/** Grades of ours that an account tells as this condition of theirs. */
export function gradesOf(condition: Json | undefined, { compiled, maps }: AccountContext): ConditionGrade[] {
  if (typeof condition !== 'string') return [];
  const told = (grade: ConditionGrade) => maps.condition?.[grade] ?? compiled.rules.conditionMap[grade];
  return conditionGrades.map((one) => one.id).filter((grade) => told(grade) === condition);
}

/** Our own category for one of theirs: as it was chosen before the other way round, else its path there. */
function categoryOf(id: string, { compiled, categoryMap }: AccountContext): string {
  const [own] = Object.entries(categoryMap)
    .filter(([, theirs]) => theirs === id)
    .map(([ours]) => ours)
    .sort();
  if (own !== undefined) return own;
  const path = compiled.categoryById.get(id)?.path ?? [];
  return path.join('/').toLowerCase().slice(0, 120);
}

/** Title and text: where there is no title its first line is one; a product's name stands for it on catalogues. */
function wording(
  content: Content,
  { compiled, products }: AccountContext,
  called: string,
): { title: string; description: string } {
  const { rules } = compiled;
  const whole = text(content.description);
  if (rules.description?.titleFirst) {
    const [first = '', ...rest] = whole.split('\n');
    return { title: first.trim().slice(0, 300), description: toRichText(rest.join('\n')) };
  }
  const product = text(content.product);
  const title = text(content.title) || (product ? (knownProduct(products, product)?.name ?? '') : '');
  const isRich = rules.description?.format === 'rich';
  return {
    title: (title || called.trim() || (isRich ? '' : (whole.split('\n')[0] ?? ''))).slice(0, 300),
    description: isRich ? whole : toRichText(whole),
  };
}

const asked = new Map(askedFieldIds.map((id) => [nameKey(itemFieldEntries[id].label), id]));

/** Attributes by the names that we give them; those that an item has a field of its own for go there. */
function attributesTold(content: Content, { compiled, synonyms }: AccountContext): ItemPatch {
  const rules = compiled.categoryById.get(text(content.category))?.attributes ?? [];
  const attributes: Record<string, string> = {};
  const fields: ItemPatch = {};
  for (const [field, value] of Object.entries(content)) {
    if (!field.startsWith('attr.') || text(value) === '') continue;
    const id = field.slice('attr.'.length);
    const label = rules.find((one) => one.id === id)?.label ?? id.replace(/[_-]+/g, ' ');
    const own = namesLike(label).flatMap((key) => asked.get(key) ?? [])[0];
    const name = Object.hasOwn(synonyms.names, id) ? (synonyms.names[id] ?? label) : label;
    if (own === undefined) attributes[name.slice(0, 60)] = text(value).slice(0, 300);
    else if (itemFieldEntries[own].schema.safeParse(text(value)).success) Object.assign(fields, { [own]: text(value) });
  }
  return Object.keys(attributes).length ? { ...fields, attributes } : fields;
}

/** The weight that packing makes theirs of: what they show is packed. Null where none would. */
function bareGrams(shown: number, { packaging }: AccountContext): number | null {
  if (shown <= 0) return null;
  // Packing never takes away, and adds more to what is heavier: halving finds it.
  let [low, high] = [0, shown];
  while (low < high) {
    const middle = Math.floor((low + high) / 2);
    if (packedGrams(middle, packaging) < shown) low = middle + 1;
    else high = middle;
  }
  return packedGrams(low, packaging) === shown && low > 0 ? low : shown;
}

/** Only what says something. */
const said = (fields: ItemPatch): ItemPatch =>
  Object.fromEntries(
    Object.entries(fields).filter(
      ([, value]) => value !== null && value !== undefined && value !== '' && !(Array.isArray(value) && !value.length),
    ),
  );

/**
 * The way back of what is computed for a marketplace: what a listing says, as fields of an item. What cannot be an
 * item's is left out, never bent: a number that is no amount, a stock number with signs that we do not use.
 * @param content as a connector read it, in the marketplace's own values and currency
 * @param called what buyers see as its name there, for where it has no title of its own
 */
export function toldBy(content: Content, account: AccountContext, called = ''): Told {
  const { rules } = account.compiled;
  const grades = gradesOf(content.condition, account);
  const size = Array.isArray(content.size) && content.size.length === 3 ? content.size.map(Number) : [];
  const brand = text(content.brand);
  const price = amount(content.price);
  const weight = amount(content.weightGrams);
  const quantity = amount(content.quantity);
  const house = nameKey(account.houseTag);
  const fields: ItemPatch = {
    ...wording(content, account, called),
    brand: brand === rules.brand?.none ? '' : brand,
    category: rules.category === 'product' ? '' : categoryOf(text(content.category), account),
    // Of several grades the lowest: nothing is promised that they do not say.
    condition: grades.at(-1) ?? null,
    conditionNote: text(content.conditionNote),
    highlights: words(content.highlights),
    keywords: words(content.tags).filter((tag) => !house || nameKey(tag) !== house),
    price: price === null ? null : homeAmount(price, rules.currency, account.rate),
    weightGrams: weight === null ? null : bareGrams(weight, account),
    lengthMm: size[0] ?? null,
    widthMm: size[1] ?? null,
    heightMm: size[2] ?? null,
    sku: text(content.sku),
    ...attributesTold(content, account),
    ...variationsTold(content.variations, (one) => homeAmount(one, rules.currency, account.rate)),
  };
  return {
    fields: fitting(said(fields)),
    grades,
    quantity,
    isCapped: quantity !== null && quantity >= rules.quantity.max,
  };
}

/** What an item's own rules take; the rest is left out, one field at a time. */
function fitting(fields: ItemPatch): ItemPatch {
  const entries = Object.entries(fields).filter(([id, value]) => {
    const entry = itemFieldEntries[id as keyof typeof itemFieldEntries]; // made of their names above
    return entry.schema.safeParse(value).success;
  });
  return Object.fromEntries(entries);
}

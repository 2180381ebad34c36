import { applySteps, type Step, type StepContext } from '../edit';
import { fieldsFor } from '../field';
import { type ConditionGrade, emptyItemFields, type Item } from '../item';
import { homeCurrency } from '../measure/money';

/** Which of an item's fields a lot has, as steps of a change name them. */
export const lotStepFields = ['price', 'quantity', 'condition', 'location', 'conditionNote', 'weightGrams'] as const;

/** What steps may change of a lot. */
export type LotValues = {
  name: string;
  price: number | null;
  quantity: number;
  condition: ConditionGrade | null;
  place: string;
  comment: string;
  grams: number | null;
};

const catalogue = fieldsFor();
/** A lot has no listings yet, and nobody is asked what such things sold for: that is what its pricing does. */
const context: StepContext = {
  catalogue,
  currency: homeCurrency,
  listed: () => undefined,
  listingField: () => undefined,
  currencyOf: () => homeCurrency,
  amountThere: (_account, amount) => amount,
  priceFor: () => null,
  boxes: [],
  suggestedCategory: () => null,
  termsOf: () => null,
  soldFor: () => null,
};

const asItem = ({ name, price, quantity, condition, place, comment, grams }: LotValues): Item =>
  ({
    ...emptyItemFields,
    id: 1,
    version: 1,
    sku: '-',
    currency: homeCurrency,
    quantity,
    elsewhere: {},
    placings: {},
    looks: {},
    clip: '',
    standing: 'active',
    photos: [],
    title: name,
    price,
    condition,
    location: place,
    conditionNote: comment,
    weightGrams: grams,
  }) as Item; // the fields of a lot in an item that has nothing else

/**
 * The same steps that change items, on a lot. Pure.
 * @returns what becomes different, empty where nothing does; or why the lot stays as it is
 */
export function stepsOnLot(steps: readonly Step[], lot: LotValues): { set: Partial<LotValues> } | { refused: string } {
  const stranger = steps.find(({ field, where }) => where.on !== 'item' || !lotStepFields.some((one) => one === field));
  if (stranger) return { refused: `A lot has no ${stranger.field} to change` };
  const before = asItem(lot);
  const done = applySteps(steps, { item: before, overrides: new Map() }, context);
  if ('refused' in done) return { refused: done.refused };
  const now = done.record.item;
  const set: Partial<LotValues> = {};
  if (now.price !== before.price) set.price = now.price;
  if (now.quantity !== before.quantity) set.quantity = now.quantity;
  if (now.condition !== before.condition) set.condition = now.condition;
  if (now.location !== before.location) set.place = now.location;
  if (now.conditionNote !== before.conditionNote) set.comment = now.conditionNote;
  if (now.weightGrams !== before.weightGrams) set.grams = now.weightGrams;
  return { set };
}

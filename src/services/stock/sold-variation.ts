import type { Item, Variation } from '../../core/item';
import { ownValue } from '../../core/json';
import type { Narrowing } from '../../core/listing';
import type { RemoteOrder } from '../../markets';

/**
 * The combination that an order is for: by its own stock number, else by its values within what its listing was narrowed
 * to. A marketplace that was told fewer axes names fewer values, or none; the first combination that fits and is in stock
 * is meant. One that was switched off, or narrowed away, after it was sold is still the one that was sold.
 * @param narrowing which value of which axis alone the listing offers
 * @returns nothing when the order says too little, or something that no combination is
 */
export function soldVariation(
  { axes, variations }: Pick<Item, 'axes' | 'variations'>,
  { variation, quantity }: Pick<RemoteOrder, 'variation' | 'quantity'>,
  narrowing: Narrowing = {},
): Variation | undefined {
  const number = variation?.number ?? '';
  const numbered = number === '' ? undefined : variations.find((row) => row.sku === number);
  if (numbered) return numbered;
  const values = variation?.values ?? [];
  const inside = variations.filter((row) =>
    axes.every((axis, at) => [undefined, row.values[at]].includes(ownValue(narrowing, axis.name))),
  );
  const isOn = (row: Variation) => row.on;
  if (values.length === 0) {
    const [only, ...others] = inside.some(isOn) ? inside.filter(isOn) : inside;
    return others.length ? undefined : only;
  }
  const says = (row: Variation) => values.every((value) => row.values.includes(value));
  const fitting = [inside.filter(isOn), inside, variations.filter(isOn), variations]
    .map((rows) => rows.filter(says))
    .find((rows) => rows.length > 0);
  return fitting?.find((row) => row.quantity >= quantity) ?? fitting?.[0];
}

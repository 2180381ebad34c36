import type { Item } from '../../core/item';
import type { RemoteOrder } from '../../markets';

/**
 * The combination that an order is for: by its own stock number, else by its values. A marketplace that was told fewer
 * axes names fewer values; the first combination that has them all and is in stock is meant.
 */
export function soldVariation(
  { variations }: Pick<Item, 'variations'>,
  { variation, quantity }: Pick<RemoteOrder, 'variation' | 'quantity'>,
) {
  const on = variations.filter((row) => row.on);
  if (!variation) return on.length === 1 ? on[0] : undefined;
  const fitting = on.filter(
    (row) =>
      (variation.number !== '' && row.sku === variation.number) ||
      variation.values.every((value) => row.values.includes(value)),
  );
  return (
    fitting.find((row) => variation.number !== '' && row.sku === variation.number) ??
    fitting.find((row) => row.quantity >= quantity) ??
    fitting[0]
  );
}

import { isMadeToOrder } from '../../core/artwork';
import type { Change } from '../../core/change';
import { type Item, type Variation, withUnits } from '../../core/item';

/**
 * So many units more (or fewer) of an item, or of one of its combinations. Of an item with variations whose combination
 * is not known nothing can be moved.
 */
export function unitsChange(item: Item, combination: Variation | undefined, delta: number): Change[] {
  if (combination)
    return [
      {
        target: { item: item.id, combination: combination.key },
        field: 'quantity',
        to: combination.quantity + delta,
      },
    ];
  // What is made when it is bought lies nowhere.
  return item.axes.length || isMadeToOrder(item)
    ? []
    : [{ target: { item: item.id }, field: 'quantity', to: item.quantity + delta }];
}

/** The same of units that lie in the warehouse of an account. */
export const unitsChangeThere = (item: Item, accountId: number, delta: number): Change[] => [
  { target: { item: item.id }, field: 'elsewhere', to: withUnits(item.elsewhere, 'there', accountId, delta) },
];

import type { Change } from '../../core/change';
import type { Item, Variation } from '../../core/item';

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
  return item.axes.length ? [] : [{ target: { item: item.id }, field: 'quantity', to: item.quantity + delta }];
}

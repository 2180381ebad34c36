import { z } from 'zod';
import { adjustPriceByAmount } from './adjust-price-by-amount';
import { adjustPriceByPercent } from './adjust-price-by-percent';
import { adjustQuantity } from './adjust-quantity';
import type { EditableItem, Outcome } from './outcome';
import { putBeforeTitle } from './put-before-title';
import { setPrice } from './set-price';
import { setQuantity } from './set-quantity';

/** The list of operations; a new one is a file of its own and a line here. */
const _operations = [
  adjustPriceByPercent,
  adjustPriceByAmount,
  setPrice,
  setQuantity,
  adjustQuantity,
  putBeforeTitle,
] as const;

export const operationSchema = z.discriminatedUnion('op', [
  adjustPriceByPercent.schema,
  adjustPriceByAmount.schema,
  setPrice.schema,
  setQuantity.schema,
  adjustQuantity.schema,
  putBeforeTitle.schema,
]);
export type Operation = z.infer<typeof operationSchema>;

/** Whether some step reads or writes the title. */
export const needsTitle = (steps: readonly Operation[]): boolean => steps.some((step) => step.op === 'title-before');

/** One operation on one item: what changes, or why it cannot. */
export function applyOperation(operation: Operation, item: EditableItem): Outcome {
  switch (operation.op) {
    case 'price-percent':
      return adjustPriceByPercent.apply(operation, item);
    case 'price-amount':
      return adjustPriceByAmount.apply(operation, item);
    case 'price-set':
      return setPrice.apply(operation, item);
    case 'quantity-set':
      return setQuantity.apply(operation, item);
    case 'quantity-add':
      return adjustQuantity.apply(operation, item);
    case 'title-before':
      return putBeforeTitle.apply(operation, item);
  }
}

export type EditResult = {
  price: number | null;
  quantity: number;
  title?: string;
  changed: ('price' | 'quantity' | 'title')[];
  /** Steps that could not be done to this item, in plain words; such an item is left as it is. */
  refused: string[];
};

/**
 * A series of operations on one item, each seeing the result of those before. When one is refused the item stays
 * unchanged as a whole, so that nobody gets half of a change.
 */
export function applySteps(steps: readonly Operation[], item: EditableItem): EditResult {
  let current = item;
  for (const step of steps) {
    const outcome = applyOperation(step, current);
    if (outcome.kind === 'refused')
      return { price: item.price, quantity: item.quantity, changed: [], refused: [outcome.why] };
    if (outcome.kind === 'changed') current = outcome.item;
  }
  const changed: EditResult['changed'] = [];
  if (current.price !== item.price) changed.push('price');
  if (current.quantity !== item.quantity) changed.push('quantity');
  if (current.title !== item.title) changed.push('title');
  return { price: current.price, quantity: current.quantity, title: current.title, changed, refused: [] };
}

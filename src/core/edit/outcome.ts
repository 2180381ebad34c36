/** The part of an item that operations see. */
export type EditableItem = {
  price: number | null;
  quantity: number;
  /** Its stock is the sum of its variations and cannot be written as one number. */
  varied?: boolean;
  /** Read only where a step needs it. */
  title?: string;
};

export type Outcome =
  | { kind: 'changed'; item: EditableItem }
  | { kind: 'unchanged' }
  | { kind: 'refused'; why: string };

export const priced = (item: EditableItem, price: number): Outcome =>
  price === item.price ? { kind: 'unchanged' } : { kind: 'changed', item: { ...item, price } };

export function stocked(item: EditableItem, quantity: number): Outcome {
  if (item.varied) return { kind: 'refused', why: 'Its stock is counted by its variations' };
  return quantity === item.quantity ? { kind: 'unchanged' } : { kind: 'changed', item: { ...item, quantity } };
}

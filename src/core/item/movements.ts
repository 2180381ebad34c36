/** Why stock moved, in the order in which a person chooses. `opening` and `undo` are written by the product itself. */
export const movementReasons = [
  'opening',
  'bought',
  'added',
  'set',
  'sold',
  'cancelled',
  'returned',
  'corrected',
  'moved',
  'set-aside',
  'shipped',
  'received',
  'lost',
  'undo',
  'with-set',
] as const;
export type MovementReason = (typeof movementReasons)[number];

export const movementWords: Record<MovementReason, string> = {
  opening: 'First recorded',
  bought: 'Bought',
  added: 'Added',
  set: 'Counted and set',
  sold: 'Sold',
  cancelled: 'Sale cancelled',
  returned: 'Returned by a buyer',
  corrected: 'Corrected',
  moved: 'Moved elsewhere',
  'set-aside': 'Set aside for a warehouse',
  shipped: 'On the way to a warehouse',
  received: 'Arrived at a warehouse',
  lost: 'Lost on the way',
  undo: 'Change taken back',
  'with-set': 'One stock with a whole set',
};

/** Reasons that a person may give when adding or taking away by hand. */
export const handReasons = ['bought', 'added', 'returned', 'corrected', 'moved'] as const satisfies MovementReason[];

/** What results from adding to stock, or from setting it: two different things. Units; may be below zero only in the sum that is refused. */
export function resultingStock(
  there: number,
  change: { how: 'add' | 'set'; units: number },
): { delta: number; result: number } {
  const result = change.how === 'add' ? there + change.units : change.units;
  return { delta: result - there, result };
}

/** What one account may offer of what is there: never its reserve, never more than its cap. */
export const offeredUnits = (there: number, limits: { reserve: number; cap: number | null }): number =>
  Math.max(0, Math.min(there - limits.reserve, limits.cap ?? Number.POSITIVE_INFINITY));

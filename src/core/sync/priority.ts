/** Lower runs first. Ends and lower quantities overtake everything; text and photos come last. */
export const priorities = { end: 0, quantity: 1, price: 3, create: 5, content: 7, renew: 9 } as const;

export type JobPriority = (typeof priorities)[keyof typeof priorities];

/** The priority of a job that carries changes to these fields. */
export function priorityOf(fields: readonly string[]): JobPriority {
  if (fields.includes('quantity')) return priorities.quantity;
  if (fields.includes('price')) return priorities.price;
  return priorities.content;
}

/** A job that joins a waiting one: one call carries both, at the more urgent one's place. */
export const coalesce = <J extends { priority: number }>(waiting: J, joining: J): J => ({
  ...waiting,
  priority: Math.min(waiting.priority, joining.priority),
});

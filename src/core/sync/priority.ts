/** Lower runs first. Ends and lower quantities overtake everything; text and photos come last. */
export const priorities = { end: 0, quantity: 1, price: 3, create: 5, content: 7, renew: 9 } as const;

export type JobPriority = (typeof priorities)[keyof typeof priorities];

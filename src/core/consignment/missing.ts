/** A shipment as far as its arrival goes: what was sent, what they counted, what was given up for lost. */
export type Arrival = {
  units: readonly { item: number; sku: string; quantity: number }[];
  received: readonly { sku: string; received: number }[];
  lost: Readonly<Record<string, number>>;
};

/** What has neither arrived nor been given up, by stock number. */
export const missingOf = ({ units, received, lost }: Arrival): { sku: string; item: number; missing: number }[] =>
  units.flatMap(({ sku, item, quantity }) => {
    const came = received.find((one) => one.sku === sku)?.received ?? 0;
    const missing = quantity - came - (lost[sku] ?? 0);
    return missing > 0 ? [{ sku, item, missing }] : [];
  });

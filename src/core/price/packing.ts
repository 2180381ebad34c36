import { z } from 'zod';
import type { Parcel } from '../measure/parcel';

const minor = z.number().int().min(0).max(100_000);

/** What packing costs, in minor units of the shop's own currency. */
export const packingSchema = z
  .object({
    /** Box, filling and tape of one parcel; a box with a cost of its own has that instead. */
    perParcel: minor,
    /** Filling that grows with the weight: for each kilogram of the packed parcel. */
    perKilo: minor,
    /** How long one parcel takes. */
    minutes: z.number().int().min(0).max(600),
    /** What an hour of one's own work is worth; 0 where it is not reckoned. */
    hourly: minor,
  })
  .strict();
export type Packing = z.infer<typeof packingSchema>;

/** Whether it is the same for every parcel, whatever goes into it. */
const isFixed = ({ perKilo }: Packing, boxes: readonly { cost: number | null }[]): boolean =>
  perKilo === 0 && boxes.every((one) => one.cost === null);

/**
 * What packing one parcel costs: the box that it goes into, what grows with its weight (rounded up), and one's own time
 * (rounded half up).
 * @param parcel asked for only where the cost hangs on it
 */
export function packingOf(
  packing: Packing,
  boxes: readonly { cost: number | null }[],
  parcel: () => Pick<Parcel, 'grams' | 'box'>,
): number {
  const time = Math.round((packing.hourly * packing.minutes) / 60);
  if (isFixed(packing, boxes)) return packing.perParcel + time;
  const { grams, box } = parcel();
  return (box?.cost ?? packing.perParcel) + Math.ceil((grams * packing.perKilo) / 1_000) + time;
}

import { shareCost } from '../batch/share-cost';
import { homeBand, quotes, type Tariff } from '../price/postage';
import { tareGrams } from './pack';

/** What sending a shipment in costs, in minor units: placing, labelling (their fee or one's own time), preparing, postage. */
export type WayCosts = { placing: number; labelling: number; prep: number; postage: number };

export const wayTotal = ({ placing, labelling, prep, postage }: WayCosts): number =>
  placing + labelling + prep + postage;

/**
 * What one's own time for labels costs.
 * @param seconds a label
 * @param hour what an hour is worth, in minor units
 * @returns minor units, rounded half up
 */
export const ownLabelling = (units: number, seconds: number, hour: number): number =>
  Math.floor((units * seconds * hour) / 3_600 + 0.5);

/** A whole amount shared out over parts by their units, to the minor unit. */
export const sharedByUnits = (total: number, units: readonly number[]): number[] =>
  shareCost(
    total,
    units.map((one) => ({ units: one, weightGrams: null, price: null, byHand: null })),
    'number',
  ) ?? units.map(() => 0);

const rounded = (amount: number): number => Math.floor(amount + 0.5);

/**
 * What a piece costs once some of it were sent in: what the way cost is borne by all the pieces alike. Rounded half up over
 * all the shipments of one consignment, so that several do not add their roundings up.
 * @param borne what the pieces bore of earlier shipments of it, and what they bear now
 * @param all units here, set aside, on the way and there
 * @returns null where it is not known what a piece cost before
 */
export const costWithWay = (cost: number | null, borne: { before: number; now: number }, all: number): number | null =>
  cost === null || all < 1 ? cost : cost + rounded((borne.before + borne.now) / all) - rounded(borne.before / all);

/**
 * What carriers will about ask for so many grams of things, before anything is packed: as few boxes of even weight as are
 * allowed, each by the cheapest carrier.
 * @returns minor units; null where no carrier takes such boxes
 */
export function plannedPostage(
  grams: number,
  { limit, tariffs }: { limit: number; tariffs: readonly Tariff[] },
): number | null {
  if (grams <= 0) return 0;
  const boxes = Math.ceil(grams / Math.max(1, limit - tareGrams));
  const each = Math.ceil(grams / boxes) + tareGrams;
  const [cheapest] = quotes(tariffs, { grams: each, sides: null, band: homeBand });
  return cheapest ? cheapest.amount * boxes : null;
}

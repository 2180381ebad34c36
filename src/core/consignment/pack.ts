import { type Box, bareGrams, emptyBox, packedOf, type ShipmentUnits, unitsIn } from './box';

/** A shipment as far as packing needs it. */
export type Packing = { id: number; units: readonly ShipmentUnits[]; boxes: readonly Box[] };

/** When a box is full by itself. Grams of the box with everything; units: 0 for any number. */
export type PackLimits = { grams: number; units: number };

/** What a box with its filling weighs by itself, in grams: kept free below the limit. */
export const tareGrams = 800;

export type Placed = {
  shipment: number;
  /** The box that the unit goes into. */
  box: number;
  /** It is a new box: the one before is full. */
  isNew: boolean;
  boxes: Box[];
};

const openBox = (boxes: readonly Box[]): Box | undefined => boxes.filter((box) => !box.isFull).at(-1);

/** Whether one more unit still goes into a box. */
const hasRoom = (box: Box, grams: number, limits: PackLimits, gramsOf: (sku: string) => number): boolean =>
  (limits.units === 0 || unitsIn(box) < limits.units) &&
  (unitsIn(box) === 0 || bareGrams(box, gramsOf) + grams + tareGrams <= limits.grams);

const missing = (one: Packing, sku: string): number =>
  (one.units.find((units) => units.sku === sku)?.quantity ?? 0) - packedOf(one.boxes, sku);

/**
 * Into which box of which shipment a scanned unit goes: of the shipments that still lack one, that which was packed last, so
 * that one hand stays at one box; else the first. A box that is full by weight or number is closed, and the next begun.
 * @param last the shipment that was packed last
 * @returns null when no shipment lacks this number
 */
export function placeUnit(
  shipments: readonly Packing[],
  sku: string,
  { limits, gramsOf, last }: { limits: PackLimits; gramsOf: (sku: string) => number; last: number | null },
): Placed | null {
  const lacking = shipments.filter((one) => missing(one, sku) > 0);
  const chosen = lacking.find((one) => one.id === last) ?? lacking[0];
  if (!chosen) return null;
  const open = openBox(chosen.boxes);
  const fits = open !== undefined && hasRoom(open, gramsOf(sku), limits, gramsOf);
  const target = fits ? open : emptyBox(Math.max(0, ...chosen.boxes.map((box) => box.number)) + 1);
  const filled: Box = {
    ...target,
    contents: { ...target.contents, [sku]: (target.contents[sku] ?? 0) + 1 },
  };
  const others = chosen.boxes
    .filter((box) => box.number !== filled.number)
    .map((box) => (box === open ? { ...box, isFull: true } : box));
  return {
    shipment: chosen.id,
    box: filled.number,
    isNew: !fits,
    boxes: [...others, filled].sort((a, b) => a.number - b.number),
  };
}

/** Takes a unit out of a box again. A box that is empty then stays, open. */
export function takeOut(boxes: readonly Box[], number: number, sku: string): Box[] {
  return boxes.map((box) => {
    if (box.number !== number || !box.contents[sku]) return box;
    const { [sku]: units = 0, ...rest } = box.contents;
    return { ...box, contents: units > 1 ? { ...rest, [sku]: units - 1 } : rest };
  });
}

/** Closes the box that is packed now: the next unit begins another. */
export const closeBox = (boxes: readonly Box[]): Box[] => {
  const open = openBox(boxes);
  return boxes.map((box) => (box === open && unitsIn(box) > 0 ? { ...box, isFull: true } : box));
};

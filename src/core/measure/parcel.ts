import { z } from 'zod';

/** A box that one owns: inside length, width, height in millimetres, and what it weighs empty with its filling. */
export const boxSchema = z.object({
  id: z.number(),
  name: z.string(),
  lengthMm: z.number(),
  widthMm: z.number(),
  heightMm: z.number(),
  grams: z.number(),
  /** What it costs with its filling, in minor units of the shop's own currency; null for what every parcel costs. */
  cost: z.number().nullable(),
});
export type Box = z.infer<typeof boxSchema>;

/** What packing adds when no box was picked: a share of the weight (basis points), at least so many grams. */
export const packagingAllowanceSchema = z
  .object({
    basisPoints: z.number().int().min(0).max(10_000),
    atLeastGrams: z.number().int().min(0).max(10_000),
  })
  .strict();
export type PackagingAllowance = z.infer<typeof packagingAllowanceSchema>;

export const noAllowance: PackagingAllowance = { basisPoints: 0, atLeastGrams: 0 };

/** Weight of the packed thing: rounded up, never lighter than it is. */
export const packedGrams = (grams: number, { basisPoints, atLeastGrams }: PackagingAllowance): number =>
  grams + Math.max(atLeastGrams, Math.ceil((grams * basisPoints) / 10_000));

/**
 * Volumetric weight in grams: cubic centimetres by the carrier's divisor, as kilograms; rounded up.
 * @param divisor cubic centimetres that count as one kilogram, such as 5000 or 6000
 */
export const volumetricGrams = (lengthMm: number, widthMm: number, heightMm: number, divisor: number): number =>
  Math.ceil((lengthMm * widthMm * heightMm) / divisor);

/** The weight a carrier counts: the real or the volumetric one, whichever is more. */
export const countedGrams = (grams: number, sides: [number, number, number] | null, divisor: number): number =>
  sides ? Math.max(grams, volumetricGrams(...sides, divisor)) : grams;

export type Sides = [length: number, width: number, height: number];

/** What a thing weighs and measures bare. */
export type Thing = {
  weightGrams: number | null;
  lengthMm: number | null;
  widthMm: number | null;
  heightMm: number | null;
};

/** The parcel that a thing goes out as: grams and outer sides in millimetres; the box where one of them holds it. */
export type Parcel = { grams: number; sides: Sides | null; box: Box | null };

/** The box that was taken for a thing: its sides are that box's, and its weight holds the box's. */
export const boxTaken = ({ lengthMm, widthMm, heightMm }: Thing, boxes: readonly Box[]): Box | null =>
  boxes.find((box) => box.lengthMm === lengthMm && box.widthMm === widthMm && box.heightMm === heightMm) ?? null;

/** What the packed thing weighs as a marketplace is told: with the box that was taken, or else by the allowance. */
export const toldGrams = (thing: Thing, boxes: readonly Box[], allowance: PackagingAllowance): number | null =>
  thing.weightGrams && !boxTaken(thing, boxes) ? packedGrams(thing.weightGrams, allowance) : thing.weightGrams;

/**
 * The parcel of a thing: in the box that was taken; else in the smallest that it fits into, or packed by the allowance,
 * whichever is heavier, so that a parcel is never reckoned lighter than it may become.
 */
export function parcelOf(thing: Thing, boxes: readonly Box[], allowance: PackagingAllowance): Parcel {
  const { weightGrams, lengthMm, widthMm, heightMm } = thing;
  const sides: Sides | null = lengthMm && widthMm && heightMm ? [lengthMm, widthMm, heightMm] : null;
  const taken = boxTaken(thing, boxes);
  if (taken) return { grams: weightGrams ?? 0, sides, box: taken };
  const box = sides && boxFor(sides, boxes);
  const bare = weightGrams ?? 0;
  return {
    grams: bare === 0 ? 0 : Math.max(packedGrams(bare, allowance), bare + (box?.grams ?? 0)),
    sides: box ? [box.lengthMm, box.widthMm, box.heightMm] : sides,
    box,
  };
}

const sorted = (sides: number[]) => [...sides].sort((a, b) => b - a);

/** The smallest box (by volume) that the thing fits into in some position along the sides; null when none does. */
export function boxFor(sides: [number, number, number], boxes: readonly Box[]): Box | null {
  const thing = sorted(sides);
  const volume = (box: Box) => box.lengthMm * box.widthMm * box.heightMm;
  return (
    boxes
      .filter((box) =>
        sorted([box.lengthMm, box.widthMm, box.heightMm]).every((side, index) => side >= (thing[index] ?? 0)),
      )
      .sort((a, b) => volume(a) - volume(b))[0] ?? null
  );
}

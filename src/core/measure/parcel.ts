import { z } from 'zod';

/** A box that one owns: inside length, width, height in millimetres, and what it weighs empty with its filling. */
export const boxSchema = z.object({
  id: z.number(),
  name: z.string(),
  lengthMm: z.number(),
  widthMm: z.number(),
  heightMm: z.number(),
  grams: z.number(),
});
export type Box = z.infer<typeof boxSchema>;

/** What packing adds when no box was picked: a share of the weight (basis points), at least so many grams. */
export const packagingAllowanceSchema = z.object({
  basisPoints: z.number(),
  atLeastGrams: z.number(),
});
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

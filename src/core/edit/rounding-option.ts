import { z } from 'zod';
import { type RoundingName, roundings } from '../measure/rounding';

const names = Object.keys(roundings) as [RoundingName, ...RoundingName[]]; // keys of a constant that is not empty

/** How the new price shall end, and the floor that it never goes under. */
export const roundingOption = {
  rounding: z.enum(names).default('none'),
  floor: z.number().int().min(0).nullable().default(null),
};

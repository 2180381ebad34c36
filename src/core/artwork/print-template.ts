import { z } from 'zod';
import { areaSchema, placingSchema } from './place';

const colour = z.string().regex(/^#[0-9a-f]{6}$/, 'Write the colour as #rrggbb');

/** A product's ground: its name, and its colour where the marketplace does not publish it. */
const pieceGroundSchema = z.object({ name: z.string().trim().min(1).max(60), colour: colour.nullable() }).strict();

/** One product that artwork is offered on. */
export const pieceSchema = z
  .object({
    /** As buyers read it; where the marketplace has a list of products, one of its names. */
    product: z.string().trim().min(1, 'Name the product').max(60),
    /** What is printed on; null for what the marketplace publishes, as it is by then. */
    area: areaSchema.nullable(),
    /** Its price, in minor units of the items' currency; null for the item's own. */
    price: z.number().int().min(1).max(100_000_000).nullable(),
    /** The grounds that are on; none for a product that has no choice of them. */
    grounds: z.array(pieceGroundSchema).max(40),
  })
  .strict();
export type Piece = z.infer<typeof pieceSchema>;

/** The part of a template that says what artwork is printed on, and how it stands there. */
export const printTemplateSchema = z
  .object({
    pieces: z.array(pieceSchema).min(1, 'At least one product').max(24),
    /** Where it stands, unless it was placed by hand; null for the middle. */
    placing: placingSchema.nullable(),
    /** What is printed under the picture; null for nothing. */
    background: colour.nullable(),
  })
  .strict();
export type PrintTemplate = z.infer<typeof printTemplateSchema>;

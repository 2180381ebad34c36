import type { Item } from '../item/item';
import { type Axis, type Variation, variationSchema } from '../item/variations';
import { ownValue } from '../json';
import { printPhotoReference } from '../photo/reference';
import type { CompiledRules } from '../rules/compiled';
import { writeColour } from './contrast';
import { type Area, dotsPerInch, isOutside, largestGood, type Placing, placeOn } from './place';
import { planWord, printPlan } from './print-plan';
import type { Piece, PrintTemplate } from './print-template';
import { productsOffered } from './products';
import { groundsAttribute, groundsOffered, readGrounds } from './reads-on';
import { artworkOf, placingFor, type Verdict, verdictOn } from './stands';

export const productAxis = 'Product';
export const groundAxis = 'Ground';
/** The ground of a product that has no choice of them, beside others that have. */
const plain = 'Plain';

/** Less than this is seen as steps from an arm's length. */
export const leastDots = 150;

/** Artwork on one product of a template. */
export type Print = {
  product: string;
  area: Area;
  placing: Placing;
  price: number | null;
  /** The grounds that are on there; the colour where it is known. */
  grounds: PrintGround[];
};

export type PrintGround = {
  name: string;
  colour: string | null;
  /** What was said when it was looked over; null while nobody has. */
  verdict: Verdict | null;
  /** Whether it is offered: called good, or not called off and it reads well. */
  isOffered: boolean;
};

export type OfferedPrints = {
  prints: Print[];
  /** Products that the template names and nobody publishes. */
  unknown: string[];
};

const key = (name: string) => name.trim().toLowerCase();

/** The area of a piece: its own, or what the marketplace publishes under its name. */
export const areaOf = (piece: Pick<Piece, 'area' | 'product'>, rules: CompiledRules): Area | null =>
  piece.area ?? productsOffered([rules]).find((one) => key(one.name) === key(piece.product))?.area ?? null;

/** An item's artwork on every product of a template and every ground that is on there, whether it is offered or not. */
export function printsOf(
  item: Pick<Item, 'placings' | 'looks' | 'attributes'>,
  template: PrintTemplate,
  rules: CompiledRules,
): OfferedPrints {
  const suits = new Set(readGrounds(ownValue(item.attributes, groundsAttribute) ?? '').map(key));
  const colours = new Map(groundsOffered([rules]).map((one) => [key(one.name), one.colour]));
  const prints: Print[] = [];
  const unknown: string[] = [];
  for (const piece of template.pieces) {
    const area = areaOf(piece, rules);
    if (!area) {
      unknown.push(piece.product);
      continue;
    }
    const all = piece.grounds.length ? piece.grounds : [{ name: plain, colour: null }];
    const grounds = all.map(({ name, colour }): PrintGround => {
      const verdict = verdictOn(item, piece.product, name);
      const theirs = colours.get(key(name));
      return {
        name,
        colour: colour ?? (theirs ? writeColour(theirs) : null),
        verdict,
        isOffered: verdict === null ? piece.grounds.length === 0 || suits.has(key(name)) : verdict === 'good',
      };
    });
    prints.push({
      product: piece.product,
      area,
      placing: placingFor(item, piece.product, template),
      price: piece.price,
      grounds,
    });
  }
  return { prints, unknown };
}

/**
 * What a template offers of an item's artwork at a marketplace: every product on the grounds that are on there and on which
 * the artwork reads well. What was looked at and called off is left out, what was called good is in.
 */
export function offeredPrints(...of: Parameters<typeof printsOf>): OfferedPrints {
  const { prints, unknown } = printsOf(...of);
  const left = prints.map((one) => ({ ...one, grounds: one.grounds.filter((ground) => ground.isOffered) }));
  return { prints: left.filter((one) => one.grounds.length > 0), unknown };
}

const combination = (part: Partial<Variation>): Variation =>
  variationSchema.parse({ values: [], on: true, sku: '', quantity: 0, price: null, barcode: '', ...part });

/** The same as axes and combinations, as an item with variations has them. */
export function printVariations(
  item: Pick<Item, 'quantity'>,
  { prints }: OfferedPrints,
): { axes: Axis[]; variations: Variation[] } {
  const grounds = [...new Set(prints.flatMap((one) => one.grounds.map(({ name }) => name)))];
  const hasGrounds = grounds.some((one) => one !== plain);
  return {
    axes: [
      { name: productAxis, values: prints.map((one) => one.product) },
      ...(hasGrounds ? [{ name: groundAxis, values: grounds }] : []),
    ],
    variations: prints.flatMap((one) =>
      one.grounds.map(({ name }) =>
        combination({
          values: hasGrounds ? [one.product, name] : [one.product],
          quantity: item.quantity,
          price: one.price === null ? null : { kind: 'own', amount: one.price },
        }),
      ),
    ),
  };
}

/** How a listing names the printable of an item's artwork on a product; null where it has none. */
export function printReference(item: Pick<Item, 'photos'>, print: Print, background: string | null): string | null {
  const art = artworkOf(item);
  return art ? printPhotoReference(art.hash, planWord(printPlan(print.area, art, print.placing, background))) : null;
}

/** What is wrong with artwork as it stands on an area, in words; null where nothing is. */
export function placingFault(
  area: Area,
  picture: Parameters<typeof placeOn>[1],
  placing: Placing,
): { kind: 'outside' | 'coarse'; words: string } | null {
  const placed = placeOn(area, picture, placing);
  if (isOutside(area, placed)) return { kind: 'outside', words: 'A part of it lies outside of what is printed on' };
  const dots = dotsPerInch(picture, placed);
  return dots < leastDots
    ? {
        kind: 'coarse',
        words: `${Math.round(dots)} dots an inch: good up to ${Math.round(largestGood(picture, leastDots))} mm wide`,
      }
    : null;
}

/**
 * A picture as numbers that stay much the same when it is packed anew or cut a little: one for each way up. 16 hex digits
 * for its shapes, then two for each red, green and blue of a grid of sixteen parts, row by row.
 */
export type PhotoPrint = readonly [string, string, string, string];

/** What is known of a thing from one place: an item of ours, or a listing somewhere. */
export type Thing = {
  id: string;
  /** Where it stands: an account, or our own inventory. Two of one place are two things. */
  place: string;
  sku: string;
  barcode: string;
  /** Their number of the product, with the marketplace that it holds in: `market:number`. */
  product: string;
  title: string;
  brand: string;
  model: string;
  /** Minor units of the shop's own currency. */
  price: number | null;
  /** Grades of ours that what is said of its condition may mean; none where nothing is said. */
  grades: readonly string[];
  /** Places besides its own where it stands already: what stands there is another thing. */
  taken?: readonly string[];
  photos: readonly PhotoPrint[];
};

export const nothingKnown: Omit<Thing, 'id' | 'place'> = {
  sku: '',
  barcode: '',
  product: '',
  title: '',
  brand: '',
  model: '',
  price: null,
  grades: [],
  photos: [],
};

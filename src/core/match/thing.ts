/** A picture as numbers that stay much the same when it is packed anew or cut a little: one for each way up, as 16 hex digits. */
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
  condition: string | null;
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
  condition: null,
  photos: [],
};

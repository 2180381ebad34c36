import sharp from 'sharp';
import { film } from './film';
import { call, stack, until } from './stack';

let count = 0;

/** A picture as a camera writes it: some content, so that it is no trivial file. */
export const jpeg = (side = 900, tint = '#7a6a55'): Promise<Buffer> =>
  sharp({ create: { width: side, height: Math.round(side * 0.75), channels: 3, background: tint } })
    .jpeg()
    .toBuffer();

export async function upload(
  itemId: number,
  bytes: Buffer,
  name = 'photo.jpg',
): Promise<{ status: number; body: { hash?: string; title?: string; photos?: string[] } }> {
  const response = await fetch(`${stack.base}/api/v1/items/${itemId}/photos`, {
    method: 'POST',
    headers: { authorization: `Bearer ${stack.token}`, 'content-type': 'image/jpeg', 'x-file-name': name },
    body: new Uint8Array(bytes),
  });
  return {
    status: response.status,
    body: (await response.json()) as { hash?: string; title?: string; photos?: string[] },
  };
}

/** A camera that is ready for Hallowick, Pippet and Oakhand. */
export async function readyItem(
  part: Record<string, unknown> = {},
  quantity = 1,
): Promise<{ id: number; sku: string }> {
  const sku = `T${process.pid}-${Date.now().toString(36)}-${++count}`;
  const fields = {
    sku,
    title: `Brask K-2 test camera ${count}`,
    brand: 'Brask',
    model: 'K-2',
    category: 'cameras/slr',
    condition: 'very-good',
    conditionNote: 'Light brassing.',
    description: '<p>Checked with a test film.</p>',
    keywords: ['film camera'],
    attributes: { 'Film format': '35 mm', Colour: 'Black', Decade: '1970s' },
    price: 14_900,
    cost: 5_000,
    weightGrams: 900,
    ...part,
  };
  const made = await call<{ id: number; sku: string }>('POST', '/items', { fields, quantity });
  if (made.status !== 201) throw new Error(JSON.stringify(made.body));
  await upload(made.body.id, await jpeg());
  return made.body;
}

/** A roll of film that is ready everywhere. */
export const readyFilm = (quantity = 3): Promise<{ id: number; sku: string }> =>
  readyItem({ ...film(), conditionNote: '', price: 1_990 }, quantity);

export type Sheet = {
  item: {
    id: number;
    version: number;
    title: string;
    price: number;
    quantity: number;
    location: string;
    sku: string;
    cost: number | null;
    standing: string;
    photos: { hash: string }[];
  };
  columns: {
    accountId: number;
    name: string;
    state: string;
    url: string | null;
    ready: boolean;
    blocking: number;
    lastError: { message: string } | null;
  }[];
};
export const sheet = async (id: number): Promise<Sheet> => (await call<Sheet>('GET', `/items/${id}`)).body;
export const stateOn = async (id: number, account: number): Promise<string> =>
  (await sheet(id)).columns.find((column) => column.accountId === account)?.state ?? '';
/** Waits until an item's listing is in a state; what is said of the listing instead, when it does not come to that. */
export const comesTo = (id: number, account: number, state: string, ms?: number) =>
  until(
    async () => (await sheet(id)).columns.find((column) => column.accountId === account),
    (column) => column?.state === state,
    ms,
  );
export const publishItems = (ids: number[], accounts: number[]) =>
  call<{ runId: number; queued: number; title?: string }>('POST', '/publish', {
    selection: { kind: 'items', ids },
    accounts,
  });

/** What makes an item a leather strap in two sizes, two of each. */
export const strapOfTwo = {
  category: 'accessories/straps',
  attributes: { Material: 'Leather', Colour: 'Black', Decade: '2020s' },
  axes: [{ name: 'Size', values: ['Small', 'Large'] }],
  variations: ['Small', 'Large'].map((size) => ({
    values: [size],
    on: true,
    sku: '',
    quantity: 2,
    price: null,
    barcode: '',
  })),
};

import { z } from 'zod';
import { maxPhotoBytes } from '../../photos/intake';
import { setOverride, setOverrideSchema } from '../../services/changes/set-override';
import { updateItem, updateItemSchema } from '../../services/changes/update-item';
import { addPhoto } from '../../services/items/add-photo';
import { createItem, createItemSchema } from '../../services/items/create-item';
import { itemHistory } from '../../services/items/item-history';
import { itemSheet } from '../../services/items/item-sheet';
import { flawSchema, markFlaw } from '../../services/items/mark-flaw';
import { orderPhotos, orderPhotosSchema } from '../../services/items/order-photos';
import { photoHashSchema, photoRecipe } from '../../services/items/photo-recipe';
import { countItems } from '../../services/records/count-items';
import { findItems, findItemsSchema } from '../../services/records/find-items';
import { itemFilterSchema } from '../../services/records/item-filter';
import { changeStock, changeStockSchema } from '../../services/stock/change-stock';
import { handSaleSchema, recordHandSale } from '../../services/stock/record-hand-sale';
import { endpoint } from '../endpoint';
import { readLimited } from '../read-limited';

const tag = 'Items';

const madeFromSchema = z
  .object({
    original: z.string().regex(/^[0-9a-f]{64}$/),
    place: z.number().int().min(0).max(59).nullable(),
    recipe: z.record(z.string().max(40), z.json()),
  })
  .strict();
/** The header X-Made-From: JSON, percent-encoded. */
const madeFrom = (header: string | null) =>
  header === null ? undefined : madeFromSchema.parse(JSON.parse(decodeURIComponent(header)));
const id = (params: Record<string, number>, name = 'id') => z.number().parse(params[name]);

export const itemEndpoints = [
  endpoint({
    method: 'GET',
    path: '/items',
    tag,
    summary: 'Find items, paged by key, with their listings',
    query: findItemsSchema,
    run: ({ query }) => findItems(query),
  }),
  endpoint({
    method: 'GET',
    path: '/items/count',
    tag,
    summary: 'How many items a filter finds',
    query: itemFilterSchema,
    run: async ({ query }) => ({ count: await countItems(query) }),
  }),
  endpoint({
    method: 'POST',
    path: '/items',
    tag,
    summary: 'Record an item, or a copy of one',
    body: createItemSchema,
    run: ({ actor, body }) => createItem(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}',
    tag,
    summary: 'An item and what every account will get of it',
    run: ({ params }) => itemSheet(id(params)),
  }),
  endpoint({
    method: 'PATCH',
    path: '/items/{id}',
    tag,
    summary: 'Change fields of an item',
    body: updateItemSchema,
    run: ({ actor, params, body }) => updateItem(actor, id(params), body),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/history',
    tag,
    summary: 'Who changed what and when',
    run: async ({ params }) => ({ history: await itemHistory(id(params)) }),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/stock',
    tag,
    summary: 'Add to the stock, or set it',
    body: changeStockSchema,
    run: ({ actor, params, body }) => changeStock(actor, id(params), body),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/sold',
    tag,
    summary: 'Sold by hand',
    body: handSaleSchema,
    run: ({ actor, params, body }) => recordHandSale(actor, id(params), body),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/photos',
    tag,
    summary:
      'Add a photo: the picture is the body, its name may be in X-File-Name; X-Made-From says which photo it was made of',
    takesPicture: true,
    run: async ({ actor, params, request }) =>
      addPhoto(actor, id(params), {
        made: madeFrom(request.headers.get('x-made-from')),
        bytes: await readLimited(request, maxPhotoBytes),
        name: decodeURIComponent(request.headers.get('x-file-name') ?? ''),
      }),
  }),
  endpoint({
    method: 'PUT',
    path: '/items/{id}/photos/flaw',
    tag,
    summary: 'Say what a photo of a flaw shows',
    body: flawSchema,
    run: ({ actor, params, body }) => markFlaw(actor, id(params), body),
  }),
  endpoint({
    method: 'GET',
    path: '/photos/recipe',
    tag,
    summary: 'What a picture was made from, and how',
    query: photoHashSchema,
    run: ({ query }) => photoRecipe(query),
  }),
  endpoint({
    method: 'PUT',
    path: '/items/{id}/photos',
    tag,
    summary: 'Order, remove or repeat photos',
    body: orderPhotosSchema,
    run: ({ actor, params, body }) => orderPhotos(actor, id(params), body),
  }),
  endpoint({
    method: 'PUT',
    path: '/items/{id}/listings/{account}',
    tag: 'Listings',
    summary: 'Write a field for one account alone, or (without a value) follow the item again',
    body: setOverrideSchema,
    run: ({ actor, params, body }) => setOverride(actor, id(params), id(params, 'account'), body),
  }),
];

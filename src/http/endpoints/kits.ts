import { z } from 'zod';
import { addContents, addContentsSchema, addedSchema } from '../../services/kits/add-contents';
import {
  changedLotsSchema,
  changeLots,
  changeLotsSchema,
  takeApartSchema,
  takeLotApart,
} from '../../services/kits/change-lots';
import { findKit, findLots, findLotsSchema, kitViewSchema, lotViewSchema } from '../../services/kits/find-kit';
import { findKits, findKitsSchema, kitRowSchema, setAccounts } from '../../services/kits/find-kits';
import { inStockSchema, intoStockSchema, lotsIntoStock } from '../../services/kits/lots-into-stock';
import { changeKit, changeKitSchema, createKit, newKitSchema } from '../../services/kits/save-kit';
import { endpoint } from '../endpoint';

const tag = 'Sets';

/** Sets that are broken up into their parts: what they hold, lot by lot, until each is in stock. */
export const kitsEndpoints = [
  endpoint({
    method: 'GET',
    path: '/kits',
    tag,
    summary: 'Sets that are or were broken up, the newest first',
    query: findKitsSchema,
    answer: z.object({ kits: z.array(kitRowSchema), next: z.number().nullable() }),
    run: ({ query }) => findKits(query),
  }),
  endpoint({
    method: 'GET',
    path: '/kits/accounts',
    tag,
    summary: 'Accounts whose catalogue says what sets hold',
    answer: z.object({ accounts: z.array(z.object({ id: z.number(), name: z.string() })) }),
    run: async () => ({ accounts: await setAccounts() }),
  }),
  endpoint({
    method: 'POST',
    path: '/kits',
    tag,
    summary: 'Begin to break sets up',
    body: newKitSchema,
    answer: z.object({ id: z.number() }),
    run: ({ actor, body }) => createKit(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/kits/{id}',
    tag,
    summary: 'Sets that are broken up, with what their lots come to',
    answer: kitViewSchema,
    run: ({ params }) => findKit(params.id),
  }),
  endpoint({
    method: 'PATCH',
    path: '/kits/{id}',
    tag,
    summary: 'Change name, cost and how it is shared',
    body: changeKitSchema,
    answer: z.object({ version: z.number() }),
    run: ({ params, body }) => changeKit(params.id, body),
  }),
  endpoint({
    method: 'GET',
    path: '/kits/{id}/lots',
    tag,
    summary: 'Its lots in their order, a page at a time',
    query: findLotsSchema,
    answer: z.object({ lots: z.array(lotViewSchema), next: z.number().nullable() }),
    run: ({ params, query }) => findLots(params.id, query),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/contents',
    tag,
    summary: 'Put the contents of so many sets among the lots; equal ones become one',
    body: addContentsSchema,
    answer: addedSchema,
    run: ({ params, body }) => addContents(params.id, body),
  }),
  endpoint({
    method: 'PATCH',
    path: '/kits/{id}/lots',
    tag,
    summary: 'Change lots, each where it is still as it was seen',
    body: changeLotsSchema,
    answer: changedLotsSchema,
    run: ({ params, body }) => changeLots(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/apart',
    tag,
    summary: 'Take one of the joined out of its lot again',
    body: takeApartSchema,
    answer: z.object({ lot: z.number() }),
    run: ({ params, body }) => takeLotApart(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/stock',
    tag,
    summary: 'Make items of the lots that are ready; the others stay',
    body: intoStockSchema,
    answer: inStockSchema,
    run: ({ actor, params, body }) => lotsIntoStock(actor, params.id, body),
  }),
];

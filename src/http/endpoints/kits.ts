import { z } from 'zod';
import { addContents, addContentsSchema, addedSchema } from '../../services/kits/add-contents';
import {
  addLots,
  addLotsSchema,
  begunLotsSchema,
  changeThere,
  changeThereSchema,
} from '../../services/kits/begin-lots';
import { changedLotsSchema, changeLots, changeLotsSchema } from '../../services/kits/change-lots';
import { comparedSchema, compareLots, compareLotsSchema } from '../../services/kits/compare-lots';
import { findKit, findLots, findLotsSchema, kitViewSchema, lotViewSchema } from '../../services/kits/find-kit';
import { findKits, findKitsSchema, kitRowSchema, setAccounts } from '../../services/kits/find-kits';
import { makeWhole, makeWholeSchema } from '../../services/kits/make-whole';
import { priceLots, priceLotsSchema } from '../../services/kits/price-lots';
import { changeKit, changeKitSchema, createKit, newKitSchema } from '../../services/kits/save-kit';
import { splitLot, splitLotSchema } from '../../services/kits/split-lot';
import { lotStepsSchema, stepsOnLots } from '../../services/kits/steps-on-lots';
import { placesSchema, takenPlaces } from '../../services/kits/taken-places';
import { worthOfKit, worthOfKitAnswer, worthOfKitSchema } from '../../services/kits/worth-of-kit';
import { endpoint } from '../endpoint';

const tag = 'Sets';

/** Sets that are broken up into their parts: what they hold, lot by lot, until each is in stock. */
export const kitsEndpoints = [
  endpoint({
    method: 'GET',
    path: '/kits',
    tag,
    role: 'seller',
    summary: 'Sets that are or were broken up, the newest first',
    query: findKitsSchema,
    answer: z.object({ kits: z.array(kitRowSchema), next: z.number().nullable() }),
    run: ({ query }) => findKits(query),
  }),
  endpoint({
    method: 'GET',
    path: '/kits/accounts',
    tag,
    role: 'seller',
    summary: 'Accounts whose catalogue says what sets hold',
    answer: z.object({ accounts: z.array(z.object({ id: z.number(), name: z.string() })) }),
    run: async () => ({ accounts: await setAccounts() }),
  }),
  endpoint({
    method: 'POST',
    path: '/kits',
    tag,
    role: 'seller',
    summary: 'Begin to break sets up',
    body: newKitSchema,
    answer: z.object({ id: z.number() }),
    run: ({ actor, body }) => createKit(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/kits/{id}',
    tag,
    role: 'seller',
    summary: 'Sets that are broken up, with what their lots come to',
    answer: kitViewSchema,
    run: ({ params }) => findKit(params.id),
  }),
  endpoint({
    method: 'PATCH',
    path: '/kits/{id}',
    tag,
    role: 'seller',
    summary: 'Change name, cost and how it is shared',
    body: changeKitSchema,
    answer: z.object({ version: z.number() }),
    run: ({ params, body }) => changeKit(params.id, body),
  }),
  endpoint({
    method: 'GET',
    path: '/kits/{id}/lots',
    tag,
    role: 'seller',
    summary: 'Its lots in their order, a page at a time',
    query: findLotsSchema,
    answer: z.object({ lots: z.array(lotViewSchema), next: z.number().nullable() }),
    run: ({ params, query }) => findLots(params.id, query),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/contents',
    tag,
    role: 'seller',
    summary: 'Put the contents of so many sets among the lots; equal ones become one',
    body: addContentsSchema,
    answer: addedSchema,
    run: ({ params, body }) => addContents(params.id, body),
  }),
  endpoint({
    method: 'PATCH',
    path: '/kits/{id}/lots',
    tag,
    role: 'seller',
    summary: 'Change lots, each where it is still as it was seen',
    body: changeLotsSchema,
    answer: changedLotsSchema,
    run: ({ params, body }) => changeLots(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/apart',
    tag,
    role: 'seller',
    summary: 'Make two lots of one: what was joined, or pieces in another condition',
    body: splitLotSchema,
    answer: z.object({ lot: z.number() }),
    run: ({ params, body }) => splitLot(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/pricing',
    tag,
    role: 'seller',
    summary: 'Price lots by what such things sold for, in the background',
    body: priceLotsSchema,
    answer: z.object({ taskId: z.number(), lots: z.number(), kept: z.number() }),
    run: ({ actor, params, body }) => priceLots(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/steps',
    tag,
    role: 'seller',
    summary: 'Carry out steps of a change on lots, as on items',
    body: lotStepsSchema,
    answer: changedLotsSchema,
    run: ({ params, body }) => stepsOnLots(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/worth',
    tag,
    role: 'seller',
    summary: 'Sold in parts or whole: what each would bring',
    body: worthOfKitSchema,
    answer: worthOfKitAnswer,
    run: ({ params, body }) => worthOfKit(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/places',
    tag,
    role: 'seller',
    summary: 'How many lots lie at these places already, here and in stock',
    body: placesSchema,
    answer: z.object({ taken: z.array(z.object({ place: z.string(), lots: z.number() })) }),
    run: ({ params, body }) => takenPlaces(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/compared',
    tag,
    role: 'seller',
    summary: 'What lots would do to the stock, with the resulting numbers',
    body: compareLotsSchema,
    answer: comparedSchema,
    run: ({ params, body }) => compareLots(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/stock',
    tag,
    role: 'seller',
    summary: 'Add ready lots to the stock, in the background; the others stay',
    body: addLotsSchema,
    answer: begunLotsSchema,
    run: ({ actor, params, body }) => addLots(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/there',
    tag,
    role: 'seller',
    summary: 'Change what is in stock by what its lots say now; nothing is added',
    body: changeThereSchema,
    answer: begunLotsSchema,
    run: ({ actor, params, body }) => changeThere(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/kits/{id}/whole',
    tag,
    role: 'seller',
    summary: 'Offer the sets whole, too: an item that is one stock with its parts',
    body: makeWholeSchema,
    answer: z.object({ id: z.number(), sku: z.string(), quantity: z.number() }),
    run: ({ actor, params, body }) => makeWhole(actor, params.id, body),
  }),
];

import { z } from 'zod';
import { boxSchema } from '../../core/measure/parcel';
import { rateSchema } from '../../core/measure/rate';
import { quoteSchema, tariffSchema } from '../../core/price/postage';
import { addBox, newBoxSchema } from '../../services/accounts/postage/add-box';
import { quoteParcel, quoteParcelSchema } from '../../services/accounts/postage/quote-parcel';
import { postagePaidSchema, recordPostage } from '../../services/accounts/postage/record-postage';
import { refreshTariffs } from '../../services/accounts/postage/refresh-tariffs';
import { forgetRate, forgetRateSchema } from '../../services/accounts/rates/forget-rate';
import { rateHistory } from '../../services/accounts/rates/rate-history';
import { refreshRates } from '../../services/accounts/rates/refresh-rates';
import { findBoxes } from '../../services/records/accounts/find-boxes';
import { removeKept } from '../../services/records/removed/remove-kept';
import { done, endpoint } from '../endpoint';

/** Boxes, carriers and exchange rates. */
export const postageEndpoints = [
  endpoint({
    method: 'GET',
    path: '/boxes',
    tag: 'Postage',
    role: 'packer',
    summary: 'Boxes of one’s own',
    answer: z.object({ boxes: z.array(boxSchema) }),
    run: async () => ({ boxes: await findBoxes() }),
  }),
  endpoint({
    method: 'POST',
    path: '/boxes',
    tag: 'Postage',
    role: 'seller',
    summary: 'Add a box; inside measures',
    body: newBoxSchema,
    answer: z.object({ id: z.number() }),
    run: ({ body }) => addBox(body),
  }),
  endpoint({
    method: 'DELETE',
    path: '/boxes/{id}',
    tag: 'Postage',
    role: 'seller',
    summary: 'Remove a box',
    answer: done,
    run: ({ actor, params }) => removeKept(actor, 'box', params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/postage',
    tag: 'Postage',
    role: 'seller',
    summary: 'What each carrier asks for a parcel',
    query: quoteParcelSchema,
    answer: z.object({ quotes: z.array(quoteSchema) }),
    run: async ({ query }) => ({ quotes: await quoteParcel(query) }),
  }),
  endpoint({
    method: 'POST',
    path: '/postage',
    tag: 'Postage',
    role: 'seller',
    summary: 'Write down what a parcel really cost',
    body: postagePaidSchema,
    answer: done,
    run: ({ body }) => recordPostage(body),
  }),
  endpoint({
    method: 'POST',
    path: '/postage/tariffs',
    tag: 'Postage',
    role: 'seller',
    summary: 'Read the carriers’ tariffs anew',
    answer: z.object({ carriers: z.array(tariffSchema) }),
    run: async () => ({ carriers: await refreshTariffs() }),
  }),
  endpoint({
    method: 'GET',
    path: '/rates',
    tag: 'Prices',
    role: 'seller',
    summary: 'Exchange rates with their day, newest first',
    answer: z.object({ rates: z.array(rateSchema) }),
    run: async () => ({ rates: await rateHistory() }),
  }),
  endpoint({
    method: 'POST',
    path: '/rates',
    tag: 'Prices',
    role: 'seller',
    summary: 'Ask for today’s rates',
    answer: z.object({ rates: z.array(rateSchema) }),
    run: async () => ({ rates: await refreshRates() }),
  }),
  endpoint({
    method: 'POST',
    path: '/rates/forget',
    tag: 'Prices',
    role: 'seller',
    summary: 'Take a day’s rate back: the one before holds again',
    body: forgetRateSchema,
    answer: done,
    run: ({ body }) => forgetRate(body),
  }),
];

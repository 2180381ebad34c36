import { z } from 'zod';
import { assignSale, assignSaleSchema } from '../../services/stock/assign-sale';
import { cancelSale } from '../../services/stock/cancel-sale';
import { changeStock, changeStockSchema } from '../../services/stock/change-stock';
import { findMovements, stockViewSchema } from '../../services/stock/find-movements';
import { findParts, partsViewSchema } from '../../services/stock/find-parts';
import { findSales, findSalesSchema, saleViewSchema } from '../../services/stock/find-sales';
import { forgetBuyers, forgetBuyersSchema } from '../../services/stock/forget-buyers';
import { handSaleSchema, recordHandSale } from '../../services/stock/record-hand-sale';
import { saveParts, savePartsSchema } from '../../services/stock/save-parts';
import { endpoint } from '../endpoint';

/** The stock ledger and sales. */
export const stockEndpoints = [
  endpoint({
    method: 'GET',
    path: '/items/{id}/stock',
    tag: 'Items',
    role: 'packer',
    summary: 'The stock ledger of an item, and what every account offers of it',
    answer: stockViewSchema,
    run: ({ params }) => findMovements(params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/stock',
    tag: 'Items',
    role: 'packer',
    summary: 'Add to the stock, or set it',
    body: changeStockSchema,
    answer: z.object({ quantity: z.number() }),
    run: ({ actor, params, body }) => changeStock(actor, params.id, body),
  }),
  endpoint({
    method: 'GET',
    path: '/items/{id}/parts',
    tag: 'Items',
    role: 'seller',
    summary: 'What an item is one stock with: its parts, and the whole sets that it is in',
    answer: partsViewSchema,
    run: ({ params }) => findParts(params.id),
  }),
  endpoint({
    method: 'PUT',
    path: '/items/{id}/parts',
    tag: 'Items',
    role: 'seller',
    summary: 'Say what a whole set is made of; it and its parts are one stock then',
    body: savePartsSchema,
    answer: z.object({ quantity: z.number() }),
    run: ({ actor, params, body }) => saveParts(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/sold',
    tag: 'Items',
    role: 'seller',
    summary: 'Sold by hand',
    body: handSaleSchema,
    answer: z.object({ saleId: z.number(), quantity: z.number() }),
    run: ({ actor, params, body }) => recordHandSale(actor, params.id, body),
  }),
  endpoint({
    method: 'GET',
    path: '/sales',
    tag: 'Sales',
    role: 'seller',
    summary: 'Sales, newest first, with fees and net',
    query: findSalesSchema,
    answer: z.object({ sales: z.array(saleViewSchema), next: z.number().nullable() }),
    run: ({ query }) => findSales(query),
  }),
  endpoint({
    method: 'POST',
    path: '/sales/{id}/cancel',
    tag: 'Sales',
    role: 'seller',
    summary: 'Call an order off: there first, then the stock comes back',
    body: z.object({}).strict(),
    answer: z.object({ quantity: z.number().nullable(), again: z.number() }),
    run: ({ actor, params }) => cancelSale(actor, params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/sales/{id}/assign',
    tag: 'Sales',
    role: 'seller',
    summary: 'Say which item an order is of that fitted none; what was sold leaves the stock',
    body: assignSaleSchema,
    answer: z.object({ quantity: z.number(), oversold: z.boolean() }),
    run: ({ actor, params, body }) => assignSale(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/sales/forget-buyers',
    tag: 'Sales',
    role: 'seller',
    summary: 'Take the buyers’ towns out of old sales',
    body: forgetBuyersSchema,
    answer: z.object({ forgotten: z.number() }),
    run: ({ actor, body }) => forgetBuyers(actor, body),
  }),
];

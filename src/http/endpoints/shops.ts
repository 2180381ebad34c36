import { z } from 'zod';
import { createApiToken } from '../../services/access/create-api-token';
import { connectByKey, connectByKeySchema } from '../../services/accounts/connect-by-key';
import { findAccounts } from '../../services/accounts/find-accounts';
import { mapCategory, mapCategorySchema } from '../../services/accounts/map-category';
import { updateAccount, updateAccountSchema } from '../../services/accounts/update-account';
import { findSales, findSalesSchema } from '../../services/stock/find-sales';
import { endpoint } from '../endpoint';

const id = (params: Record<string, number>) => z.number().parse(params.id);

export const shopEndpoints = [
  endpoint({
    method: 'GET',
    path: '/accounts',
    tag: 'Accounts',
    summary: 'Connected accounts, and the marketplaces that can be connected',
    run: () => findAccounts(),
  }),
  endpoint({
    method: 'POST',
    path: '/accounts',
    tag: 'Accounts',
    summary: 'Connect an account by its API key',
    body: connectByKeySchema,
    run: ({ actor, body }) => connectByKey(actor, body),
  }),
  endpoint({
    method: 'PATCH',
    path: '/accounts/{id}',
    tag: 'Accounts',
    summary: 'Change name, footer and defaults',
    body: updateAccountSchema,
    run: ({ actor, params, body }) => updateAccount(actor, id(params), body),
  }),
  endpoint({
    method: 'PUT',
    path: '/accounts/{id}/categories',
    tag: 'Accounts',
    summary: 'Say which category there stands for one of ours',
    body: mapCategorySchema,
    run: ({ actor, params, body }) => mapCategory(actor, id(params), body),
  }),
  endpoint({
    method: 'GET',
    path: '/sales',
    tag: 'Sales',
    summary: 'Sales, newest first, with fees and net',
    query: findSalesSchema,
    run: ({ query }) => findSales(query),
  }),
  endpoint({
    method: 'POST',
    path: '/tokens',
    tag: 'Access',
    summary: 'Make a token for a program; it is shown once',
    body: z.object({ name: z.string().trim().min(1).max(80) }).strict(),
    run: ({ actor, body }) => createApiToken(actor, body.name),
  }),
];

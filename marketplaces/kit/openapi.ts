import type { Market } from './types';

/** The marketplace's interface as OpenAPI 3.1. */
export function openApiOf(market: Market, origin: string): object {
  const { listings, photos } = market.paths;
  const id = { name: 'id', in: 'path', required: true, schema: { type: 'string' } };
  const answer = (description: string) => ({
    200: { description },
    401: { description: 'Not signed in' },
    422: { description: 'Not acceptable' },
    429: { description: 'Too many requests, see Retry-After' },
  });
  const headers = market.honoursIdempotencyKey
    ? [{ name: 'Idempotency-Key', in: 'header', schema: { type: 'string' } }]
    : [];
  return {
    openapi: '3.1.0',
    info: { title: `${market.title} seller interface`, version: '1', description: market.line },
    servers: [{ url: `${origin}/${market.name}/api` }],
    components: {
      securitySchemes:
        market.auth === 'key'
          ? { key: { type: 'apiKey', in: 'header', name: 'X-Api-Key' } }
          : {
              oauth: {
                type: 'oauth2',
                flows: {
                  authorizationCode: {
                    authorizationUrl: `${origin}/${market.name}/authorize`,
                    tokenUrl: `${origin}/${market.name}/token`,
                    scopes: {},
                  },
                },
              },
            },
    },
    security: [market.auth === 'key' ? { key: [] } : { oauth: [] }],
    paths: {
      '/rules': { get: { summary: 'Rules with their version', responses: answer('The rules') } },
      '/me': { get: { summary: 'The account and its exceptions', responses: answer('The account') } },
      [`/${listings}`]: {
        get: {
          summary: 'Own listings, paged by number; filter by reference and state',
          responses: answer('A page of listings'),
        },
        post: { summary: 'Create a listing', parameters: headers, responses: answer('The listing') },
      },
      [`/${listings}/{id}`]: {
        get: { summary: 'Read a listing', parameters: [id], responses: answer('The listing') },
        patch: {
          summary: 'Change fields; null removes one',
          parameters: [id, ...headers],
          responses: answer('The listing'),
        },
      },
      [`/${listings}/{id}/end`]: {
        post: {
          summary: market.switchesOff ? 'Delete a listing for good' : 'End a listing',
          parameters: [id],
          responses: answer('The listing'),
        },
      },
      ...(market.switchesOff
        ? {
            [`/${listings}/{id}/off`]: {
              post: {
                summary: 'Out of sight, kept with its number',
                parameters: [id],
                responses: answer('The listing'),
              },
            },
            [`/${listings}/{id}/on`]: {
              post: {
                summary: 'In sight again, with the changes in the body',
                parameters: [id, ...headers],
                responses: answer('The listing'),
              },
            },
          }
        : {}),
      ...(market.clips
        ? { [`/${market.clips}`]: { post: { summary: 'Upload an MP4 as the body', responses: answer('The clip') } } }
        : {}),
      [`/${photos}`]: { post: { summary: 'Upload a JPEG as the body', responses: answer('The photo number') } },
      '/orders': {
        get: {
          summary: 'Orders since a time, 200 at a time; next names the order that the next page comes after',
          responses: answer('Orders'),
        },
      },
      '/orders/{id}': { get: { summary: 'One order', parameters: [id], responses: answer('The order') } },
      ...Object.fromEntries(
        Object.entries(market.paper ?? {}).map(([path, summary]) => [
          path,
          { [path === '/feeds' || path === '/batches' ? 'post' : 'get']: { summary, responses: answer(summary) } },
        ]),
      ),
      ...(market.hasWebhooks
        ? {
            '/webhooks': {
              post: { summary: 'Register an address for signed events', responses: answer('The signing secret') },
            },
          }
        : {}),
    },
  };
}

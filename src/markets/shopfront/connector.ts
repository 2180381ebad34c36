import { restConnector } from '../rest';
import { shopfrontRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

/** Shopfront: the seller's own web shop. */
export const shopfront = restConnector({
  market: 'shopfront',
  name: 'Shopfront',
  about: 'Your own web shop',
  access: 'oauth',
  honoursIdempotencyKey: true,
  hasWebhooks: true,
  paths: { listings: 'products', photos: 'files' },
  rules: shopfrontRules,
  toWire,
  fromWire,
  wireFields,
  skuOf: (wire) => String(wire.stockNumber ?? ''),
});

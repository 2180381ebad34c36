import { restConnector } from '../rest';
import { oakhandRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

/** Oakhand: handmade, vintage, craft supplies. */
export const oakhand = restConnector({
  market: 'oakhand',
  name: 'Oakhand',
  about: 'Handmade things, vintage and craft supplies',
  access: 'oauth',
  honoursIdempotencyKey: true,
  hasWebhooks: true,
  paths: { listings: 'shop/listings', photos: 'shop/pictures', clips: 'shop/clips' },
  hides: ['clip'],
  rules: oakhandRules,
  toWire,
  fromWire,
  wireFields,
  skuOf: (wire) => String(wire.ownNumber ?? ''),
});

import { restConnector } from '../rest';
import { glintfeedRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

/** Glintfeed: a showcase; the caption may change, the picture may not. */
export const glintfeed = restConnector({
  market: 'glintfeed',
  name: 'Glintfeed',
  about: 'Showcase of single pictures, nothing to buy',
  access: 'key',
  honoursIdempotencyKey: false,
  hasWebhooks: true,
  paths: { listings: 'posts', photos: 'uploads' },
  rules: glintfeedRules,
  toWire,
  fromWire,
  wireFields,
  skuOf: (wire) => String(wire.note ?? ''),
});

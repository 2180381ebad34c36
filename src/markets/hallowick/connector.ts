import { restConnector } from '../rest';
import { hallowickRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

/** Hallowick: a large general marketplace. */
export const hallowick = restConnector({
  market: 'hallowick',
  name: 'Hallowick',
  about: 'Large general marketplace, fixed price and timed sale',
  access: 'oauth',
  honoursIdempotencyKey: true,
  // Only a timed sale has days.
  hides: ['extra.timedDays'],
  hasWebhooks: true,
  takesOffers: true,
  paths: { listings: 'listings', photos: 'pictures' },
  rules: hallowickRules,
  toWire,
  fromWire,
  wireFields,
  skuOf: (wire) => String(wire.reference ?? ''),
});

import { catalogueAt } from '../catalogue';
import type { Connector } from '../connector';
import { restConnector } from '../rest';
import { selasarRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

/** Selasar: a cross-border mall in Singapore dollars; every new listing is reviewed. */
export const selasar: Connector = {
  ...restConnector({
    market: 'selasar',
    name: 'Selasar',
    about: 'Cross-border mall, in Singapore dollars, everything reviewed',
    access: 'oauth',
    honoursIdempotencyKey: true,
    hasWebhooks: true,
    switchesOff: true,
    paths: { listings: 'items', photos: 'images' },
    rules: selasarRules,
    toWire,
    fromWire,
    wireFields,
    skuOf: (wire) => String(wire.sellerSku ?? ''),
  }),
  findProducts: catalogueAt('/products'),
};

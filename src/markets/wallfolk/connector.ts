import { aboutAttribute, restConnector } from '../rest';
import { wallfolkRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

/** Wallfolk: artwork printed on products; eight uploads a day; answers with bare sentences. */
export const wallfolk = restConnector({
  market: 'wallfolk',
  name: 'Wallfolk',
  about: 'Artwork printed on products',
  access: 'key',
  honoursIdempotencyKey: false,
  // Made to order: there are always enough, and no number.
  hides: ['quantity'],
  hasWebhooks: true,
  paths: { listings: 'designs', photos: 'artworks' },
  rules: wallfolkRules,
  toWire,
  fromWire,
  wireFields,
  skuOf: (wire) => String(wire.code ?? ''),
  sentences: [
    [/the title/i, 'title'],
    [/picture/i, 'photos'],
    [/tags/i, 'tags'],
    [/price/i, 'price'],
    [/product/i, 'extra.product'],
    [/ground/i, 'extra.ground'],
    [/placement/i, 'extra.placement'],
    [/scale/i, 'extra.scale'],
    [/category|deepest/i, 'category'],
    [/the text/i, 'description'],
    aboutAttribute,
  ],
});

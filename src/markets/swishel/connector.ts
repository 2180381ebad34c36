import { aboutAttribute, restConnector } from '../rest';
import { swishelRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

/** Swishel: a social shop for the young; answers with bare sentences. */
export const swishel = restConnector({
  market: 'swishel',
  name: 'Swishel',
  about: 'Social shop for the young, a text and five square photos',
  access: 'key',
  honoursIdempotencyKey: false,
  hasWebhooks: true,
  paths: { listings: 'finds', photos: 'pics' },
  rules: swishelRules,
  toWire,
  fromWire,
  wireFields,
  skuOf: (wire) => String(wire.myCode ?? ''),
  sentences: [
    [/picture/i, 'photos'],
    [/hashtag/i, 'tags'],
    [/colour/i, 'extra.colours'],
    [/category|deepest/i, 'category'],
    [/condition/i, 'condition'],
    [/price/i, 'price'],
    [/pays the postage/i, 'extra.postage'],
    [/style/i, 'extra.styles'],
    [/the text/i, 'description'],
    aboutAttribute,
  ],
});

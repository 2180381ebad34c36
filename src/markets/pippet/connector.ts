import { aboutAttribute, restConnector } from '../rest';
import { pippetRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

/** Pippet: a flea market on the phone, reached by an API key; answers with bare sentences. */
export const pippet = restConnector({
  market: 'pippet',
  name: 'Pippet',
  about: 'Flea market on the phone, one piece at a time',
  access: 'key',
  honoursIdempotencyKey: false,
  // A class is told and shown, never the weight.
  hides: ['weightGrams'],
  hasWebhooks: true,
  takesOffers: true,
  paths: { listings: 'things', photos: 'photos' },
  rules: pippetRules,
  toWire,
  fromWire,
  wireFields,
  sentences: [
    [/the name/i, 'title'],
    [/picture|photo/i, 'photos'],
    [/tags/i, 'tags'],
    [/brand/i, 'brand'],
    [/category|deepest/i, 'category'],
    [/grade/i, 'condition'],
    [/weight class/i, 'weightGrams'],
    [/pays the postage/i, 'extra.postagePaidBy'],
    [/price/i, 'price'],
    [/the text/i, 'description'],
    aboutAttribute,
  ],
  skuOf: (wire) => String(wire.myNumber ?? ''),
});

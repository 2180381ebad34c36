import { aboutAttribute, restConnector } from '../rest';
import { lanesendRules } from './rules';
import { fromWire, toWire, wireFields } from './wire';

/** Lanesend: local small ads, with post as an option; it tells nothing by itself and must be asked. */
export const lanesend = restConnector({
  market: 'lanesend',
  name: 'Lanesend',
  about: 'Local small ads, collected or by post',
  access: 'key',
  honoursIdempotencyKey: false,
  // A class is told and shown, never the weight.
  hides: ['weightGrams'],
  hasWebhooks: false,
  paths: { listings: 'ads', photos: 'ad-pictures' },
  rules: lanesendRules,
  toWire,
  fromWire,
  wireFields,
  skuOf: (wire) => String(wire.mark ?? ''),
  sentences: [
    [/subject/i, 'title'],
    [/picture/i, 'photos'],
    [/keyword/i, 'tags'],
    [/place/i, 'extra.place'],
    [/handing over/i, 'extra.handover'],
    [/weight class/i, 'weightGrams'],
    [/category|deepest/i, 'category'],
    [/grade/i, 'condition'],
    [/price/i, 'price'],
    [/pieces/i, 'quantity'],
    [/the text/i, 'description'],
    aboutAttribute,
  ],
});

import type { Content } from '../../core/listing';
import type { MarketRules } from '../../core/rules';
import type { Connector } from '../connector';
import type { WireFields } from '../content';

export type Wire = Record<string, unknown>;

/** What differs between marketplaces that are all spoken to by listings, pictures and orders over JSON. */
export type RestManner = Pick<
  Connector,
  'market' | 'name' | 'about' | 'access' | 'honoursIdempotencyKey' | 'hasWebhooks'
> & { linesAtOnce?: number; takesOffers?: boolean; switchesOff?: boolean; hides?: readonly string[] } & {
  paths: { listings: string; photos: string; clips?: string };
  rules(published: unknown): MarketRules;
  /** Our content as their fields. */
  toWire(content: Content, photoIds: string[], before?: Content): Wire;
  /** Which of their top-level fields carry these of ours. */
  wireFields: WireFields;
  fromWire(wire: Wire): Content;
  skuOf(wire: Wire): string;
  /** What bare sentences are about: the first that fits names our field. */
  sentences?: [RegExp, string | ((hit: RegExpExecArray) => string)][];
};

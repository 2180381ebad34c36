import type { Item } from '../item/item';
import type { Json } from '../json';
import type { Box, PackagingAllowance } from '../measure/parcel';
import type { Rate } from '../measure/rate';
import type { Pricing } from '../price/listing-price';
import type { Packing } from '../price/packing';
import type { Tariff } from '../price/postage';
import type { CompiledRules } from '../rules/compiled';
import type { CategoryMap } from './map/category';
import type { ProductMap } from './map/product';
import type { Synonyms } from './map/synonyms';
import type { Template } from './template/template';

/** What one account adds to the rules when a listing is computed. */
export type AccountContext = {
  id: number;
  name: string;
  compiled: CompiledRules;
  /** Field id → the account's default (return profile, who pays postage …). */
  defaults: Record<string, Json>;
  categoryMap: CategoryMap;
  /** Attribute names and values as a person has matched them on this marketplace. */
  synonyms: Synonyms;
  /**
   * What this account calls things otherwise than the marketplace's rules foresee: conditions by our grade, places by the
   * beginning of ours. Field id → ours → theirs.
   */
  maps: Readonly<Record<string, Readonly<Record<string, string>>>>;
  /** Catalogue products already found, by what identifies the thing. */
  products: ProductMap;
  /** Templates that may apply to this account, in the order of their ids. */
  templates: readonly Template[];
  /** Text put below every description on this account; may hold variables. */
  footer: string;
  /** A tag that always stands last; empty for none. */
  houseTag: string;
  pricing: Pricing;
  /** From the items' currency to the account's; null when it is the same or not known. */
  rate: Rate | null;
  /** What packing adds to the weight. */
  packaging: PackagingAllowance;
  /** What packing a parcel costs. */
  packing: Packing;
  /** What parcels go out in and what carriers ask, for postage where the marketplace sells no labels. */
  parcels: { boxes: readonly Box[]; tariffs: readonly Tariff[] };
  /**
   * Units kept back from this account, and the most that are offered there; none where not given. `servedBy`: the account
   * whose warehouse sends what is sold here, too.
   */
  stock?: { reserve: number; cap: number | null; servedBy?: number | null };
  /** Today, as YYYY-MM-DD. */
  today: string;
};

/** Differences from the master, sparse: field id → value written for this marketplace alone. */
export type Overrides = Record<string, Json>;

export type ListingInput = {
  item: Item;
  overrides: Overrides;
  account: AccountContext;
  /** The stock number under which it is live there now. */
  numberThere?: string | null;
  /** How often it was made there before, for marketplaces that never take a stock number twice. */
  timesMade?: number;
};

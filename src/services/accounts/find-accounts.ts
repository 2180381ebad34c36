import { config } from '../../config';
import type { Json } from '../../core/json';
import { noAllowance, type PackagingAllowance, type Rate } from '../../core/measure';
import { type FeeTable, type Pricing, samePricing } from '../../core/price';
import type { ExtraRule } from '../../core/rules';
import { type DriftRules, fullPace, noRenewal, type OwnPace, paceOn, type RenewalRule } from '../../core/sync';
import { database } from '../../db/client';
import { connectorOf, connectors } from '../../markets';
import { accountCounts } from '../records/count-listings';
import { type AccountRow, loadAccounts } from '../records/load-accounts';

export type AccountView = {
  id: number;
  market: string;
  marketName: string;
  about: string;
  name: string;
  remoteName: string;
  state: AccountRow['state'];
  lockedUntil: string | null;
  lastError: string | null;
  rulesVersion: number;
  titleMax: number | null;
  currency: string;
  live: number;
  pacing: { perMinute: number; newPerDay: number };
  renewDays: number | null;
  extras: ExtraRule[];
  defaults: Record<string, Json>;
  footer: string;
  houseTag: string;
  pricing: Pricing;
  packaging: PackagingAllowance;
  rate: Rate | null;
  fees: FeeTable;
  autoDraft: boolean;
  pace: OwnPace;
  /** What holds today, after the marketplace's limits, the seller's own and a slow start. */
  paceToday: { perMinute: number; newToday: number; madeToday: number };
  paused: boolean;
  reserve: number;
  cap: number | null;
  relistCancelled: boolean;
  driftRules: DriftRules;
  renewal: RenewalRule;
  comparedAt: string | null;
};

export type MarketChoice = {
  market: string;
  name: string;
  about: string;
  access: 'oauth' | 'key';
  keyPage: string | null;
};

export async function findAccounts(): Promise<{ accounts: AccountView[]; available: MarketChoice[] }> {
  const db = database();
  const [loaded, countsOf] = await Promise.all([loadAccounts(db), accountCounts(db)]);
  return {
    accounts: loaded.map(({ row, rate, compiled: { rules } }) => ({
      id: row.id,
      market: row.market,
      marketName: rules.name,
      about: connectorOf(row.market).about,
      name: row.name,
      remoteName: row.remoteName,
      state: row.state,
      lockedUntil: row.lockedUntil && row.lockedUntil > new Date() ? row.lockedUntil.toISOString() : null,
      lastError: row.lastError,
      rulesVersion: row.rulesVersion,
      titleMax: rules.title?.max ?? null,
      currency: rules.currency,
      live: countsOf(row.id).live,
      pacing: rules.pacing,
      renewDays: rules.renewDays,
      extras: rules.extras,
      defaults: row.defaults,
      footer: row.footer,
      houseTag: row.houseTag,
      pricing: row.pricing ?? samePricing,
      packaging: row.packaging ?? noAllowance,
      rate,
      fees: rules.fees,
      autoDraft: row.autoDraft,
      pace: row.ownPace ?? fullPace,
      paceToday: {
        ...paceOn(rules.pacing, row.ownPace ?? fullPace, new Date()),
        madeToday: countsOf(row.id).today,
      },
      paused: row.pausedAt !== null,
      reserve: row.stockReserve,
      cap: row.stockCap,
      relistCancelled: row.relistCancelled,
      driftRules: row.driftRules,
      renewal: row.renewal ?? noRenewal,
      comparedAt: row.comparedAt?.toISOString() ?? null,
    })),
    available: connectors.map(({ market, name, about, access }) => ({
      market,
      name,
      about,
      access,
      keyPage: access === 'key' ? `${config.marketsUrl}/${market}/account/key` : null,
    })),
  };
}

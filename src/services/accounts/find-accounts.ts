import { z } from 'zod';
import { config } from '../../config';
import { filterSchema } from '../../core/filter';
import { jsonSchema } from '../../core/json';
import { packagingAllowanceSchema, rateSchema } from '../../core/measure';
import { feeTableSchema, noOfferRule, offerRuleSchema, pricingSchema, samePricing } from '../../core/price';
import { extraRuleSchema } from '../../core/rules';
import { driftRulesSchema, fullPace, noRenewal, ownPaceSchema, paceOn, renewalRuleSchema } from '../../core/sync';
import { database } from '../../db/client';
import { accountStates } from '../../db/schema';
import { connectorOf, connectors } from '../../markets';
import { loadAccounts } from '../records/accounts/load-accounts';
import { accountCounts } from '../records/listings/count-listings';
import { unheardSince } from '../records/listings/hearing';

export const accountViewSchema = z.object({
  id: z.number(),
  market: z.string(),
  marketName: z.string(),
  about: z.string(),
  name: z.string(),
  remoteName: z.string(),
  state: z.enum(accountStates),
  lockedUntil: z.string().nullable(),
  lastError: z.string().nullable(),
  rulesVersion: z.number(),
  titleMax: z.number().nullable(),
  currency: z.string(),
  live: z.number(),
  pacing: z.object({ perMinute: z.number(), newPerDay: z.number() }),
  renewDays: z.number().nullable(),
  extras: z.array(extraRuleSchema),
  defaults: z.record(z.string(), jsonSchema),
  maps: z.record(z.string(), z.record(z.string(), z.string())),
  conditions: z.array(z.object({ id: z.string(), label: z.string() })),
  /** What our grades are there by the marketplace's own rules. */
  conditionMap: z.record(z.string(), z.string().nullable()),
  footer: z.string(),
  houseTag: z.string(),
  language: z.string(),
  pricing: pricingSchema,
  /** Null where the shop's own holds. */
  packaging: packagingAllowanceSchema.nullable(),
  rate: rateSchema.nullable(),
  fees: feeTableSchema,
  autoDraft: z.boolean(),
  /** Which items are meant for it; null for all. */
  belongs: filterSchema.nullable(),
  pace: ownPaceSchema,
  /** What holds today, after the marketplace's limits, the seller's own and a slow start. */
  paceToday: z.object({ perMinute: z.number(), newToday: z.number(), spread: z.boolean(), madeToday: z.number() }),
  paused: z.boolean(),
  reserve: z.number(),
  cap: z.number().nullable(),
  /** The account whose warehouse sends what is sold here, too. */
  servedBy: z.number().nullable(),
  relistCancelled: z.boolean(),
  driftRules: driftRulesSchema,
  renewal: renewalRuleSchema,
  /** What is done with offers by itself; null where the marketplace has none. */
  offerRule: offerRuleSchema.nullable(),
  comparedAt: z.string().nullable(),
  /** When its orders were last heard, and since when they are not where that is too long ago. */
  heardAt: z.string().nullable(),
  unheardSince: z.string().nullable(),
});
export type AccountView = z.infer<typeof accountViewSchema>;

export const marketChoiceSchema = z.object({
  market: z.string(),
  name: z.string(),
  about: z.string(),
  access: z.enum(['oauth', 'key']),
  keyPage: z.string().nullable(),
});
export type MarketChoice = z.infer<typeof marketChoiceSchema>;

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
      heardAt: row.heardAt?.toISOString() ?? null,
      unheardSince: unheardSince(row, new Date())?.toISOString() ?? null,
      rulesVersion: row.rulesVersion,
      titleMax: rules.title?.max ?? null,
      currency: rules.currency,
      live: countsOf(row.id).live,
      pacing: rules.pacing,
      renewDays: rules.renewDays,
      extras: rules.extras,
      defaults: row.defaults,
      maps: row.maps ?? {},
      conditions: rules.conditions,
      conditionMap: rules.conditionMap as Record<string, string | null>,
      footer: row.footer,
      houseTag: row.houseTag,
      language: row.language,
      pricing: row.pricing ?? samePricing,
      packaging: row.packaging,
      rate,
      fees: rules.fees,
      autoDraft: row.autoDraft,
      belongs: row.belongs,
      pace: row.ownPace ?? fullPace,
      paceToday: {
        ...paceOn(rules.pacing, row.ownPace ?? fullPace, new Date()),
        madeToday: countsOf(row.id).today,
      },
      paused: row.pausedAt !== null,
      reserve: row.stockReserve,
      cap: row.stockCap,
      servedBy: row.servedBy,
      relistCancelled: row.relistCancelled,
      driftRules: row.driftRules,
      renewal: row.renewal ?? noRenewal,
      offerRule: connectorOf(row.market).offers ? (row.offerRule ?? noOfferRule) : null,
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

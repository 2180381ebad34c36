import { markets } from '../../marketplaces/list';
import type { AccountContext } from '../../src/core/listing';
import { compileRules, type MarketRules } from '../../src/core/rules';
import { sampleAccount } from '../../src/core/testing.test-data';
import { connectors } from '../../src/markets';
import type { Session } from '../../src/markets/session';

/** A marketplace's rules as they travel: what it publishes as JSON, read by its connector. */
export async function rulesOfAll(): Promise<{ market: string; name: string; rules: MarketRules }[]> {
  return Promise.all(
    connectors.map(async (connector) => {
      const published: unknown = JSON.parse(
        JSON.stringify(markets.find((one) => one.name === connector.market)?.firstRules ?? null),
      );
      const session: Session = { send: async () => published };
      return { market: connector.market, name: connector.name, rules: await connector.readRules(session) };
    }),
  );
}

/** An account on such a marketplace with what every shop sets first. */
export const accountWith = (rules: MarketRules, part: Partial<AccountContext> = {}): AccountContext =>
  sampleAccount(rules, {
    compiled: compileRules(rules),
    defaults: { place: 'Osterlund', ...firsts(rules) },
    categoryMap: {},
    rate:
      rules.currency === 'EUR' ? null : { from: 'EUR', to: rules.currency, millionths: 1_450_000, date: '2026-03-01' },
    products: { 'name:braskk2': { id: 'P1', name: 'Brask K-2', categoryId: null } },
    ...part,
  });

const firsts = (rules: MarketRules) =>
  Object.fromEntries(
    rules.extras
      .filter((extra) => extra.required && extra.type === 'choice')
      .map((extra) => [extra.id, extra.fallback ?? extra.values?.[0]?.id ?? '']),
  );

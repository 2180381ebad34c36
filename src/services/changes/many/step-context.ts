import type { ItemRecord } from '../../../core/change';
import type { Step, StepContext } from '../../../core/edit';
import { type Catalogue, fieldsFor } from '../../../core/field';
import { type Json, ownValue } from '../../../core/json';
import { type Content, certainCategory, computeListing } from '../../../core/listing';
import { netInput } from '../../../core/listing/net';
import { amountIn, homeCurrency, type RoundingName, roundings } from '../../../core/measure';
import { type PriceGoal, priceFor } from '../../../core/price';
import type { Executor } from '../../../db/client';
import { findBoxes } from '../../records/accounts/find-boxes';
import { type LoadedAccount, loadAccounts } from '../../records/accounts/load-accounts';
import { readSettings, type ShopSettings } from '../../records/accounts/read-settings';
import { loadCustomFields } from '../../records/items/load-custom-fields';
import { accountCounts } from '../../records/listings/count-listings';
import { soldFor } from './followed-sales';

export type LoadedSteps = { context: StepContext; accounts: LoadedAccount[] };

const noTerms: ShopSettings['glossaries'] = {};

/** What steps are carried out with: the fields there are, and what each account makes of an item. */
export async function stepContext(db: Executor, steps: readonly Step[] = []): Promise<LoadedSteps> {
  const [accounts, custom] = [await loadAccounts(db), await loadCustomFields(db)];
  // What fees hang on is counted only where a price is made from them.
  const live = steps.some((step) => step.do.verb === 'solve') ? await accountCounts(db) : null;
  const byId = new Map(accounts.map((one) => [one.id, one]));
  const catalogues = new Map<number, Catalogue>();
  const rulesOf = (id: number) => byId.get(id)?.compiled.rules;
  const catalogueOf = (id: number): Catalogue => {
    const known = catalogues.get(id) ?? fieldsFor(custom, rulesOf(id));
    catalogues.set(id, known);
    return known;
  };
  // One field is asked for more than once of the same state of an item.
  let last: { record: ItemRecord; key: string; content: Content } | null = null;
  function listed(record: ItemRecord, id: number, field: string): Json | undefined {
    const account = byId.get(id);
    if (!account) return undefined;
    const key = `${id}/${field}`;
    if (last?.record !== record || last.key !== key) {
      const { [field]: _own, ...overrides } = record.overrides.get(id) ?? {};
      last = { record, key, content: computeListing({ item: record.item, overrides, account }).content };
    }
    return ownValue(last.content, field) as Json | undefined; // a listing's content holds JSON values only
  }
  function priceThere(record: ItemRecord, id: number, goal: PriceGoal, rounding: RoundingName, floor: number) {
    const account = byId.get(id);
    if (!account) return null;
    const { item } = record;
    const { content } = computeListing({ item, overrides: record.overrides.get(id) ?? {}, account });
    const { rules } = account.compiled;
    const input = netInput(account, content, item, live?.(id).live ?? 0);
    return priceFor(input, goal, roundings[rounding], Math.max(floor, rules.price?.min ?? 0), rules.price?.max);
  }
  const { glossaries } = steps.some((step) => step.do.verb === 'by-terms')
    ? await readSettings(db)
    : { glossaries: noTerms };
  const boxes = steps.some((step) => step.do.verb === 'box') ? await findBoxes(db) : [];
  return {
    accounts,
    context: {
      boxes,
      soldFor,
      suggestedCategory(item, id) {
        const account = byId.get(id);
        if (!account || account.compiled.rules.category === 'product') return null;
        return certainCategory(
          account.compiled,
          { ownCategory: item.category, title: item.title, brand: item.brand, attributes: item.attributes },
          account.categoryMap,
        );
      },
      termsOf: (id) => {
        const language = byId.get(id)?.row.language ?? '';
        return language === '' ? null : (glossaries[language] ?? []);
      },
      priceFor: priceThere,
      catalogue: fieldsFor(custom),
      currency: homeCurrency,
      listed,
      listingField: (id, field) => (rulesOf(id) ? catalogueOf(id).listing(field) : undefined),
      amountThere(id, amount) {
        const account = byId.get(id);
        return account ? amountIn(amount, account.compiled.rules.currency, account.rate) : null;
      },
      currencyOf: (id) => rulesOf(id)?.currency ?? homeCurrency,
    },
  };
}

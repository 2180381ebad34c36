import { chmodSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import { config } from '../src/config';
import { database } from '../src/db/client';
import { account, authUser } from '../src/db/schema';
import type { Actor } from '../src/services/access/actor';
import { createApiToken } from '../src/services/access/api-tokens';
import { setupOwner } from '../src/services/access/set-up-owner';
import { addMapping } from '../src/services/accounts/mapping/add-mapping';
import { mapCategory } from '../src/services/accounts/mapping/map-category';
import { addBox } from '../src/services/accounts/postage/add-box';
import { recordPostage } from '../src/services/accounts/postage/record-postage';
import { refreshTariffs } from '../src/services/accounts/postage/refresh-tariffs';
import { refreshRates } from '../src/services/accounts/rates/refresh-rates';
import { updateAccount } from '../src/services/accounts/update-account';
import { findTemplates } from '../src/services/listings/templates/find-templates';
import { saveTemplate } from '../src/services/listings/templates/save-template';
import type { TemplateInput } from '../src/services/listings/templates/template-input';
import { findBoxes } from '../src/services/records/accounts/find-boxes';
import { loadAccounts } from '../src/services/records/accounts/load-accounts';
import { connectElsewhere } from './connect-elsewhere';
import { columnOf, counterparts } from './counterparts';

const db = database();
const owner = { name: 'Runa Lindholm', email: 'owner@grainhouse.example', password: 'harbour-light-35' };

/** The shop's owner, made at the first call together with the token for programs. */
export async function ownerActor(): Promise<Actor> {
  const [found] = await db
    .select({ id: authUser.id, name: authUser.name })
    .from(authUser)
    .where(eq(authUser.email, owner.email));
  if (found) return found;
  const actor = await setupOwner(owner);
  const { token } = await createApiToken(actor, 'owner', { name: 'demo' });
  const file = join(config.dataFolder, 'demo-api-token');
  writeFileSync(file, `${token}\n`, { mode: 0o600 });
  chmodSync(file, 0o600);
  return actor;
}

const defaults: Record<string, Parameters<typeof updateAccount>[2]> = {
  hallowick: {
    defaults: { returns: 'buyer-14', postage: 'buyer-tracked', offers: true },
    footer: 'Grainhouse, film photography from the harbour of Osterlund.',
  },
  pippet: { defaults: { postagePaidBy: 'seller', priceDrops: false }, footer: '' },
  oakhand: {
    defaults: { maker: 'other', kind: 'finished', postageProfile: 'parcel', returnProfile: 'fortnight' },
    footer: 'Grainhouse, Osterlund.',
    houseTag: 'grainhouse',
  },
  swishel: {
    houseTag: 'grainhouse',
    pricing: { mode: 'same', basisPoints: 0, addPostage: true, rounding: 'whole' },
  },
  lanesend: { defaults: { place: 'Osterlund, Quay Street', handover: 'both' } },
  glintfeed: { houseTag: 'grainhouse', footer: 'More of this in our shop on the quay.' },
  selasar: { pricing: { mode: 'same', basisPoints: 0, addPostage: false, rounding: 'ninety' } },
  crateway: { defaults: { ships: 'self', tax: 'standard', battery: 'none', hazard: 'none' } },
  lotbarn: { defaults: { finish: 'plain' } },
  wallfolk: {
    defaults: { product: 'print-40x50', ground: 'white', placement: 'centre' },
    // Artwork alone: a film roll is no poster.
    belongs: { all: [{ field: 'category', op: 'begins', value: 'prints' }] },
  },
  shopfront: { defaults: { stockPlace: 'shop' }, footer: 'Sent from Osterlund within two days.' },
};

const byConsent = ['hallowick', 'oakhand', 'selasar', 'shopfront'];
const byKey: [market: string, seller: string][] = [
  ['pippet', 'grainhouse'],
  ['pippet', 'grainhouse-finds'],
  ['swishel', 'grainhouse'],
  ['lanesend', 'grainhouse'],
  ['glintfeed', 'grainhouse'],
  ['crateway', 'grainhouse'],
  ['lotbarn', 'grainhouse'],
  ['wallfolk', 'grainhouse'],
];

/** Rates, tariffs and the boxes of the packing bench. */
export async function setUpPacking(): Promise<void> {
  await refreshRates();
  await refreshTariffs();
  if ((await findBoxes()).length) return;
  await addBox({ name: 'Letter box', lengthMm: 240, widthMm: 160, heightMm: 60, grams: 60, cost: null });
  await addBox({ name: 'Camera box', lengthMm: 260, widthMm: 200, heightMm: 160, grams: 180, cost: null });
  await addBox({ name: 'Outfit box', lengthMm: 480, widthMm: 340, heightMm: 260, grams: 540, cost: null });
  for (const [grams, paid] of [
    [1_080, 590],
    [640, 450],
    [2_400, 790],
    [310, 450],
    [4_700, 790],
  ] as const)
    await recordPostage({ carrier: 'postline', grams, paid });
}

/** Texts that the shop says again and again. */
async function writeTemplates(actor: Actor): Promise<void> {
  const accounts = await loadAccounts(db);
  const on = (market: string) => accounts.filter((one) => one.row.market === market).map((one) => one.id);
  const known = (await findTemplates()).templates.map((one) => one.name);
  const write = async (
    name: string,
    markets: string[],
    conditions: TemplateInput['conditions'],
    fields: Record<string, string>,
  ) => {
    if (!known.includes(name))
      await saveTemplate(actor, null, {
        name,
        accounts: markets.flatMap(on),
        conditions,
        fields,
        print: null,
        for: 'all',
      });
  };
  await write('House words', ['shopfront'], [], {
    footer: 'Sent from Osterlund within two days. Ask for {{ stock_number }} when you write to us.',
  });
  await write('Used cameras', ['shopfront', 'swishel'], [{ field: 'category', op: 'begins', value: 'cameras' }], {
    tags: 'film camera, tested camera',
    description:
      '<p>{{ brand }} {{ model }}{% if decade %}, made in the {{ decade }}{% endif %}. Condition: {{ condition }}.</p>{{ description }}',
  });
  await write('Fresh film', ['shopfront', 'lanesend'], [{ field: 'category', op: 'begins', value: 'film' }], {
    description:
      '{{ description }}<p>{{ film_format }}, {{ film_speed }}, {{ exposures }} exposures. Develop before {{ expiry_date }}.</p>',
    tags: 'fresh film',
  });
}

/** What a person matched by hand: Selasar calls black and many colours otherwise. */
async function matchWords(actor: Actor): Promise<void> {
  const match = (attribute: string, source: string, target: string) =>
    addMapping(actor, { market: 'selasar', kind: 'value', attribute, source, target });
  await match('shade', 'Black', 'Jet');
}

/** Connects the shop's accounts the way a person does, with defaults and categories. */
export async function connectAccounts(actor: Actor): Promise<void> {
  const existing = await db.select({ market: account.market, remoteName: account.remoteName }).from(account);
  const has = (market: string, seller: string) =>
    existing.some((one) => one.market === market && one.remoteName === seller);
  if (existing.length >= byConsent.length + byKey.length) return;
  for (const [market, seller] of [...byConsent.map((one) => [one, 'grainhouse'] as const), ...byKey])
    if (!has(market, seller)) await connectElsewhere(actor, [market], seller);
  const names: Record<string, string> = {
    'hallowick/grainhouse': 'Hallowick',
    'oakhand/grainhouse': 'Oakhand',
    'pippet/grainhouse': 'Pippet',
    'pippet/grainhouse-finds': 'Pippet finds',
  };
  for (const one of await loadAccounts(db)) {
    const { market, remoteName } = one.row;
    await updateAccount(actor, one.id, { ...defaults[market], name: names[`${market}/${remoteName}`] ?? one.name });
    const column = columnOf[market];
    if (column === undefined) continue;
    for (const [ownCategory, names] of Object.entries(counterparts)) {
      const leaf = one.compiled.rules.categories.find((category) => category.leaf && category.name === names[column]);
      if (leaf) await mapCategory(actor, one.id, { ownCategory, categoryId: leaf.id });
    }
  }
  await matchWords(actor);
  await writeTemplates(actor);
}

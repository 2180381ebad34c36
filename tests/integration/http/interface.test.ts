import { randomUUID } from 'node:crypto';
import type { Role } from '../../../src/core/access';
import { plainRecipe } from '../../../src/core/photo';
import { closeDatabase } from '../../../src/db/client';
import { sidecar } from '../../../src/files/xmp';
import { recordSale } from '../../../src/services/stock/record-sale';
import { consignmentOf, newConsignment, shelfOf } from '../../support/consignments';
import { download, sendFile } from '../../support/files';
import { settled, survey } from '../../support/gathering';
import { scanOf, settingsWith } from '../../support/intake';
import { jpeg, publishItems, readyItem, sheet, stateOn } from '../../support/items';
import { kitOf, lotAccount, lotsIn, newKit, put as putContents } from '../../support/kits';
import { askingGathering, listOnTwo } from '../../support/listed';
import { callAs, newPerson } from '../../support/people';
import {
  accountOf,
  call,
  callLines,
  control,
  describedInterface,
  type MarketListing,
  marketListings,
  stack,
  until,
} from '../../support/stack';

/**
 * Every endpoint is called once with real input, and its answer held to its own description (`call` does that for
 * every answer in all tests). An endpoint that is not here makes the first test fail.
 */
type Case = () => Promise<{ status: number; body: unknown }>;

const get = (path: string) => call('GET', path);
const post = (path: string, body: unknown = {}) => call('POST', path, body);
const put = (path: string, body: unknown) => call('PUT', path, body);

/** A list as a file: its heads, whatever else stands in it. */
async function listed(path: string, ...heads: string[]): Promise<{ status: number; body: unknown }> {
  const { status, type, bytes } = await download(path);
  expect(type).toBe('text/csv');
  const text = bytes.toString('utf8');
  expect(text.split('\r\n')[0]?.split(',')).toEqual(expect.arrayContaining(heads));
  return { status, body: text };
}

/** A listing that somebody has just made elsewhere, found there. */
async function oneFound(): Promise<number[]> {
  const run = (Math.floor(Date.now() / 1_000) % 100_000) + 200_000;
  const { numbers } = await listOnTwo(`one${run}`, { things: 1, unsure: 0, run });
  const page = await survey(await accountOf('Hallowick'));
  return page.found.filter((one) => one.remoteId === numbers[0]).map((one) => one.id);
}

afterAll(closeDatabase);

let item: { id: number; sku: string };
let other: { id: number; sku: string };
let varied: { id: number; sku: string };
let hallowick: number;
let oakhand: number;
let shopfront: number;
let crateway: number;
let pippet: number;
let run = 0;
let ended = 0;
let routineId = 0;
let drop = 0;
let dropped = 0;
let search = 0;
let template = 0;
let badge = 0;
let box = 0;
let changeId = 0;
let offer = 0;
let scheduled = 0;
let hash = '';
let columnSet = 0;
let exported = 0;
let imported = 0;
let gathered = 0;
let batch = 0;
let kit = 0;
let artwork = 0;
const idOfNew = async (role: Role) => {
  const { email } = await newPerson(role);
  const { people } = (await call<{ people: { id: string; email: string }[] }>('GET', '/people')).body;
  return people.find((one) => one.email === email)?.id;
};
/** A title that Hallowick does not take, as its mend is asked for. */
async function tooLong() {
  const long = await readyItem();
  await put(`/items/${long.id}/listings/${hallowick}`, { field: 'title', value: 'Brask '.repeat(20).trim() });
  type Violations = { violations: { accountId: number; code: string; field: string; message: string }[] };
  const { body } = await call<Violations>('GET', '/rules?market=hallowick');
  const found = body.violations.find((one) => one.code === 'title-long' && one.accountId === hallowick);
  return { accountId: hallowick, code: found?.code, field: found?.field, message: found?.message };
}
const firstLot = async () => (await call<{ lots: { id: number }[] }>('GET', `/kits/${kit}/lots`)).body.lots[0]?.id ?? 0;
let consignment = 0;
let plan = '';
let shipment: number | undefined;
let otherShipment: number | undefined;
let lastShipment: number | undefined;
let batchLine = 0;
let preset = 0;
let printJob = 0;
const unique = `I${Date.now().toString(36)}`;

const labelsOf = () => ({ kind: 'item', size: 'roll-58x32', items: [item.id] });
const selection = () => ({ kind: 'items' as const, ids: [item.id] });
const published = () => ({ selection: selection(), accounts: [hallowick], without: [], as: 'live' });
const live = async (id: number, account: number) => {
  await publishItems([id], [account]);
  await until(
    () => stateOn(id, account),
    (state) => state === 'live',
  );
};
const listingId = async (id: number, account: number): Promise<number> => {
  const { body } = await call<{ columns: { accountId: number; listingId: number }[] }>('GET', `/items/${id}`);
  return body.columns.find((one) => one.accountId === account)?.listingId ?? 0;
};
const thereOf = async (sku: string): Promise<MarketListing> => {
  const one = (await marketListings('hallowick', sku)).find(({ state }) => state === 'live');
  if (!one) throw new Error(`nothing of ${sku} on Hallowick`);
  return one;
};
/** A file as the body itself, its answer held to its description. */
async function sent(method: 'POST' | 'PUT', path: string, bytes: Buffer, name: string) {
  const answer = await fetch(`${stack.base}/api/v1${path}`, {
    method,
    headers: {
      authorization: `Bearer ${stack.token}`,
      'content-type': 'application/octet-stream',
      'x-file-name': name,
    },
    body: new Uint8Array(bytes),
  });
  const body: unknown = await answer.json();
  expect((await describedInterface()).faults(method, path, answer.status, body)).toEqual([]);
  return { status: answer.status, body };
}
const quiet = (id: number) =>
  until(
    async () => (await call<{ jobs: { state: string }[] }>('GET', `/jobs?item=${id}`)).body.jobs,
    (jobs) => jobs.every((one) => one.state !== 'waiting' && one.state !== 'running'),
  );
const templateBody = () => ({
  name: `${unique} footer`,
  conditions: [],
  fields: { footer: 'Ask us anything.' },
  accounts: [shopfront],
});

beforeAll(async () => {
  [hallowick, oakhand, shopfront, crateway, pippet] = (await Promise.all(
    ['Hallowick', 'Oakhand', 'Shopfront', 'Crateway', 'Pippet'].map(accountOf),
  )) as [number, number, number, number, number]; // as many as names
  item = await readyItem({ location: unique }, 5);
  other = await readyItem();
  varied = await readyItem({
    axes: [{ name: 'Colour', values: ['Black', 'Tan'] }],
    variations: ['Black', 'Tan'].map((value) => ({
      values: [value],
      on: true,
      sku: '',
      quantity: 2,
      price: null,
      barcode: '',
    })),
  });
  await live(item.id, hallowick);
  hash = (await sheet(item.id)).item.photos[0]?.hash ?? '';
});

const cases: Record<string, Case> = {
  // Finding
  'GET /items': () => get('/items?limit=5&sort=price&dir=asc'),
  'GET /items/count': () => get('/items/count?stage=live'),
  'GET /words': () => get('/words'),
  'GET /reminders': () => get('/reminders'),
  'POST /searches': async () => {
    const answer = await call<{ id: number }>('POST', '/searches', {
      name: `${unique} place`,
      filter: { all: [{ field: 'location', op: 'is', value: unique }] },
    });
    search = answer.body.id;
    return answer;
  },
  'GET /searches': () => get('/searches'),
  'DELETE /searches/{id}': () => call('DELETE', `/searches/${search}`),
  'GET /fields': () => get(`/fields?account=${hallowick}`),
  'GET /stages': () => get('/stages'),
  // Items
  'POST /items': () => post('/items', { fields: { title: `${unique} made`, sku: `${unique}-1` } }),
  'GET /items/{id}': () => get(`/items/${item.id}`),
  'GET /items/{id}/preview': () => get(`/items/${item.id}/preview`),
  'PATCH /items/{id}': async () => {
    const { version } = (await sheet(item.id)).item;
    return call('PATCH', `/items/${item.id}`, { baseVersion: version, patch: { notes: 'first' } });
  },
  'GET /items/{id}/history': async () => {
    const answer = await call<{ history: { kind: string; id: number; field?: string }[] }>(
      'GET',
      `/items/${item.id}/history`,
    );
    changeId = answer.body.history.find((one) => one.kind === 'change' && one.field === 'notes')?.id ?? 0;
    return answer;
  },
  'POST /items/{id}/history/{change}/return': () => post(`/items/${item.id}/history/${changeId}/return`),
  'POST /items/{id}/number': async () => {
    const answer = await call<{ sku: string }>('POST', `/items/${other.id}/number`);
    other = { ...other, sku: answer.body.sku };
    return answer;
  },
  'POST /items/{id}/split': () => post(`/items/${varied.id}/split`, { combinations: [['Tan']] }),
  'POST /items/{id}/photos': async () =>
    sent('POST', `/items/${other.id}/photos`, await jpeg(800, '#335577'), 'two.jpg'),
  'PUT /items/{id}/photos': () => put(`/items/${item.id}/photos`, { photos: [hash, hash] }),
  'PUT /items/{id}/photos/flaw': () => put(`/items/${item.id}/photos/flaw`, { hash, words: 'A scratch' }),
  // Photos
  'GET /photos/recipe': () => get(`/photos/recipe?hash=${hash}`),
  'POST /photos': async () => sent('POST', '/photos', await jpeg(700, '#99aa22'), 'card.jpg'),
  'POST /photos/shared': () => post('/photos/shared', { selection: selection() }),
  'POST /items/{id}/photos/made': () =>
    post(`/items/${item.id}/photos/made`, { hash, place: 0, recipe: { ...plainRecipe, turn: 90 } }),
  'POST /badges/picture': async () =>
    sent(
      'POST',
      '/badges/picture',
      Buffer.from(
        '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"><rect width="40" height="20" fill="#115544"/></svg>',
      ),
      'mark.svg',
    ),
  'PUT /badges': () =>
    put('/badges', {
      name: unique,
      art: { kind: 'words', shape: 'tag', words: 'Tested', ground: '#115544', ink: '#ffffff' },
    }),
  'GET /badges': () => get('/badges'),
  'DELETE /badges/{id}': async () => {
    const { body } = await call<{ badges: { id: number; name: string }[] }>('GET', '/badges');
    badge = body.badges.find((one) => one.name === unique)?.id ?? 0;
    return call('DELETE', `/badges/${badge}`);
  },
  'GET /photos/flaws': () => get('/photos/flaws'),
  'GET /photos/flawed': () => get(`/photos/flawed?flaw=few&account=${hallowick}`),
  'POST /photos/look': () => post('/photos/look'),
  'POST /photo-drops': async () => {
    const answer = await call<{ drop: number; wanted: { id: number }[] }>('POST', '/photo-drops', {
      files: [{ path: `${other.sku}_1.jpg`, bytes: 5 }],
    });
    drop = answer.body.drop;
    dropped = answer.body.wanted[0]?.id ?? 0;
    return answer;
  },
  'PUT /photo-drops/{id}/files/{file}': async () =>
    sent('PUT', `/photo-drops/${drop}/files/${dropped}`, await jpeg(750, '#227799'), `${other.sku}_1.jpg`),
  'POST /photo-drops/{id}/tie': () => post(`/photo-drops/${drop}/tie`, { way: 'name' }),
  'GET /photo-drops': () => get('/photo-drops'),
  'GET /photo-drops/{id}': () => get(`/photo-drops/${drop}`),
  'POST /photo-drops/{id}/move': () =>
    post(`/photo-drops/${drop}/move`, { files: [dropped], to: { kind: 'item', item: other.id } }),
  'POST /photo-drops/{id}/add': () => post(`/photo-drops/${drop}/add`, { where: 'first' }),
  'POST /photo-drops/{id}/close': () => post(`/photo-drops/${drop}/close`),
  'POST /items/{id}/phone': () => post(`/items/${item.id}/phone`),
  'GET /open-items': () => get(`/open-items?ids=${item.id},${other.id}`),
  'GET /items/{id}/wording': () => get(`/items/${item.id}/wording?account=${hallowick}`),
  'GET /items/{id}/titles': () => get(`/items/${item.id}/titles?max=45`),
  'PUT /custom-fields': () =>
    put('/custom-fields', {
      key: unique.toLowerCase(),
      label: 'Shelf check',
      type: 'choice',
      choices: ['yes', 'no'],
      most: null,
      from: null,
      to: null,
      category: '',
      copied: true,
    }),
  'GET /custom-fields': () => get('/custom-fields'),
  'POST /custom-fields/remove': () => post('/custom-fields/remove', { key: unique.toLowerCase() }),
  'GET /settings': () => get('/settings'),
  'PUT /settings': () => put('/settings', { skuPattern: 'GH-{seq}' }),
  'PUT /settings/rows': () => put('/settings/rows', { category: unique, plan: { hidden: ['notes'], order: [] } }),
  'GET /items/blank': () => get('/items/blank'),
  // Offers
  'PUT /accounts/{id}/offers': () =>
    put(`/accounts/${pippet}/offers`, { acceptFrom: null, declineBelow: { kind: 'net', amount: -1_000_000 } }),
  'GET /offers': async () => {
    await put(`/accounts/${pippet}/offers`, { acceptFrom: null, declineBelow: null });
    const wanted = await readyItem();
    await live(wanted.id, pippet);
    const [there] = await marketListings('pippet', wanted.sku);
    await control('pippet', 'offer', { listing: there?.id, amount: 9_000, words: 'For my collection' });
    type Offers = { offers: { id: number }[] };
    const answer = await until(
      () => call<Offers>('GET', `/offers?item=${wanted.id}`),
      ({ body }) => body.offers.length === 1,
    );
    offer = answer.body.offers[0]?.id ?? 0;
    return answer;
  },
  'POST /offers/{id}/answer': () => post(`/offers/${offer}/answer`, { answer: 'decline' }),
  // Changes
  'PUT /items/{id}/listings/{account}': () =>
    put(`/items/${item.id}/listings/${oakhand}`, { field: 'title', value: `${unique} for Oakhand` }),
  'POST /items/take-over': () =>
    post('/items/take-over', { from: item.id, fields: ['supplier', 'notes'], to: [other.id] }),
  'POST /edits/preview': () =>
    post('/edits/preview', { selection: selection(), steps: [{ field: 'price', do: { verb: 'set', value: 15_500 } }] }),
  'POST /edits/common': async () => ({
    status: 200,
    body: (await callLines('/edits/common', { selection: selection() }))[0],
  }),
  'POST /edits/counting': async () => {
    const steps = [{ field: 'quantity', do: { verb: 'add', by: 1 } }];
    const body = await callLines('/edits/counting', { selection: selection(), steps });
    return { status: 200, body: body.at(-1) };
  },
  'POST /edits/consequences': () =>
    post('/edits/consequences', { selection: selection(), steps: [{ field: 'quantity', do: { verb: 'add', by: 1 } }] }),
  'POST /edits': async () => {
    const answer = await call<{ runId: number }>('POST', '/edits', {
      selection: selection(),
      steps: [{ field: 'price', do: { verb: 'set', value: 15_500 } }],
      send: false,
      title: `${unique} dearer`,
    });
    run = answer.body.runId;
    return answer;
  },
  'GET /runs/{id}/changes': () => get(`/runs/${run}/changes`),
  'POST /runs/{id}/undo': () => post(`/runs/${run}/undo`, { send: false }),
  'POST /cells': () => post('/cells', { cells: [{ item: item.id, field: 'location', text: 'Z9' }] }),
  // Routines
  'POST /routines': async () => {
    const steps = [{ field: 'price', do: { verb: 'set', value: 15_600 } }];
    const filter = { field: 'sku', op: 'is', value: item.sku };
    const answer = await call<{ id: number }>('POST', '/routines', { name: unique, filter, steps, send: false });
    routineId = answer.body.id;
    return answer;
  },
  'GET /routines': () => get('/routines'),
  'PATCH /routines/{id}': () => call('PATCH', `/routines/${routineId}`, { send: true }),
  'POST /routines/{id}/run': () => post(`/routines/${routineId}/run`),
  'GET /routines/{id}/file': () => get(`/routines/${routineId}/file`),
  'POST /routines/file': async () => {
    const { body } = await call<{ routine: object }>('GET', `/routines/${routineId}/file`);
    return post('/routines/file', { ...body, routine: { ...body.routine, name: `${unique} taken` } });
  },
  'DELETE /routines/{id}': () => call('DELETE', `/routines/${routineId}`),
  // Accounts
  'GET /accounts': () => get('/accounts'),
  'POST /accounts': async () => {
    const { apiKey } = await control('wallfolk', 'sellers', { name: unique, password: 'shop-password' });
    const answer = await call<{ accountId: number }>('POST', '/accounts', { market: 'wallfolk', key: String(apiKey) });
    // One that nothing is meant for, so that it is in nobody's way.
    await call('PATCH', `/accounts/${answer.body.accountId}`, { autoDraft: false });
    return answer;
  },
  'PATCH /accounts/{id}': () => call('PATCH', `/accounts/${shopfront}`, { houseTag: '' }),
  'PUT /accounts/{id}/categories': async () => {
    const { body } = await call<{ columns: { accountId: number; suggestions: { id: string }[] }[] }>(
      'GET',
      `/items/${item.id}`,
    );
    const categoryId = body.columns.find((one) => one.accountId === oakhand)?.suggestions[0]?.id;
    return put(`/accounts/${oakhand}/categories`, { ownCategory: 'cameras/slr', categoryId });
  },
  'PUT /accounts/{id}/pace': () => put(`/accounts/${shopfront}/pace`, { reserve: 0 }),
  'POST /accounts/hold': async () => {
    await post('/accounts/hold', { accounts: [shopfront], stopped: true });
    return post('/accounts/hold', { accounts: [shopfront], stopped: false });
  },
  'GET /rules': () => get('/rules?market=oakhand'),
  'GET /mappings': () => get('/mappings?market=selasar'),
  'POST /mappings': () =>
    post('/mappings', { market: 'selasar', kind: 'value', attribute: 'colour', source: unique, target: 'Black' }),
  'POST /mappings/forget': async () => {
    const { body } = await call<{ known: { id: string; source: string }[] }>('GET', '/mappings?market=selasar');
    const known = body.known.find((one) => one.source === unique.toLowerCase());
    return post('/mappings/forget', { market: 'selasar', id: known?.id });
  },
  'GET /catalogues': () => get('/catalogues?q=Brask'),
  'POST /products/find': () => post('/products/find', { accountId: crateway, itemIds: [item.id] }),
  // An item of its own: what is kept here holds for every item of the same brand and model.
  'POST /products/choose': async () =>
    post('/products/choose', {
      accountId: crateway,
      itemId: (await readyItem({ model: unique })).id,
      product: { id: unique, name: 'Just to be called', categoryId: null },
    }),
  // Postage
  'POST /boxes': async () => {
    const answer = await call<{ id: number }>('POST', '/boxes', {
      name: `${unique} box`,
      lengthMm: 300,
      widthMm: 200,
      heightMm: 100,
      grams: 120,
    });
    box = answer.body.id;
    return answer;
  },
  'GET /boxes': () => get('/boxes'),
  'DELETE /boxes/{id}': () => call('DELETE', `/boxes/${box}`),
  'GET /postage': () => get('/postage?grams=900&lengthMm=200&widthMm=150&heightMm=100&band=home'),
  'POST /postage': () => post('/postage', { carrier: 'postline', grams: 900, paid: 620 }),
  'POST /postage/tariffs': () => post('/postage/tariffs'),
  'POST /rates': () => post('/rates'),
  'GET /rates': () => get('/rates'),
  'POST /rates/forget': async () => {
    const { body } = await call<{ rates: { to: string; date: string }[] }>('POST', '/rates');
    const [rate] = body.rates;
    const answer = await post('/rates/forget', { to: rate?.to, date: rate?.date });
    await post('/rates');
    return answer;
  },
  // Listings
  'POST /publish/plan': () => post('/publish/plan', { ...published(), accounts: [hallowick, oakhand] }),
  'POST /publish': () => post('/publish', { ...published(), accounts: [oakhand] }),
  'PUT /items/{id}/listings/{account}/target': () =>
    put(`/items/${other.id}/listings/${oakhand}/target`, { here: true }),
  'POST /items/{id}/listings/{account}/model': () =>
    post(`/items/${item.id}/listings/${shopfront}/model`, { model: oakhand }),
  'POST /copies/plan': () =>
    post('/copies/plan', { from: hallowick, to: shopfront, selection: selection(), as: 'draft', takeOwn: true }),
  'POST /copies': () =>
    post('/copies', { from: hallowick, to: shopfront, selection: selection(), as: 'draft', takeOwn: true }),
  'GET /links': () => get(`/links?q=${item.sku}`),
  'GET /accounts/{id}/unlinked': () => get(`/accounts/${hallowick}/unlinked`),
  'POST /links/cut': async () => {
    await quiet(item.id);
    return post('/links/cut', { listings: [await listingId(item.id, hallowick)] });
  },
  'POST /links': async () =>
    post('/links', {
      account: hallowick,
      links: [{ remoteId: (await thereOf(item.sku)).id, itemId: item.id }],
      afterwards: 'show',
    }),
  'GET /renewals': () => get(`/renewals?account=${hallowick}&order=newest`),
  'POST /renewals/plan': async () => post('/renewals/plan', { listings: [await listingId(item.id, hallowick)] }),
  'POST /renewals': async () => {
    const answer = await post('/renewals', { listings: [await listingId(item.id, hallowick)] });
    await quiet(item.id);
    return answer;
  },
  'PUT /accounts/{id}/renewal': () =>
    put(`/accounts/${shopfront}/renewal`, { on: false, minDays: 30, mostPerDay: 5, withinDays: null }),
  'POST /fixes/foreseen': async () => post('/fixes/foreseen', await tooLong()),
  'POST /fixes': async () => post('/fixes', { ...(await tooLong()), send: false }),
  'GET /items/{id}/prices': () => get(`/items/${item.id}/prices?goal=net&amount=5000&rounding=ninety`),
  'GET /items/{id}/comparables': () => get(`/items/${item.id}/comparables?days=90`),
  // Templates
  'POST /templates': async () => {
    const answer = await call<{ id: number }>('POST', '/templates', {
      ...templateBody(),
      // Fits nothing of the others, so that their listings stay as they are.
      conditions: [{ field: 'location', op: 'is', value: unique }],
    });
    template = answer.body.id;
    return answer;
  },
  'GET /templates': () => get('/templates'),
  'PUT /templates/{id}': () =>
    put(`/templates/${template}`, {
      ...templateBody(),
      conditions: [{ field: 'location', op: 'is', value: `${unique}x` }],
    }),
  'POST /templates/try': () => post('/templates/try', { ...templateBody(), id: null }),
  'DELETE /templates/{id}': () => call('DELETE', `/templates/${template}`),
  'GET /removed': () => get('/removed?kind=template'),
  'POST /removed/back': async () => {
    const answer = await post('/removed/back', { kind: 'template', id: template });
    await call('DELETE', `/templates/${template}`);
    return answer;
  },
  // Stock
  'POST /items/{id}/stock': () => post(`/items/${item.id}/stock`, { how: 'add', units: 2, reason: 'bought' }),
  'GET /items/{id}/stock': () => get(`/items/${item.id}/stock`),
  'PUT /items/{id}/parts': async () => {
    const [whole, part] = [await readyItem({}, 0), await readyItem({}, 6)];
    return put(`/items/${whole.id}/parts`, { parts: [{ item: part.id, pieces: 2 }] });
  },
  'GET /items/{id}/parts': () => get(`/items/${item.id}/parts`),
  'POST /items/{id}/sold': () => post(`/items/${item.id}/sold`, { quantity: 1, unitPrice: 12_000 }),
  'GET /sales': () => get(`/sales?item=${item.id}`),
  'POST /sales/{id}/cancel': async () => {
    const { body } = await call<{ sales: { id: number }[] }>('GET', `/sales?item=${item.id}`);
    return post(`/sales/${body.sales[0]?.id}/cancel`);
  },
  'POST /sales/{id}/assign': async () => {
    await recordSale(hallowick, {
      orderId: `${unique}-order`.slice(-60),
      line: 0,
      rawState: null,
      remoteListingId: 'nobody-knows',
      sku: 'nothing-of-ours',
      title: `${unique} sold of no item`,
      quantity: 1,
      unitPrice: 1_000,
      total: 1_000,
      fee: 0,
      buyerPostage: 0,
      discount: 0,
      parcelShare: 1,
      label: 0,
      collected: false,
      personal: null,
      currency: 'EUR',
      buyerTown: '',
      variation: null,
      soldAt: new Date(),
      changedAt: new Date(),
      cancelled: false,
    });
    type Unassigned = { id: number; title: string };
    const { body } = await call<{ sales: Unassigned[] }>('GET', '/sales?state=unassigned');
    const sale = body.sales.find((one) => one.title.startsWith(unique));
    return post(`/sales/${sale?.id}/assign`, { item: item.id });
  },
  'POST /sales/forget-buyers': () => post('/sales/forget-buyers', { olderThanDays: 3_650 }),
  'GET /sales/file': async () => {
    const { status, type, bytes } = await download('/sales/file?format=json&state=paid');
    expect(type).toBe('application/json');
    expect(JSON.parse(bytes.toString('utf8'))).toEqual(
      expect.arrayContaining([expect.objectContaining({ state: 'paid' })]),
    );
    return { status, body: bytes.toString('utf8') };
  },
  // Files
  'GET /file-columns': () => get('/file-columns'),
  'POST /column-sets': async () => {
    const answer = await call<{ id: number }>('POST', '/column-sets', { name: unique, columns: ['sku', 'title'] });
    columnSet = answer.body.id;
    return answer;
  },
  'DELETE /column-sets/{id}': () => call('DELETE', `/column-sets/${columnSet}`),
  'POST /exports': async () => {
    const answer = await call<{ exportId: number }>('POST', '/exports', { selection: selection(), columns: ['title'] });
    exported = answer.body.exportId;
    return answer;
  },
  'GET /exports': () => get('/exports'),
  'GET /exports/{id}': () => get(`/exports/${exported}`),
  'GET /exports/{id}/file': async () => {
    const { status, type, bytes } = await download(`/exports/${exported}/file?format=ndjson`);
    expect(type).toBe('application/x-ndjson');
    expect(JSON.parse(bytes.toString('utf8').split('\n')[0] ?? '')).toHaveProperty('title');
    return { status, body: bytes.toString('utf8') };
  },
  // Bringing in
  'POST /accounts/{id}/found': async () => {
    gathered = await askingGathering();
    return post(`/accounts/${await accountOf('Hallowick')}/found`);
  },
  'GET /found': async () => get(`/found?account=${await accountOf('Hallowick')}&only=in&state=live&q=a&limit=5`),
  'GET /found/matches': async () => {
    const account = await accountOf('Hallowick');
    const { body } = await call<{ found: { id: number }[] }>('GET', `/found?account=${account}&limit=5`);
    expect((await get(`/found/matches?account=${account}&ids=1,x`)).status).toBe(422);
    return get(`/found/matches?account=${account}&ids=${body.found.map((one) => one.id).join()}`);
  },
  'POST /gatherings': async () => {
    // What is in already is refused, whoever asks.
    const { body } = await call<{ found: { id: number }[] }>(
      'GET',
      `/found?account=${await accountOf('Hallowick')}&only=in&limit=5`,
    );
    const ids = body.found.map((one) => one.id);
    expect((await call('POST', '/gatherings', { choices: [{ ids }], mode: 'at-once' })).status).toBe(422);
    return call('POST', '/gatherings', { choices: [{ ids: await oneFound() }], mode: 'one-by-one' });
  },
  'GET /gatherings': () => get('/gatherings'),
  'GET /gatherings/{id}': () => get(`/gatherings/${gathered}`),
  'PUT /match-questions/{id}': async () => {
    const { body } = await call<{ questions: { id: number }[] }>('GET', `/gatherings/${gathered}`);
    return call('PUT', `/match-questions/${body.questions[0]?.id}`, { answer: 'same' });
  },
  'POST /gatherings/{id}/go-on': async () => {
    const answer = await post(`/gatherings/${gathered}/go-on`);
    await settled(gathered);
    return answer;
  },
  'GET /gatherings/{id}/sitting/{item}': () => get(`/gatherings/${gathered}/sitting/${item.id}`),
  'POST /gatherings/{id}/sitting/{item}': () => post(`/gatherings/${gathered}/sitting/${item.id}`),
  'POST /imports': async () => {
    const answer = await sendFile('one.csv', `sku,title\n${item.sku},${unique} from a file\n`);
    imported = answer.id;
    return { status: answer.status, body: { id: answer.id } };
  },
  'GET /imports': () => get('/imports'),
  'GET /imports/{id}': () => get(`/imports/${imported}`),
  'PATCH /imports/{id}': () => call('PATCH', `/imports/${imported}`, { options: { createNew: false } }),
  'POST /imports/{id}/check': () => post(`/imports/${imported}/check`),
  'GET /imports/{id}/rows': () => get(`/imports/${imported}/rows?kind=change`),
  'GET /imports/{id}/consequences': async () => {
    const { status, bytes } = await download(`/imports/${imported}/consequences`);
    const lines = bytes.toString('utf8').trimEnd().split('\n');
    const body: unknown = JSON.parse(lines.at(-1) ?? 'null');
    expect((await describedInterface()).faults('GET', `/imports/${imported}/consequences`, status, body)).toEqual([]);
    expect(body).toMatchObject({ changed: 1, isWhole: true });
    return { status, body };
  },
  'PATCH /imports/{id}/rows': () => call('PATCH', `/imports/${imported}/rows`, { lines: [2], leftOut: false }),
  'POST /imports/{id}/apply': () => post(`/imports/${imported}/apply`, { send: false }),
  'GET /imports/{id}/report': async () => {
    const { status, bytes } = await download(`/imports/${imported}/report`);
    return { status, body: bytes.toString('utf8') };
  },
  // Sync
  'GET /drift': async () => {
    await quiet(item.id);
    await control('hallowick', 'change', {
      listing: (await thereOf(item.sku)).id,
      set: { heading: 'Their own words for it' },
    });
    await post(`/accounts/${hallowick}/compare`);
    return get(`/drift?item=${item.id}`);
  },
  'POST /accounts/{id}/compare': () => post(`/accounts/${oakhand}/compare`),
  'PUT /accounts/{id}/drift-rules': () => put(`/accounts/${shopfront}/drift-rules`, { field: '*', answer: null }),
  'POST /drift/settle': async () => {
    const { body } = await call<{ listings: { listingId: number; fields: { field: string }[] }[] }>(
      'GET',
      `/drift?item=${item.id}`,
    );
    const [one] = body.listings;
    return post('/drift/settle', {
      which: { listing: one?.listingId, fields: one?.fields.map(({ field }) => field) },
      side: 'ours',
    });
  },
  'GET /gone': async () => {
    await live(other.id, hallowick);
    await control('hallowick', 'remove', { listing: (await thereOf(other.sku)).id });
    await post(`/accounts/${hallowick}/compare`);
    return until(
      () => call<{ gone: { itemId: number }[] }>('GET', '/gone'),
      ({ body }) => body.gone.some((one) => one.itemId === other.id),
    );
  },
  'POST /gone/settle': async () => {
    const listing = await listingId(other.id, hallowick);
    return post('/gone/settle', { listings: [listing], how: 'end' });
  },
  // Outbox
  'GET /progress': () => get('/progress'),
  'GET /jobs': () => get(`/jobs?item=${item.id}`),
  'GET /runs': () => get('/runs'),
  'POST /jobs/skip': async () => {
    await post('/accounts/hold', { accounts: [shopfront], stopped: true });
    await publishItems([item.id], [shopfront]);
    const { body } = await call<{ jobs: { id: number; runId: number }[] }>(
      'GET',
      `/jobs?item=${item.id}&account=${shopfront}`,
    );
    run = body.jobs[0]?.runId ?? 0;
    await post(`/runs/${run}/stop`);
    const answer = await post('/jobs/skip', { jobs: [body.jobs[0]?.id] });
    await post('/accounts/hold', { accounts: [shopfront], stopped: false });
    return answer;
  },
  'POST /runs/{id}/stop': () => post(`/runs/${run}/stop`),
  'POST /runs/{id}/resume': () => post(`/runs/${run}/resume`),
  'POST /jobs/retry': async () => {
    // An open offer blocks the ending: it is tried on, and can be tried at once by hand.
    const offered = await readyItem();
    await live(offered.id, pippet);
    const [there] = await marketListings('pippet', offered.sku);
    await control('pippet', 'offer', { listing: there?.id, amount: 9_000 });
    await post('/listings/end', { selection: { kind: 'items', ids: [offered.id] }, accounts: [pippet] });
    type Blocked = { id: number; message: string | null };
    const [blocked] = await until(
      async () => (await call<{ jobs: Blocked[] }>('GET', `/jobs?item=${offered.id}&state=waiting`)).body.jobs,
      ([job]) => job?.message?.includes('open offer') === true,
    );
    // While the offer stays open; once it is settled the ending goes through by itself.
    const answer = await until(
      () => post('/jobs/retry', { jobs: [blocked?.id] }),
      ({ status }) => status < 300,
    );
    await control('pippet', 'withdraw', { listing: there?.id });
    return answer;
  },
  'GET /unsent': () => get('/unsent?limit=3'),
  'POST /unsent/send': async () => {
    await quiet(item.id);
    const { version } = (await sheet(item.id)).item;
    await call('PATCH', `/items/${item.id}`, { baseVersion: version, patch: { price: 17_700 } });
    return post('/unsent/send', { all: true, fields: ['price'] });
  },
  'GET /causes': () => get('/causes'),
  'POST /audit': () => post('/audit', {}),
  'GET /audit': () => get('/audit'),
  'POST /publish/later': async () => {
    const answer = await call<{ id: number }>('POST', '/publish/later', {
      publish: { ...published(), as: 'draft' },
      at: new Date(Date.now() + 3_600_000).toISOString(),
      title: `${unique} later`,
    });
    scheduled = answer.body.id;
    return answer;
  },
  'GET /scheduled': () => get('/scheduled'),
  'GET /tasks': () => get('/tasks'),
  'POST /tasks/{id}/stop': () => post(`/tasks/${scheduled}/stop`),
  'POST /tasks/{id}/resume': () => post(`/tasks/${scheduled}/resume`),
  'POST /scheduled/{id}/cancel': async () => {
    // What was stopped and let go on is due at once: called off is what waits for its time.
    const at = new Date(Date.now() + 86_400_000).toISOString();
    const later = await call<{ id: number }>('POST', '/publish/later', {
      publish: published(),
      at,
      title: `${unique} called off`,
    });
    return post(`/scheduled/${later.body.id}/cancel`);
  },
  'POST /listings/end/count': () => post('/listings/end/count', { selection: selection() }),
  'POST /listings/end': async () => {
    const answer = await call<{ runId: number }>('POST', '/listings/end', {
      selection: selection(),
      accounts: [hallowick],
    });
    ended = answer.body.runId;
    return answer;
  },
  'POST /runs/{id}/back': async () => {
    await until(
      () => stateOn(item.id, hallowick),
      (state) => state === 'ended',
    );
    return post(`/runs/${ended}/back`);
  },
  'GET /live': async () => {
    const off = new AbortController();
    const answer = await fetch(`${stack.base}/api/v1/live`, {
      headers: { authorization: `Bearer ${stack.token}` },
      signal: off.signal,
    });
    const reader = answer.body?.pipeThrough(new TextDecoderStream()).getReader();
    let heard = '';
    while (!/^data: .*\n\n/m.test(heard)) heard += (await reader?.read())?.value ?? '';
    off.abort();
    const body: unknown = JSON.parse(/^data: (.*)$/m.exec(heard)?.[1] ?? 'null');
    expect((await describedInterface()).faults('GET', '/live', answer.status, body)).toEqual([]);
    return { status: answer.status, body };
  },
  // Labels
  'POST /labels/preview': () => post('/labels/preview', labelsOf()),
  'POST /labels/file': async () => {
    const answer = await fetch(`${stack.base}/api/v1/labels/file`, {
      method: 'POST',
      headers: { authorization: `Bearer ${stack.token}`, 'content-type': 'application/json' },
      body: JSON.stringify(labelsOf()),
    });
    expect(
      Buffer.from(await answer.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
    return { status: answer.status, body: null };
  },
  'POST /labels/print': async () => {
    const answer = await call<{ id: number }>('POST', '/labels/print', labelsOf());
    printJob = answer.body.id;
    return answer;
  },
  'GET /labels/queue': () => get('/labels/queue'),
  'POST /labels/queue/{id}/stop': () => post(`/labels/queue/${printJob}/stop`),
  // Batches
  'POST /batches': async () => {
    const answer = await call<{ id: number }>('POST', '/batches', { name: `${unique} pile`, totalCost: 1_000 });
    batch = answer.body.id;
    return answer;
  },
  'GET /batches': () => get('/batches?state=open'),
  'GET /batches/{id}': () => get(`/batches/${batch}`),
  'PATCH /batches/{id}': () => call('PATCH', `/batches/${batch}`, { baseVersion: 1, invoice: unique }),
  'POST /batches/{id}/acts': async () => {
    const scan = scanOf(item.sku, { grade: 'good' });
    const answer = await call<{ done: { lines: { id: number }[] }[] }>('POST', `/batches/${batch}/acts`, {
      acts: [scan],
    });
    batchLine = answer.body.done[0]?.lines[0]?.id ?? 0;
    return answer;
  },
  'GET /batches/{id}/lines': () => get(`/batches/${batch}/lines?open=false`),
  'GET /batch-lines/{id}/offers': () => get(`/batch-lines/${batchLine}/offers`),
  'POST /batches/{id}/share': () => post(`/batches/${batch}/share`),
  'PUT /intake-presets': async () => {
    const answer = await call<{ id: number }>('PUT', '/intake-presets', { name: unique, settings: settingsWith() });
    preset = answer.body.id;
    return answer;
  },
  'GET /intake-presets': () => get('/intake-presets'),
  'DELETE /intake-presets/{id}': () => call('DELETE', `/intake-presets/${preset}`),
  // Sets that are broken up
  'POST /kits': async () => {
    const made = await call<{ id: number }>('POST', '/kits', { name: `${unique} taken apart`, totalCost: 1_000 });
    kit = made.body.id;
    return made;
  },
  'GET /kits': () => get('/kits?limit=5'),
  'GET /kits/accounts': () => get('/kits/accounts'),
  'GET /kits/{id}': () => get(`/kits/${kit}`),
  'PATCH /kits/{id}': () => call('PATCH', `/kits/${kit}`, { baseVersion: 1, supplier: unique }),
  'POST /kits/{id}/contents': () =>
    post(`/kits/${kit}/contents`, { from: { is: 'text', text: '2 x tray\ntray (spare)' }, times: 2, with: ['spare'] }),
  'GET /kits/{id}/lots': () => get(`/kits/${kit}/lots?limit=5`),
  'PATCH /kits/{id}/lots': async () =>
    call('PATCH', `/kits/${kit}/lots`, { lots: [{ id: await firstLot(), baseVersion: 1, set: { price: 450 } }] }),
  'POST /kits/{id}/apart': async () => post(`/kits/${kit}/apart`, { how: 'joined', lot: await firstLot(), at: 1 }),
  'POST /kits/{id}/steps': async () => {
    const { lots } = (await call<{ lots: { id: number; version: number }[] }>('GET', `/kits/${kit}/lots`)).body;
    return post(`/kits/${kit}/steps`, {
      lots: lots.map(({ id, version }) => ({ id, baseVersion: version })),
      steps: [{ field: 'location', do: { verb: 'set', value: 'A1' } }],
    });
  },
  'POST /kits/{id}/places': () => post(`/kits/${kit}/places`, { places: ['A1', 'A2'] }),
  'POST /kits/{id}/compared': () => post(`/kits/${kit}/compared`),
  'POST /kits/{id}/stock': () => post(`/kits/${kit}/stock`, {}),
  'POST /kits/{id}/there': async () => {
    await until(
      () => kitOf(kit),
      (now) => now.task?.state === 'done',
    );
    const [lot] = await lotsIn(kit);
    const set = { place: 'B2' };
    await call('PATCH', `/kits/${kit}/lots`, { lots: [{ id: lot?.id, baseVersion: lot?.version, set }] });
    return post(`/kits/${kit}/there`, {});
  },
  'POST /kits/{id}/pricing': async () => {
    const catalogued = await newKit({ account: await lotAccount() });
    await putContents(catalogued, { entry: 'LB4033' });
    return post(`/kits/${catalogued}/pricing`, { how: { days: 90 } });
  },
  'POST /kits/{id}/worth': async () => {
    const catalogued = await newKit({ account: await lotAccount() });
    return post(`/kits/${catalogued}/worth`, { sets: 1, wholePrice: null, entry: 'LB4033' });
  },
  'POST /kits/{id}/whole': async () => {
    const others = (await lotsIn(kit)).filter((lot) => lot.state !== 'done');
    const lots = others.map(({ id, version }) => ({ id, baseVersion: version, set: { state: 'out' } }));
    await until(
      () => kitOf(kit),
      (now) => now.task?.state === 'done',
    );
    if (lots.length) await call('PATCH', `/kits/${kit}/lots`, { lots });
    return post(`/kits/${kit}/whole`, { title: `${unique} whole`, sets: 1, price: 900 });
  },
  // Artwork
  'POST /artworks': async () => {
    const answer = await fetch(`${stack.base}/api/v1/artworks`, {
      method: 'POST',
      headers: { authorization: `Bearer ${stack.token}`, 'content-type': 'image/jpeg', 'x-file-name': 'quay.jpg' },
      body: new Uint8Array(await jpeg(700, `#${String(Date.now() % 1_000_000).padStart(6, '0')}`)),
    });
    const body = (await answer.json()) as { itemId: number };
    artwork = body.itemId;
    return { status: answer.status, body };
  },
  'GET /artworks': () => get('/artworks?limit=5'),
  'PUT /artworks/{id}/grounds': () => put(`/artworks/${artwork}/grounds`, { grounds: ['White'] }),
  'PUT /artworks/{id}/placing': () => put(`/artworks/${artwork}/placing`, { product: 'Mug', placing: { scale: 0.8 } }),
  'PUT /artworks/{id}/looks': () =>
    put(`/artworks/${artwork}/looks`, { looks: [{ product: 'Mug', ground: 'White', verdict: 'good' }] }),
  'PUT /artworks/{id}/details': () => put(`/artworks/${artwork}/details`, { leave: ['title'] }),
  'POST /artworks/{id}/twin': () => post(`/artworks/${artwork}/twin`, { how: 'keep' }),
  'POST /artworks/details': async () => {
    const answer = await fetch(`${stack.base}/api/v1/artworks/details`, {
      method: 'POST',
      headers: { authorization: `Bearer ${stack.token}`, 'x-file-name': 'quay.xmp' },
      body: sidecar({ title: 'Quay', description: '', tags: [], audience: '', grounds: [] }),
    });
    return { status: answer.status, body: await answer.json() };
  },
  'GET /artworks/offers': () => get('/artworks/offers'),
  'GET /artworks/sights': () => get('/artworks/sights?limit=5'),
  'GET /artworks/earnings': () => get('/artworks/earnings?days=30'),
  'GET /needs': () => get('/needs'),
  'POST /needs/later': async () => {
    const answer = await post('/needs/later', { need: `${unique}-need`, days: 1, why: 'looked at' });
    await post('/needs/later', { need: `${unique}-need`, days: 0 });
    return answer;
  },
  'GET /insights': () => get('/insights?from=2026-01-01&to=2026-06-30&view=best&by=item'),
  'GET /insights/items': () => get('/insights/items?from=2026-01-01&to=2026-06-30'),
  'GET /insights/file': async () => {
    const { status, type, bytes } = await download(
      '/insights/file?from=2026-01-01&to=2026-06-30&view=stock&table=ages&format=json',
    );
    expect(type).toBe('application/json');
    expect(bytes.toString('utf8')).toContain('Up to 30 days');
    return { status, body: bytes.toString('utf8') };
  },
  'POST /artworks/prints': () => post('/artworks/prints', {}),
  'GET /artworks/{id}/print': async () => {
    const wallfolk = await accountOf('Wallfolk');
    const { body } = await call<{ id: number }>('POST', '/templates', {
      name: `${unique} prints`,
      accounts: [wallfolk],
      fields: {},
      print: {
        pieces: [{ product: 'Mug', area: null, price: 1_400, grounds: [] }],
        placing: null,
        background: null,
      },
    });
    const answer = await fetch(`${stack.base}/api/v1/artworks/${artwork}/print?account=${wallfolk}&product=Mug`, {
      headers: { authorization: `Bearer ${stack.token}` },
    });
    const file = await answer.arrayBuffer();
    await call('DELETE', `/templates/${body.id}`);
    return { status: answer.status, body: file };
  },
  'GET /artworks/{id}/file': async () => {
    const answer = await fetch(`${stack.base}/api/v1/artworks/${artwork}/file`, {
      headers: { authorization: `Bearer ${stack.token}` },
    });
    return { status: answer.status, body: await answer.arrayBuffer() };
  },
  // Consignments
  'POST /consignments': async () => {
    consignment = await newConsignment({ name: `${unique} sent in` });
    return get(`/consignments/${consignment}`);
  },
  'GET /consignments': () => get('/consignments?limit=5'),
  'GET /consignments/stock': () => get('/consignments/stock'),
  'GET /consignments/accounts': () => get('/consignments/accounts'),
  'GET /consignments/{id}': () => get(`/consignments/${consignment}`),
  'PATCH /consignments/{id}': () => call('PATCH', `/consignments/${consignment}`, { baseVersion: 1, prep: unique }),
  'POST /consignments/{id}/units': async () => {
    const { batch: pile } = await shelfOf(1, 3);
    return post(`/consignments/${consignment}/units`, { batch: pile });
  },
  'POST /consignments/{id}/plans': async () => {
    const answer = await call<{ planId: string }>('POST', `/consignments/${consignment}/plans`, {});
    plan = answer.body.planId;
    return answer;
  },
  'POST /consignments/{id}/take': () => post(`/consignments/${consignment}/take`, { plan }),
  'POST /consignments/{id}/packed': async () => {
    const { shipments } = await consignmentOf(consignment);
    [shipment, otherShipment, lastShipment] = shipments.map((one) => one.id);
    const sku = shipments[0]?.units[0]?.sku;
    for (let unit = 0; unit < 2; unit++)
      await post(`/consignments/${consignment}/packed`, { key: randomUUID(), text: sku });
    return post(`/consignments/${consignment}/packed`, { key: randomUUID(), text: sku });
  },
  'PUT /shipments/{id}/boxes': async () => {
    const { shipments } = await consignmentOf(consignment);
    const { version = 0, boxes = [] } = shipments[0] ?? {};
    return call('PUT', `/shipments/${shipment}/boxes`, {
      baseVersion: version,
      boxes: boxes.map(({ code: _code, ...box }) => ({ ...box, grams: 2_000, millimetres: [300, 200, 200] })),
    });
  },
  'POST /shipments/{id}/contents': async () => {
    const other = (await consignmentOf(consignment)).shipments[1];
    const text = `stock number,box,units\n${other?.units[0]?.sku},1,1`;
    return post(`/shipments/${otherShipment}/contents`, { baseVersion: other?.version, text });
  },
  'POST /shipments/{id}/off': () => post(`/shipments/${lastShipment}/off`),
  'POST /shipments/{id}/tell': () => post(`/shipments/${shipment}/tell`),
  'GET /shipments/{id}/quotes': () => get(`/shipments/${shipment}/quotes`),
  'GET /shipments/{id}/papers': async () => {
    const answer = await fetch(`${stack.base}/api/v1/shipments/${shipment}/papers?of=list`, {
      headers: { authorization: `Bearer ${stack.token}` },
    });
    expect(
      Buffer.from(await answer.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-');
    return { status: answer.status, body: null };
  },
  'POST /shipments/{id}/ship': () =>
    post(`/shipments/${shipment}/ship`, { carrier: 'Ferrow', postage: 500, tracking: ['T-1'] }),
  'POST /shipments/{id}/follow': async () => {
    const { shipments } = await consignmentOf(consignment);
    const { remoteId, units } = shipments[0] ?? {};
    await control('crateway', 'receive', { shipment: remoteId, short: `${units?.[0]?.sku}:1` });
    return post(`/shipments/${shipment}/follow`);
  },
  'POST /shipments/{id}/claims': async () => {
    const sku = (await consignmentOf(consignment)).shipments[0]?.units[0]?.sku;
    return post(`/shipments/${shipment}/claims`, { sku, quantity: 1, note: unique });
  },
  'POST /shipments/{id}/lost': async () => {
    const sku = (await consignmentOf(consignment)).shipments[0]?.units[0]?.sku;
    return post(`/shipments/${shipment}/lost`, { sku });
  },
  'POST /consignments/{id}/off': async () => post(`/consignments/${await newConsignment()}/off`),
  // Lists as files
  'GET /jobs/file': () => listed('/jobs/file?state=done', 'stock number', 'account', 'reason'),
  'GET /runs/file': () => listed('/runs/file', 'what', 'by'),
  'GET /runs/{id}/changes/file': () => listed(`/runs/${run}/changes/file`, 'before', 'made', 'now'),
  'GET /causes/file': () => listed('/causes/file', 'account', 'why', 'mend'),
  'GET /unsent/file': () => listed(`/unsent/file?account=${hallowick}`, 'there', 'wanted'),
  'GET /drift/file': () => listed('/drift/file', 'ours', 'theirs'),
  'GET /gone/file': () => listed('/gone/file', 'sold there'),
  'GET /offers/file': () => listed('/offers/file?state=all', 'offered', 'asked'),
  'GET /links/file': () => listed('/links/file?q=T', 'listing number'),
  'GET /renewals/file': () => listed('/renewals/file?order=longest', 'live since'),
  'GET /batches/file': () => listed('/batches/file', 'supplier'),
  'GET /batches/{id}/lines/file': () => listed(`/batches/${batch}/lines/file`, 'scanned', 'stock number'),
  'GET /consignments/file': () => listed('/consignments/file', 'warehouses'),
  'GET /consignments/stock/file': () => listed('/consignments/stock/file', 'ours', 'theirs'),
  'GET /kits/file': () => listed('/kits/file', 'pieces'),
  'GET /kits/{id}/lots/file': () => listed(`/kits/${kit}/lots/file`, 'entry', 'price'),
  'GET /found/file': () => listed(`/found/file?account=${hallowick}`, 'listing number', 'in as'),
  'GET /photos/flawed/file': () => listed('/photos/flawed/file?flaw=none', 'photos'),
  'GET /artworks/file': () => listed('/artworks/file', 'reads well on'),
  'GET /artworks/earnings/file': () => listed('/artworks/earnings/file?days=30', 'product', 'net'),
  'GET /items/{id}/history/file': () => listed(`/items/${item.id}/history/file`, 'from', 'to'),
  'GET /items/{id}/stock/file': () => listed(`/items/${item.id}/stock/file`, 'units', 'left'),
  'GET /items/{id}/comparables/file': () => listed(`/items/${item.id}/comparables/file?days=180`, 'price'),
  'GET /people/file': () => listed('/people/file', 'who', 'what'),
  // Summaries
  'GET /summaries': () => get('/summaries'),
  'PUT /summaries': () => put('/summaries', { hour: 7, address: null }),
  'POST /summaries/key': () => post('/summaries/key', { what: 'off' }),
  'POST /summaries/now': () => post('/summaries/now'),
  // People
  'GET /me': () => get('/me'),
  'POST /me/leave': async () => callAs(await newPerson('packer'), 'POST', '/me/leave', {}),
  'GET /access': () => get('/access'),
  'POST /sessions/end': async () => callAs(await newPerson('packer'), 'POST', '/sessions/end', {}),
  'POST /tokens': () => post('/tokens', { name: unique }),
  'DELETE /tokens/{id}': async () => {
    await post('/tokens', { name: `${unique} ended` });
    const { tokens } = (await call<{ tokens: { id: number; name: string }[] }>('GET', '/access')).body;
    return call('DELETE', `/tokens/${tokens.find((one) => one.name === `${unique} ended`)?.id}`);
  },
  'GET /people': () => get('/people'),
  'POST /people/invite': () => post('/people/invite', { role: 'packer', forWhom: unique }),
  'POST /people/role': async () => post('/people/role', { id: await idOfNew('packer'), role: 'seller' }),
  'POST /people/remove': async () => post('/people/remove', { id: await idOfNew('packer') }),
  'DELETE /invitations/{id}': async () => {
    await post('/people/invite', { role: 'packer', forWhom: unique });
    const { invitations } = (await call<{ invitations: { id: number }[] }>('GET', '/people')).body;
    return call('DELETE', `/invitations/${invitations[0]?.id}`);
  },
};

test('every endpoint that is described is called here, and nothing else', async () => {
  expect(Object.keys(cases).sort()).toEqual([...(await describedInterface()).names].sort());
});

test('every answer says what it holds: nothing is described as just any object', async () => {
  const described = await describedInterface();
  for (const name of described.names) {
    const { schema } = described.answerOf(name) as { schema: { type?: string; properties?: object } };
    expect([name, schema.type === 'string' || Object.keys(schema.properties ?? schema).length > 0]).toEqual([
      name,
      true,
    ]);
  }
});

test.each(Object.entries(cases))('%s answers as it is described', async (_name, run_) => {
  const { status, body } = await run_();
  expect([status, status < 300 ? null : body]).toEqual([status, null]);
});

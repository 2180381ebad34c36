import { client, control, moveClock, pause, theirs } from '../../support/drive.mjs';

/** Marketplaces that take film and straps: all but the one for pictures. */
const played = [
  'hallowick',
  'pippet',
  'oakhand',
  'swishel',
  'selasar',
  'shopfront',
  'crateway',
  'lotbarn',
  'lanesend',
  'glintfeed',
];
const colours = ['Black', 'Tan'];

async function until(look, fits, ms = 60_000) {
  const end = Date.now() + ms;
  for (;;) {
    const seen = await look();
    if (fits(seen) || Date.now() > end) return seen;
    await pause(200);
  }
}

/** The real side of a history: Netting, the marketplaces and the processes, spoken to from outside. */
export class Shop {
  constructor({ processes, settings, accounts, photo, film, startWorker, stopWorker }) {
    Object.assign(this, { processes, settings, photo, film, startWorker, stopWorker });
    this.accounts = accounts.filter((one) => played.includes(one.market));
    this.call = client(settings);
    this.drive = control(settings);
    this.count = 0;
  }

  /** Two of them take few new listings a day; for many histories in one day they take more. */
  async openWide() {
    for (const market of played) await this.drive(market, 'rule', { path: 'pacing.newPerDay', value: 5_000 });
  }

  account(at) {
    return this.accounts[at % this.accounts.length];
  }

  /** Two kinds: film that fits everywhere, and straps in two colours. */
  async record(varied, quantity) {
    const sku = `H${this.settings.run}-${++this.count}`;
    const row = (value) => ({ values: [value], on: true, sku: '', quantity, price: null, barcode: '' });
    const strap = {
      title: `Leather camera strap ${sku}`,
      brand: 'Brask',
      model: 'Strap',
      category: 'accessories/straps',
      condition: 'very-good',
      conditionNote: 'Light wear.',
      description: '<p>Leather, 110 cm.</p>',
      keywords: ['camera strap'],
      attributes: { Material: 'Leather', Decade: '1970s' },
      weightGrams: 200,
      axes: [{ name: 'Colour', values: colours }],
      variations: colours.map(row),
    };
    const fields = varied ? strap : { ...this.film, conditionNote: '', description: '<p>Fresh.</p>' };
    const { status, body } = await this.call('POST', '/items', {
      fields: { ...fields, sku, price: 4_900, cost: 900 },
      ...(varied ? {} : { quantity }),
    });
    if (status !== 201) throw new Error(`recording was answered with ${status}: ${JSON.stringify(body)}`);
    await this.upload(body.id);
    return { id: body.id, sku };
  }

  async upload(id) {
    for (let tries = 0; ; tries++) {
      const answer = await fetch(`http://127.0.0.1:${this.settings.port}/api/v1/items/${id}/photos`, {
        method: 'POST',
        headers: {
          authorization: `Bearer ${this.settings.token}`,
          'content-type': 'image/jpeg',
          'x-file-name': 'front.jpg',
        },
        body: this.photo,
      }).catch(() => null);
      if (answer?.ok) return;
      // An answer that got lost after the work was done: the same photo twice is refused.
      if ((answer && answer.status < 500) || tries > 100) return;
      await pause(200);
    }
  }

  async item(id) {
    return (await this.call('GET', `/items/${id}`)).body.item;
  }

  liveOf(list, account, sku) {
    return list.filter(
      (one) =>
        one.seller === account.remoteName &&
        (one.state === 'live' || one.state === 'review') &&
        (one.summary.reference === sku || one.summary.reference.startsWith(`${sku}-`)),
    );
  }

  async live(account, sku) {
    return this.liveOf(await theirs(this.settings, account.market), account, sku);
  }

  /** A buyer takes some there; which combination it was stands in the marketplace's own order. */
  async buy(account, sku, quantity, colour) {
    const [listing] = await this.live(account, sku);
    if (!listing) return null;
    const ask = (variant) => this.drive(account.market, 'buy', { listing: listing.id, quantity, variant });
    let answer = await ask(colour ?? '');
    if (answer.error && colour) answer = await ask('');
    return answer.order ? { order: answer.order, market: account.market } : null;
  }

  async kill(name) {
    const pid = this.processes.pid(name);
    if (!pid) return;
    try {
      process.kill(-pid, 'SIGKILL');
    } catch {
      // It was on its way down.
    }
  }

  /** Ended as on an update: with a word, and time to finish. */
  async endPolitely(name) {
    const pid = this.processes.pid(name);
    if (!pid) return;
    try {
      process.kill(pid, 'SIGTERM');
    } catch {
      // It was on its way down.
    }
  }

  clock(ms) {
    return moveClock(this.settings, ms);
  }

  /** Everybody is well again, nothing is open, and all that waits is done. */
  async settle(accounts, items) {
    for (const account of this.accounts) {
      await this.drive(account.market, 'calm');
      await this.drive(account.market, 'lock', { seller: account.remoteName, minutes: 0 });
    }
    for (const { sku } of items)
      for (const account of accounts)
        for (const one of await this.live(account, sku))
          if (one.offers?.length) await this.drive(account.market, 'withdraw', { listing: one.id });
    await this.stopWorker();
    await this.drain(accounts);
    for (const account of accounts) await this.call('POST', `/accounts/${account.id}/compare`, {});
    await this.drain(accounts);
  }

  /** Nothing waits, and what gave up was tried again as a person would. */
  async drain(accounts, ms = 180_000) {
    const end = Date.now() + ms;
    let calm = 0;
    while (Date.now() < end) {
      const { causes } = (await this.call('GET', '/causes')).body;
      const open = causes.filter(
        (one) => one.errorCode !== 'not-ready' && accounts.some((account) => account.id === one.accountId),
      );
      for (const { accountId, message } of open)
        await this.call('POST', '/jobs/retry', { account: accountId, message });
      const left = await this.openJobs(accounts);
      calm = left === 0 && open.length === 0 ? calm + 1 : 0;
      if (calm >= 4) return true;
      await pause(250);
    }
    return false;
  }

  /** What waits or runs, also what is repeated without end and therefore counted as an alarm. */
  async openJobs(accounts) {
    let open = 0;
    for (const state of ['waiting', 'running']) {
      const { jobs } = (await this.call('GET', `/jobs?state=${state}&limit=200`)).body;
      open += jobs.filter((job) => accounts.some((one) => one.id === job.accountId)).length;
    }
    return open;
  }

  /** Waits until every order of a history is known here. */
  async heard(orders) {
    return until(
      async () => {
        const { sales } = (await this.call('GET', '/sales?limit=200')).body;
        const known = new Map(sales.map((one) => [one.orderId, one.state]));
        return orders.filter(({ order, cancelled }) => known.get(order) !== (cancelled ? 'cancelled' : 'paid'));
      },
      (missing) => missing.length === 0,
      150_000,
    );
  }

  async orderOf({ order, market }) {
    const all = await (
      await fetch(`http://127.0.0.1:${this.settings.marketsPort}/control/api/${market}/orders`)
    ).json();
    return all.find((one) => one.id === order);
  }
}

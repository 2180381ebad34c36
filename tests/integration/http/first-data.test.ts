import { comesTo, publishItems, readyItem } from '../../support/items';
import { accountOf, call, control, stack } from '../../support/stack';

let cookie = '';
beforeAll(async () => {
  const answer = await fetch(`${stack.base}/api/auth/sign-in/email`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: stack.base },
    body: JSON.stringify({ email: 'owner@grainhouse.example', password: 'harbour-light-35' }),
  });
  cookie = (answer.headers.get('set-cookie') ?? '').split(';')[0] ?? '';
});

const page = async (path: string) => (await fetch(`${stack.base}${path}`, { headers: { cookie } })).text();
const first = async <T>(path: string, list: string): Promise<T> => {
  const { body } = await call<Record<string, T[]>>('GET', path);
  const [one] = body[list] ?? [];
  if (!one) throw new Error(`${path} has nothing to show`);
  return one;
};

describe('pages hand their first data out from the server', () => {
  test('the inventory, as the address narrows it down', async () => {
    const { sku } = await readyItem();
    expect(await page('/?sort=created&dir=desc')).toContain(sku);
    expect(await page('/?stage=sold')).not.toContain(sku);
  });

  test('an item’s sheet, and what each marketplace gets of it', async () => {
    const { id, sku } = await readyItem({ title: 'Seen at once <b>' });
    for (const path of [`/items/${id}`, `/items/${id}/preview`]) {
      const html = await page(path);
      expect(html).toContain(sku);
      // What was typed is text there, too.
      expect(html).not.toContain('Seen at once <b>');
    }
  });

  test('what needs a person, by its cause', async () => {
    const selasar = await accountOf('Selasar');
    const { id } = await readyItem({ lengthMm: 200, widthMm: 150, heightMm: 120 });
    await control('selasar', 'reject', { reason: 'Two things are in this picture.', pointer: '/name', times: 1 });
    await publishItems([id], [selasar]);
    await comesTo(id, selasar, 'attention', 60_000);
    expect(await page('/attention')).toContain('Two things are in this picture.');
  }, 90_000);

  test.each([
    ['/sales', '/sales?limit=1', 'sales', 'orderId'],
    ['/outbox', '/runs', 'runs', 'title'],
    ['/renewals', '/renewals?limit=1', 'listings', 'sku'],
    ['/links', '/links?limit=1', 'links', 'remoteId'],
    ['/templates', '/templates', 'templates', 'name'],
    ['/postage', '/boxes', 'boxes', 'name'],
    ['/marketplaces', '/accounts', 'accounts', 'remoteName'],
    ['/settings', '/custom-fields', 'fields', 'label'],
  ])('%s', async (path, list, name, field) => {
    const one = await first<Record<string, unknown>>(list, name);
    expect(await page(path)).toContain(String(one[field]).slice(0, 20));
  });

  // A page is rendered beside its layout: what the layout turns away must not have been handed out already.
  test.each(['/', '/sales', '/outbox', '/items/1', '/items/1/preview', '/marketplaces', '/templates', '/links'])(
    '%s hands nothing to somebody who is not signed in',
    async (path) => {
      const answer = await fetch(`${stack.base}${path}`, { redirect: 'manual' });
      expect(answer.headers.get('location')).toContain('/sign-in');
      expect(/"queries\\?":\[\{/.test(await answer.text())).toBe(false);
    },
  );
});

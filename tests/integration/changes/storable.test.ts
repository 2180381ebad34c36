import { readyItem } from '../../support/items';
import { accountOf, call } from '../../support/stack';

type Stored = { item: { title: string; attributes: Record<string, string>; keywords: string[] } };

test('characters that nobody sees come into no item, whichever way it is written', async () => {
  const title = 'Noc\u0000tal\u202E 50\u0007 mm';
  const made = await call<{ id: number }>('POST', '/items', { fields: { title, keywords: ['le\u0001ns'] } });
  const first = (await call<Stored>('GET', `/items/${made.body.id}`)).body.item;
  expect(first).toMatchObject({ title: 'Noctal 50 mm', keywords: ['lens'] });
  const { id } = await readyItem({});
  await call('PATCH', `/items/${id}`, {
    baseVersion: 9_999,
    patch: { title, attributes: { 'mo\u0002unt': 'M4\u009F2' } },
  });
  expect((await call<Stored>('GET', `/items/${id}`)).body.item).toMatchObject({
    title: 'Noctal 50 mm',
    attributes: { mount: 'M42' },
  });
  const steps = [{ field: 'title', do: { verb: 'after', text: ' \u202Elive\u0000' } }];
  const edit = await call('POST', '/edits', { selection: { kind: 'items', ids: [id] }, steps, send: false });
  expect(edit.status).toBeLessThan(300);
  expect((await call<Stored>('GET', `/items/${id}`)).body.item.title).toBe('Noctal 50 mm live');
});

test('nor into a template, nor into what an account adds', async () => {
  const name = `Unseen ${Date.now().toString(36)}`;
  const conditions = [{ field: 'location', op: 'is', value: name }];
  const fields = { footer: 'Sent\u0000 from \u202Ehere' };
  const { id } = (await call<{ id: number }>('POST', '/templates', { name, accounts: [], conditions, fields })).body;
  type Templates = { templates: { id: number; fields: Record<string, string> }[] };
  const { templates } = (await call<Templates>('GET', '/templates')).body;
  expect(templates.find((one) => one.id === id)?.fields).toEqual({ footer: 'Sent from here' });
  await call('DELETE', `/templates/${id}`);
  const account = await accountOf('Oakhand');
  const houseTag = async () =>
    (await call<{ accounts: { id: number; houseTag: string }[] }>('GET', '/accounts')).body.accounts.find(
      (one) => one.id === account,
    )?.houseTag;
  const before = await houseTag();
  await call('PATCH', `/accounts/${account}`, { houseTag: 'har\u0007bour' });
  expect(await houseTag()).toBe('harbour');
  await call('PATCH', `/accounts/${account}`, { houseTag: before ?? '' });
});

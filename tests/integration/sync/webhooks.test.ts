import { eq, sql } from 'drizzle-orm';
import { Webhook } from 'standardwebhooks';
import { closeDatabase, database } from '../../../src/db/client';
import { rowsOf } from '../../../src/db/rows';
import { account, inbox } from '../../../src/db/schema';
import { unseal } from '../../../src/services/access/vault';
import { stack } from '../../support/stack';

let key = '';
let secret = '';
let accountId = 0;

beforeAll(async () => {
  const [row] = await database().select().from(account).where(eq(account.name, 'Hallowick'));
  key = row?.hookKey ?? '';
  secret = unseal<string>(row?.hookSecret ?? '');
  accountId = row?.id ?? 0;
});
afterAll(() => closeDatabase());

const body = JSON.stringify({ type: 'offer', timestamp: new Date().toISOString(), data: { listing: '1', amount: 5 } });
let count = 0;
const newId = () => `msg_test_${process.pid}_${++count}`;

/** An event as a marketplace would send it, or as somebody else would. */
async function send(
  part: { id?: string; at?: Date; signedWith?: string; text?: string; headers?: Record<string, string> } = {},
): Promise<{ status: number; id: string }> {
  const { id = newId(), at = new Date(), signedWith = secret, text = body } = part;
  const answer = await fetch(`${stack.base}/api/webhooks/${key}`, {
    method: 'POST',
    headers: {
      'content-type': 'application/json',
      'webhook-id': id,
      'webhook-timestamp': String(Math.floor(at.getTime() / 1_000)),
      'webhook-signature': new Webhook(signedWith).sign(id, at, body),
      ...part.headers,
    },
    body: text,
  });
  return { status: answer.status, id };
}
const kept = async (id: string): Promise<number> =>
  rowsOf<{ count: number }>(
    await database().execute(sql`select count(*) as count from ${inbox} where message_id = ${`${accountId}/${id}`}`),
  )[0]?.count ?? 0;

test('a signed event is kept once, however often it is told', async () => {
  const { status, id } = await send();
  expect(status).toBe(204);
  expect((await send({ id })).status).toBe(204);
  expect(await kept(id)).toBe(1);
});

test.each([
  [
    'signed with another secret',
    () => send({ signedWith: `whsec_${Buffer.from('another secret, as long').toString('base64')}` }),
  ],
  ['with its body changed on the way', () => send({ text: body.replace('5', '500') })],
  ['replayed hours later', () => send({ at: new Date(Date.now() - 3 * 3_600_000) })],
  ['from tomorrow', () => send({ at: new Date(Date.now() + 24 * 3_600_000) })],
  ['without a signature', () => send({ headers: { 'webhook-signature': '' } })],
  ['with nonsense for a signature', () => send({ headers: { 'webhook-signature': 'v1,bm9uc2Vuc2U=' } })],
  ['with a signature of another version', () => send({ headers: { 'webhook-signature': 'v9,bm9uc2Vuc2U=' } })],
  ['without a time', () => send({ headers: { 'webhook-timestamp': '' } })],
])('an event %s is refused and not kept', async (_what, sent) => {
  const { status, id } = await sent();
  expect(status).toBe(403);
  expect(await kept(id)).toBe(0);
});

test('an event that is too large is refused before it is read', async () => {
  const answer = await fetch(`${stack.base}/api/webhooks/${key}`, { method: 'POST', body: 'x'.repeat(1_200_000) });
  expect(answer.status).toBe(413);
});

test('a signed event that is none is refused', async () => {
  const id = newId();
  const at = new Date();
  const text = JSON.stringify({ hello: 'there' });
  const answer = await fetch(`${stack.base}/api/webhooks/${key}`, {
    method: 'POST',
    headers: {
      'webhook-id': id,
      'webhook-timestamp': String(Math.floor(at.getTime() / 1_000)),
      'webhook-signature': new Webhook(secret).sign(id, at, text),
    },
    body: text,
  });
  expect(answer.status).toBe(422);
  expect(await kept(id)).toBe(0);
});

import { NettingError } from '../../core/errors';
import type { Request, Session } from '../session';
import { lotbarn } from './connector';

/** A Lotbarn that works a batch off while nobody waits for it any more: one line more with every look at its lots. */
function slow() {
  const lots: string[] = [];
  const under: string[] = [];
  let batches = 0;
  const shown = (reference: string) => ({
    id: `L${lots.indexOf(reference)}`,
    link: 'http://127.0.0.1/lot',
    state: 'live',
    reference,
    photos: [],
    createdAt: '2026-01-01T00:00:00.000Z',
    entry: 'LB1',
    condition: 'used',
    cents: 100,
    quantity: 1,
    tiers: [],
    title: 'A part',
  });
  const session: Session = {
    account: `slow-${Math.random()}`,
    async send({ path, lines }: Request) {
      if (path === '/batches') {
        const numbers = (lines as { reference: string }[]).map((one) => one.reference);
        if (++batches === 1) {
          under.push(...numbers);
          throw new NettingError('market-unreachable', 'Lotbarn did not answer', {});
        }
        lots.push(...numbers);
        return numbers.map((reference, index) => ({ line: index + 1, ok: true, lot: shown(reference) }));
      }
      const next = under.shift();
      if (next) lots.push(next);
      return { listings: lots.map(shown), next: null };
    },
  };
  const workOff = () => [...lots, ...under.splice(0)];
  return { session, workOff };
}

test('what they are still working off when the answer fails to come is not sent again', async () => {
  const { session, workOff } = slow();
  const numbers = ['a', 'b', 'c', 'd'];
  const made = await Promise.all(
    numbers.map((sku) =>
      lotbarn.create(session, { content: { sku, price: 100, quantity: 1 }, photoIds: [], idempotencyKey: sku }),
    ),
  );
  expect(made.map((one) => one.sku)).toEqual(numbers);
  expect(workOff().sort()).toEqual(numbers);
}, 30_000);

/** A Lotbarn with these lots, that has forgotten every number that it gave. */
function renumbered(lots: Record<string, unknown>[]) {
  const sent: Record<string, unknown>[] = [];
  const session: Session = {
    account: `renumbered-${Math.random()}`,
    async send({ path, lines }: Request) {
      const shown = lots.map((lot) => ({
        link: 'http://127.0.0.1/lot',
        state: 'live',
        photos: [],
        createdAt: '2026-01-01T00:00:00.000Z',
        cents: 100,
        quantity: 1,
        tiers: [],
        title: 'A part',
        ...lot,
      }));
      if (path !== '/batches') return { listings: shown, next: null };
      return (lines as Record<string, unknown>[]).map((line, index) => {
        sent.push(line);
        const lot = shown.find((one) => (one as { id?: unknown }).id === line.lot);
        return lot ? { line: index + 1, ok: true, lot } : { line: index + 1, ok: false, status: 404 };
      });
    },
  };
  return { session, sent };
}

const lotOf = (id: string, more: Record<string, unknown>) => ({
  id,
  reference: '',
  entry: 'LB1',
  finish: 'black',
  condition: 'used',
  place: 'A1',
  ...more,
});
const meant = {
  sku: 'N-1',
  product: 'LB1',
  'extra.finish': 'black',
  condition: 'used',
  'extra.place': 'A1',
  price: 90,
  quantity: 2,
};
const change = (lots: Record<string, unknown>[]) => {
  const { session, sent } = renumbered(lots);
  const sending = { content: meant, photoIds: [], idempotencyKey: 'k' };
  return { sent, done: lotbarn.change(session, 'OLD', sending, ['price']) };
};

test('a lot whose number is not known any more is found by entry, finish, condition and place, and keeps its new number', async () => {
  const { sent, done } = change([lotOf('L1', { place: 'B2' }), lotOf('L2', {}), lotOf('L3', { reference: 'N-9' })]);
  expect((await done).remoteId).toBe('L2');
  expect(sent.map((line) => line.lot)).toEqual(['OLD', 'L2']);
  const ours = change([lotOf('L1', {}), lotOf('L4', { reference: 'N-1', place: 'Z9' })]);
  expect((await ours.done).remoteId).toBe('L4');
});

test.each([
  ['two are the same', [lotOf('L1', {}), lotOf('L2', {})]],
  ['only one of another of ours is', [lotOf('L1', { reference: 'N-2' })]],
  ['none is', [lotOf('L1', { finish: 'chrome' })]],
])('where %s, nothing is guessed', async (_what, lots) => {
  await expect(change(lots).done).rejects.toMatchObject({ code: 'not-found' });
});

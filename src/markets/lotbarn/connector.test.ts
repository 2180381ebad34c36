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

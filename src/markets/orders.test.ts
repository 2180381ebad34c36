import { hallowick } from './hallowick/connector';
import type { Session } from './session';

const order = {
  id: 'O-1',
  listing: 'H-1',
  reference: 'C1-1',
  title: 'Brask K-2',
  quantity: 1,
  unitPrice: 14_900,
  total: 14_900,
  fee: 900,
  currency: 'EUR',
  buyerTown: 'Marlo',
  createdAt: Date.parse('2026-11-25T10:00:00Z'),
};

test('an order that is written in another way keeps none of the others of its page unheard', async () => {
  const session = {
    send: async () => ({
      orders: [order, { id: 'O-2', state: 'partly-refunded' }, { ...order, id: 'O-3' }],
      serverTime: '2026-11-25T10:05:00Z',
      next: 'O-3',
    }),
  } as unknown as Session; // what is not asked for is not there
  const page = await hallowick.ordersSince(session, new Date(0), null);
  expect(page.orders.map((one) => one.orderId)).toEqual(['O-1', 'O-3']);
  expect(page).toMatchObject({ unread: ['O-2'], next: 'O-3' });
});

import { config } from '../../src/config';
import { control } from '../marketplaces';

/** An order of before, as the marketplace that took it keeps it. */
export type PastOrder = {
  market: string;
  seller: string;
  id: string;
  listing: string;
  reference: string;
  title: string;
  quantity: number;
  unitPrice: number;
  total: number;
  postage: number;
  fee: number;
  currency: string;
  buyerTown: string;
  createdAt: number;
  updatedAt: number;
  state: 'paid' | 'cancelled';
};

/** Tells each marketplace what was bought there before. */
export async function tellPast(orders: readonly PastOrder[]): Promise<void> {
  for (const market of new Set(orders.map((one) => one.market)))
    await control(config.marketsUrl, market, 'past', { orders: orders.filter((one) => one.market === market) });
}

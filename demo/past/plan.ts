import { type Chance, season } from './chance';

const dayMs = 86_400_000;
export const pastDays = 548;

/** Something of which there is one: bought once, offered in several places, sold once; or not at all yet. */
export type Piece = {
  /** Which of the models it is. */
  model: number;
  price: number;
  cost: number;
  boughtAt: Date;
  listedAt: { account: number; at: Date }[];
  cuts: { at: Date; from: number; to: number }[];
  renewedAt: Date[];
  soldAt: Date;
  /** Which of its places sold it, and what became of an order before that was called off. */
  soldIn: number;
  cancelledAt: Date | null;
};

type Model = { price: number | null; cost: number | null };

/**
 * Pieces that came and went: after how long hangs on the price, a lower price and another place help, and what was called off is
 * sold once more.
 * @param accounts so many places to sell in, the largest first
 */
export function planPieces(
  count: number,
  models: readonly Model[],
  accounts: number,
  chance: Chance,
  now: Date,
): Piece[] {
  const pieces: Piece[] = [];
  for (let tries = 0; pieces.length < count && tries < count * 6; tries++) {
    const piece = onePiece(models, accounts, chance, now);
    if (piece && piece.soldAt < now) pieces.push(piece);
  }
  return pieces;
}

function onePiece(models: readonly Model[], accounts: number, chance: Chance, now: Date): Piece | null {
  const model = chance.whole(0, models.length - 1);
  const { price: usual, cost } = models[model] ?? {};
  const first = Math.round(((usual ?? 5_000) * (0.8 + chance.share() * 0.45)) / 100) * 100;
  const boughtAt = new Date(now.getTime() - (4 + chance.share() * (pastDays - 4)) * dayMs);
  const inDays = (days: number) => new Date(boughtAt.getTime() + days * dayMs);
  const readyAfter = 1 + chance.share() * 6;
  // Some go everywhere at once, some only to one place at first.
  const places = [...new Set([chance.whole(0, 3), chance.whole(0, accounts - 1), chance.whole(0, accounts - 1)])];
  const second = chance.share() < 0.45 ? readyAfter : readyAfter + 20 + chance.share() * 50;
  const listedAt = places.map((account, at) => ({ account, at: inDays(at === 0 ? readyAfter : second + at) }));
  const half = first < 5_000 ? 24 : first < 15_000 ? 45 : 90;
  // The chance of each ten days by itself: better after a lower price, in more places, before the holidays.
  let price = first;
  const cuts: Piece['cuts'] = [];
  const renewedAt: Date[] = [];
  for (let day = readyAfter; day < pastDays; day += 10) {
    const at = inDays(day);
    if (at > now) return null;
    if (cuts.length < 3 && day > 50 + cuts.length * 45 && chance.share() < 0.5) {
      const lower = Math.max(500, Math.round((price * 0.9) / 100) * 100);
      if (lower < price) cuts.push({ at, from: price, to: lower });
      price = lower;
    }
    if (day > 60 && renewedAt.length < 4 && chance.share() < 0.18) renewedAt.push(at);
    const here = listedAt.filter((one) => one.at <= at).length;
    const eager =
      season(at, false) *
      (1 + 0.25 * (here - 1)) *
      (cuts.length ? 1.5 : 1) *
      (renewedAt.length ? 1.15 : 1) *
      (day < 40 ? 1.4 : 1);
    if (chance.share() > 1 - 0.5 ** ((10 / half) * eager)) continue;
    const soldAt = new Date(at.getTime() + chance.share() * 9 * dayMs);
    const open = listedAt.flatMap((one, index) => (one.at <= soldAt ? [index] : []));
    const cancelledAt = chance.share() < 0.035 ? new Date(soldAt.getTime() + 1.5 * dayMs) : null;
    return {
      model,
      price,
      cost: Math.round((cost ?? first * 0.45) * (0.75 + chance.share() * 0.5)),
      boughtAt,
      listedAt,
      cuts,
      renewedAt,
      soldAt: cancelledAt ? new Date(cancelledAt.getTime() + 6 * dayMs) : soldAt,
      soldIn: chance.of(open),
      cancelledAt,
    };
  }
  return null;
}

/** What is bought and sold of something that is stocked in quantity, in the order of time. */
export type StockLine = { at: Date; delta: number; account: number | null };

/** Sales of something that is stocked, and purchases whenever little is left; in the end as much is there as is in stock. */
export function planStock(
  perMonth: number,
  inStock: number,
  accounts: number,
  chance: Chance,
  now: Date,
): { opening: number; lines: StockLine[] } {
  const lines: StockLine[] = [];
  let here = inStock;
  let last: StockLine | null = null;
  for (let back = pastDays; back > 1; back--) {
    const at = new Date(now.getTime() - back * dayMs + chance.share() * 0.9 * dayMs);
    if (chance.share() > (perMonth / 30) * season(at, true)) continue;
    const units = Math.min(1 + Math.floor(chance.share() ** 3 * 5), 5);
    if (here - units < 1) {
      last = { at: new Date(at.getTime() - 2 * 3_600_000), delta: Math.max(12, inStock), account: null };
      lines.push(last);
      here += last.delta;
    }
    lines.push({ at, delta: -units, account: chance.whole(0, accounts - 1) });
    here -= units;
  }
  // As much was bought last, or was there at first, as leaves what is in stock now.
  if (last) last.delta += inStock - here;
  return { opening: last ? inStock : inStock + (inStock - here), lines };
}

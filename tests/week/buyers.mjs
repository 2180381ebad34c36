import { pause, theirs } from '../support/drive.mjs';

const calledOff = 0.08;
const sentBack = 0.05;

/**
 * Buyers, until they are told to end: every few seconds somebody buys something somewhere; some call it off, and some
 * send it back.
 */
export function buyers({ settings, drive, markets, random, everyMs, isAway }) {
  let running = true;
  const counted = { bought: 0, calledOff: 0, sentBack: 0 };
  const done = (async () => {
    while (running) {
      await pause(everyMs * (0.4 + random() * 1.2));
      const market = markets[Math.floor(random() * markets.length)];
      if (!running || isAway(market)) continue;
      const list = (await theirs(settings, market).catch(() => [])).filter((one) => one.state === 'live');
      const one = list[Math.floor(random() * list.length)];
      if (!one) continue;
      const { order } = await drive(market, 'buy', { listing: one.id, quantity: 1 }).catch(() => ({}));
      if (!order) continue;
      counted.bought++;
      const what = random();
      if (what < calledOff) {
        await pause(1_500);
        await drive(market, 'cancel', { order });
        counted.calledOff++;
      } else if (what < calledOff + sentBack) {
        await drive(market, 'order-state', { order, state: 'returned' });
        counted.sentBack++;
      }
    }
  })();
  return async () => {
    running = false;
    await done;
    return counted;
  };
}

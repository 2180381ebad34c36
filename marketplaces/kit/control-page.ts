import { escapeHtml, page } from './page';
import type { RoutedMarket } from './routes';
import type { Listing, Market, Order } from './types';
import type { World } from './world';

const look = { paper: '#fff', ink: '#222', accent: '#444', font: 'system-ui, sans-serif', wide: true };
export const controlFrame = {
  name: 'control',
  title: 'Control room',
  line: 'what buyers, marketplaces and chance do',
  look,
};

const shown = 60;

type Field = { name: string; label: string; value?: string; size?: number; hidden?: boolean; choices?: string[] };

const input = ({ name, label, value = '', size = 8, hidden, choices }: Field): string =>
  hidden
    ? `<input type="hidden" name="${name}" value="${escapeHtml(value)}">`
    : choices
      ? `<label>${label} <select name="${name}">${choices.map((one) => `<option>${escapeHtml(one)}</option>`).join('')}</select></label>`
      : `<label>${label} <input name="${name}" value="${escapeHtml(value)}" size="${size}"></label>`;

const action = (market: Market, name: string, button: string, fields: Field[] = []): string =>
  `<form method="post" action="/control/api/${market.name}/${name}">${fields.map(input).join(' ')} <button>${button}</button></form>`;

const money = (cents: number, currency: string) => `${(cents / 100).toFixed(2)} ${currency}`;

/** One listing with its picture, and a button for everything that may happen to it. */
function listingCard(world: World, market: Market, listing: Listing): string {
  const { title, price, quantity, photos, reference } = market.summary(listing.data);
  const { currency } = world.rules(market);
  const own = { name: 'listing', label: '', value: listing.id, hidden: true };
  const deeds = [
    market.timedOf?.(listing.data)
      ? action(market, 'bid', 'Bid as a buyer', [
          own,
          { name: 'amount', label: 'Cents', value: String(price), size: 6 },
        ]) + action(market, 'run-out', 'Let its time run out', [own])
      : action(market, 'buy', 'Buy as a buyer', [own, { name: 'quantity', label: 'How many', value: '1', size: 2 }]),
    ...(market.offersOf
      ? [
          action(market, 'offer', 'Offer less as a buyer', [
            own,
            { name: 'amount', label: 'Cents', value: String(Math.round(price * 0.8)), size: 6 },
            { name: 'words', label: 'Saying', value: 'Would you take this?', size: 16 },
          ]),
          action(market, 'withdraw', 'All offers are settled', [own]),
        ]
      : []),
    action(market, 'change', 'Change it behind the seller’s back', [
      own,
      { name: 'field', label: 'Field', size: 8, choices: Object.keys(listing.data) },
      { name: 'value', label: 'is now', size: 12 },
    ]),
    action(market, 'quantity', 'Change the quantity behind the seller’s back', [
      own,
      { name: 'quantity', label: 'To', value: String(quantity), size: 3 },
    ]),
    listing.state === 'paused'
      ? action(market, 'resume', 'Let it go on', [own])
      : action(market, 'pause', 'Pause it there', [own]),
    action(market, 'rush', 'Orders, all at once', [own, { name: 'times', label: 'How many', value: '100', size: 4 }]),
    action(market, 'remove', 'Take it down', [own]),
  ];
  const picture = photos[0]
    ? `<img loading="lazy" width="96" alt="" src="/${market.name}/photo/${photos[0]}.jpg">`
    : '<span>no picture</span>';
  return `<details><summary>${picture} <b>${escapeHtml(title || reference || listing.id)}</b> ${money(price, currency)}, ${quantity} left,
    ${listing.state}, <code>${escapeHtml(reference)}</code></summary>${deeds.join('')}
    <p><a href="/${market.name}/listing/${listing.id}">As a buyer sees it</a></p></details>`;
}

function orderList(world: World, market: Market): string {
  const orders = world.store.all<Order>(`orders/${market.name}`).slice(-10).reverse();
  if (orders.length === 0) return '<p>No orders yet.</p>';
  return orders
    .map(
      (one) =>
        `<p>${one.id}: ${one.quantity} × ${escapeHtml(one.title)}, ${one.state} ${
          one.state === 'cancelled'
            ? ''
            : action(market, 'cancel', 'Call this order off', [
                { name: 'order', label: '', value: one.id, hidden: true },
              ])
        }</p>`,
    )
    .join('');
}

/** What may happen to a marketplace as a whole. */
function weather(market: Market): string {
  const fault = (kind: string, button: string, fields: Field[]) =>
    action(market, 'fault', button, [{ name: 'kind', label: '', value: kind, hidden: true }, ...fields]);
  const times = { name: 'times', label: 'How often', value: '3', size: 3 };
  const ms = (value: string) => ({ name: 'ms', label: 'Milliseconds', value, size: 7 });
  return [
    fault('slow', 'Answer slowly', [times, ms('3000')]),
    fault('slow', 'Answer beyond any patience', [times, ms('180000')]),
    fault('drop-before', 'Drop the connection before the work', [times]),
    fault('drop-after', 'Drop the connection after the work', [times]),
    fault('cut-short', 'Break the answer off in its middle', [times]),
    fault('error-500', 'Answer that something went wrong', [times]),
    fault('busy-429', 'Answer that it is too much', [times, ms('3000')]),
    fault('token-slow', 'Answer token requests slowly', [times, ms('20000')]),
    action(market, 'odd', 'Show only what was a while ago', [
      { name: 'lagMs', label: 'Milliseconds', value: '3000', size: 6 },
    ]),
    action(market, 'odd', 'Show lists in short pages only', [
      { name: 'mostAtOnce', label: 'At a time', value: '5', size: 3 },
    ]),
    action(market, 'odd', 'Leave these fields as they were', [{ name: 'ignores', label: 'Fields', size: 12 }]),
    action(market, 'odd', 'Take nothing new', [
      { name: 'refuses', label: 'Saying', value: 'Nothing of this kind is taken any more.', size: 24 },
    ]),
    action(market, 'odd', 'Bring orders in another state', [
      { name: 'orderState', label: 'State', value: 'unpaid', size: 10 },
    ]),
    action(market, 'lock', 'Lock the account for a while', [
      { name: 'seller', label: 'Seller', value: 'grainhouse', size: 12 },
      { name: 'minutes', label: 'Minutes', value: '5', size: 3 },
    ]),
    action(market, 'rule', 'Publish another rule', [
      { name: 'path', label: 'Rule', value: 'limits.title', size: 16 },
      { name: 'value', label: 'is now', size: 8 },
    ]),
    ...(market.review
      ? [
          action(market, 'reject', 'Refuse the next in review', [
            { name: 'reason', label: 'Because', value: 'This does not belong here.', size: 24 },
            { name: 'pointer', label: 'About', value: '/images', size: 8 },
            { name: 'times', label: 'How many', value: '1', size: 2 },
          ]),
        ]
      : []),
    ...(market.hasWebhooks
      ? [
          action(market, 'webhooks', 'Tell everything twice and out of order', [
            { name: 'double', label: '', value: 'true', hidden: true },
            { name: 'reorder', label: '', value: 'true', hidden: true },
            { name: 'delayMs', label: 'Later by milliseconds', value: '0', size: 6 },
          ]),
        ]
      : []),
    action(market, 'calm', 'Be calm again'),
  ].join('');
}

/** The control room: a marketplace is chosen, its listings stand there with their pictures, every deed is a named button. */
export function controlPage(world: World, name: string | undefined, query: string): string {
  const market = world.market(name ?? '') ?? world.markets[0];
  if (!market) return page(controlFrame, 'Control room', '<p>There is no marketplace.</p>');
  const words = query.toLowerCase();
  const found = world
    .listings(market.name)
    .filter((one) => one.state === 'live' || one.state === 'paused')
    .filter((one) => {
      const { title, reference } = market.summary(one.data);
      return `${title} ${reference}`.toLowerCase().includes(words);
    })
    .sort((a, b) => b.createdAt - a.createdAt);
  const tabs = world.markets
    .map((one) => (one === market ? `<b>${one.title}</b>` : `<a href="/control?market=${one.name}">${one.title}</a>`))
    .join(' · ');
  return page(
    controlFrame,
    'Control room',
    `<h1>Control room</h1>
    <form method="post" action="/control/api/clock"><p>It is ${new Date(world.now()).toISOString()} here.
    <label>Days <input name="days" value="1" size="3"></label> <button>Move the clock forward by days</button></p></form>
    <nav>${tabs}</nav>
    <section><h2>${market.title}</h2><p>${found.length} listings, rules version ${world.rules(market).version},
    <a href="/${market.name}/">shop window</a></p>
    <form><input type="hidden" name="market" value="${market.name}"><label>Find <input name="q" value="${escapeHtml(query)}"></label> <button>Find</button></form>
    ${found
      .slice(0, shown)
      .map((one) => listingCard(world, market, one))
      .join('')}
    ${found.length > shown ? `<p>The newest ${shown} are shown; find others by name or number.</p>` : ''}
    <h3>The last orders</h3>${orderList(world, market)}
    ${(market as RoutedMarket).controlPart?.(world) ?? ''}
    <h3>What happens to ${market.title} as a whole</h3>${weather(market)}</section>`,
  );
}

import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { type Context, Hono } from 'hono';
import { escapeHtml, page } from './page';
import { buy } from './selling';
import type { Listing, Market } from './types';
import { variantsOf } from './variants';
import type { Deliverer } from './webhooks';
import type { World } from './world';

const money = (minor: number, currency: string) => `${(minor / 100).toFixed(2)} ${currency}`;

/** What a buyer sees: the shop window, a listing, buying it. */
export function publicRoutes(world: World, market: Market, deliverer: Deliverer): Hono {
  const app = new Hono();
  const photo = (id: string | undefined) => (id ? `/${market.name}/photo/${id}.jpg` : '');

  app.get('/', (c) => {
    const query = (c.req.query('q') ?? '').toLowerCase();
    const live = world
      .listings(market.name)
      .filter((listing) => listing.state === 'live' && market.summary(listing.data).title.toLowerCase().includes(query))
      .sort((a, b) => b.createdAt - a.createdAt)
      .slice(0, 120);
    const card = (listing: Listing) => {
      const { title, price, photos } = market.summary(listing.data);
      const picture = photos[0] ? `<img loading="lazy" alt="" src="${photo(photos[0])}">` : '';
      return `<a href="/${market.name}/listing/${listing.id}">${picture}<div>${escapeHtml(title)}</div><div class="price">${money(price, world.rules(market).currency)}</div></a>`;
    };
    const body = live.length
      ? `<div class="grid">${live.map(card).join('')}</div>`
      : '<p>Nothing is on sale here yet.</p>';
    return c.html(
      page(
        market,
        'On sale',
        `<form><input name="q" aria-label="Search" value="${escapeHtml(query)}"> <button>Search</button></form><h1>On sale</h1>${body}`,
      ),
    );
  });

  app.get('/listing/:id', (c) => {
    const listing = world.listing(market.name, c.req.param('id'));
    if (!listing) return c.html(page(market, 'Not found', '<h1>There is no such listing</h1>'), 404);
    const { title, text, price, quantity, photos, reference } = market.summary(listing.data);
    const rules = world.rules(market);
    const facts = Object.entries(listing.data)
      .filter(([, value]) => typeof value !== 'object' && value !== text && value !== title)
      .map(([name, value]) => `<tr><th>${escapeHtml(name)}</th><td>${escapeHtml(String(value))}</td></tr>`)
      .join('');
    const asked = market.asksFor?.(listing.data) ?? '';
    const variants = variantsOf(market, listing.data).filter((one) => one.stock > 0);
    const choice = variants.length
      ? `<label>Which one <select name="variant">${variants.map((one) => `<option>${escapeHtml(one.values.join(' / '))}</option>`).join('')}</select></label> `
      : '';
    const sale =
      listing.state === 'live'
        ? `<form method="post" action="/${market.name}/listing/${listing.id}/buy"><p>${choice}<label>How many <input name="quantity" type="number" value="1" min="1" max="${quantity}"></label> of <span id="available">${quantity}</span>
           <label>Your town <input name="town" value="Marrowby"></label>
           ${market.mayCollect?.(listing.data) ? '<label><input type="checkbox" name="collect" value="true"> I fetch it</label>' : ''}
           ${asked ? `<label>${escapeHtml(asked)} <input name="personal" maxlength="200" required></label>` : ''} <button>Buy now</button></p></form>`
        : `<p class="bad" id="over">${listing.state === 'sold' ? 'Sold' : 'Ended'}</p>`;
    return c.html(
      page(
        market,
        title,
        `<h1>${escapeHtml(title)}</h1><p class="price" id="price">${money(price, rules.currency)}</p>${sale}
        <div class="photos">${photos.map((id, index) => `<img alt="Photo ${index + 1}" src="${photo(id)}">`).join('')}</div>
        ${typeof listing.data.clip === 'string' ? `<video controls width="360" src="/${market.name}/clip/${escapeHtml(listing.data.clip)}.mp4"></video>` : ''}
        <div id="text">${rules.lists.richText ? text.replace(/<(?!\/?(p|br|ul|ol|li|b|strong|i|em|h2|h3)\b)[^>]*>/gi, '') : `<pre>${escapeHtml(text)}</pre>`}</div>
        <table>${facts}</table><p><small>Listing ${listing.id}, seller ${escapeHtml(listing.seller)}, reference ${escapeHtml(reference)}</small></p>`,
      ),
    );
  });

  app.post('/listing/:id/buy', async (c) => {
    const listing = world.listing(market.name, c.req.param('id'));
    if (!listing) return c.text('There is no such listing', 404);
    const form = await c.req.parseBody();
    const order = await buy(
      world,
      deliverer,
      market,
      listing,
      Math.floor(Number(form.quantity) || 1),
      String(form.town || 'Marrowby'),
      String(form.variant ?? ''),
      { collect: form.collect === 'true', personal: typeof form.personal === 'string' ? form.personal : undefined },
    );
    if (typeof order === 'string')
      return c.html(page(market, 'Not sold', `<h1>Not sold</h1><p class="bad">${escapeHtml(order)}</p>`), 409);
    return c.html(
      page(
        market,
        'Thank you',
        `<h1>Thank you</h1><p id="order">Order ${order.id}: ${order.quantity} × ${escapeHtml(order.title)}, ${money(order.total, order.currency)}</p>`,
      ),
    );
  });

  const upload = async (c: Context, file: string, ending: string, type: string) => {
    const id = file.replace(`.${ending}`, '');
    if (!/^[0-9a-f]{24}$/.test(id)) return c.notFound();
    try {
      const bytes = await readFile(join(world.photoFolder, `${market.name}-${id}.${ending}`));
      // A picture may be a PNG under the same name.
      const isPng = bytes[0] === 0x89 && bytes[1] === 0x50;
      return c.body(new Uint8Array(bytes), 200, {
        'content-type': isPng ? 'image/png' : type,
        'cache-control': 'public, max-age=86400',
      });
    } catch {
      return c.notFound();
    }
  };
  app.get('/photo/:file', (c) => upload(c, c.req.param('file'), 'jpg', 'image/jpeg'));
  if (market.clips) app.get('/clip/:file', (c) => upload(c, c.req.param('file'), 'mp4', 'video/mp4'));
  return app;
}

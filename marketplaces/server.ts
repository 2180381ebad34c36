import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import { serve } from '@hono/node-server';
import { Hono } from 'hono';
import { carrierRoutes, rateRoutes } from './carriers/carriers';
import { accessRoutes } from './kit/access';
import { apiRoutes } from './kit/api';
import { passTime } from './kit/clock';
import { controlRoutes } from './kit/control';
import { openApiOf } from './kit/openapi';
import { publicRoutes } from './kit/public';
import { passReviews } from './kit/selling';
import { Store } from './kit/store';
import { Deliverer } from './kit/webhooks';
import { World } from './kit/world';
import { markets } from './list';
import { printerRoutes } from './printer/printer';

const port = Number(process.env.NETTING_MARKETS_PORT ?? 4400);
const host = process.env.NETTING_HOST ?? '127.0.0.1';
const folder = process.env.MARKETS_DATA ?? join(process.env.NETTING_DATA ?? '.data', 'marketplaces');
const photoFolder = join(folder, 'photos');
mkdirSync(photoFolder, { recursive: true });

const world = new World(new Store(join(folder, 'store')), markets, photoFolder);
const deliverer = new Deliverer(world);
// The shop window is linked with and without its last slash.
const app = new Hono({ strict: false });

app.get('/health', (c) => c.json({ ok: true, markets: markets.map((market) => market.name) }));
for (const market of markets) {
  app.get(`/${market.name}/api/openapi.json`, (c) => c.json(openApiOf(market, new URL(c.req.url).origin)));
  app.route(`/${market.name}/api`, apiRoutes(world, market, deliverer));
  app.route(`/${market.name}`, accessRoutes(world, market));
  app.route(`/${market.name}`, publicRoutes(world, market, deliverer));
}
app.route('/carriers', carrierRoutes());
app.route(
  '/rates',
  rateRoutes(() => world.now()),
);
app.route('/printer', printerRoutes(join(folder, 'printer')));
app.route('/control', controlRoutes(world, deliverer));

for (const market of markets) {
  for (const [name, exceptions] of Object.entries(market.firstSellers)) {
    if (!world.seller(market.name, name)) await world.addSeller(market.name, name, 'shop-password', exceptions);
  }
}

const server = serve({ fetch: app.fetch, port, hostname: host }, () =>
  console.log(`marketplaces ready on http://${host}:${port}`),
);
server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(error.code === 'EADDRINUSE' ? `Port ${port} is in use` : error.message);
  process.exit(1);
});
deliverer.start();
const reviews = setInterval(() => void passReviews(world, deliverer), 200);
// What comes by the clock comes by itself: renewals, expiry, the ends of timed sales and of offers.
let isPassing = false;
const clock = setInterval(() => {
  if (isPassing) return;
  isPassing = true;
  void passTime(world, deliverer).finally(() => {
    isPassing = false;
  });
}, 5_000);

const stop = () => {
  deliverer.stop();
  clearInterval(reviews);
  clearInterval(clock);
  server.close();
  void world.store.close().then(() => process.exit(0));
};
process.on('SIGINT', stop);
process.on('SIGTERM', stop);

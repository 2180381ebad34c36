import type { Context, Hono } from 'hono';
import { refuse } from '../../kit/answers';
import { dataOf, numberOf, textOf } from '../../kit/checks';
import { storageFor } from '../../kit/fees';
import type { Product } from '../../kit/products';
import type { Tools } from '../../kit/routes';
import type { Json, SellerEnv } from '../../kit/types';
import { boxProblems, longestMm, mostGrams, readBoxes } from './boxes';
import { type Dispatch, dispatch, dispatchPlace, takeBack } from './dispatch';
import { type Known, makePlan, planPlace, shipmentPlace, takePlan } from './plans';
import { onHand } from './receiving';
import type { Plan, Shipment } from './types';
import { warehouses } from './warehouses';

type Entry = Product & { category: string };
type Asked = Context<SellerEnv>;

/** What is sent in to the warehouses: plans, shipments with their boxes, what has arrived, what lies there. */
export function inboundRoutes(
  app: Hono<SellerEnv>,
  { world, market, once }: Tools,
  catalogue: readonly Entry[],
  demandsOf: (product: Entry) => string[],
): void {
  const entryOf = (id: string) => catalogue.find((one) => one.id === id);
  const known = (id: string): Known | undefined => {
    const found = entryOf(id);
    return found && { id, demands: demandsOf(found), sides: found.sides };
  };
  const bodyOf = async (c: Asked) => dataOf((await c.req.json().catch(() => null)) as Json);
  const own = <T extends { seller: string }>(c: Asked, place: string, id: string): T | undefined => {
    const found = world.store.get<T>(place, id);
    return found?.seller === c.get('seller').name ? found : undefined;
  };
  const gone = (c: Asked, what: string) => refuse(c, market, 404, `There is no such ${what}`);
  const shown = (plan: Plan) => ({
    ...plan,
    state: plan.shipments.length ? 'taken' : plan.expiresAt <= world.now() ? 'lapsed' : 'open',
    createdAt: new Date(plan.createdAt).toISOString(),
    expiresAt: new Date(plan.expiresAt).toISOString(),
  });
  const day = (at: number | null) => (at === null ? null : new Date(at).toISOString());
  const told = (one: Shipment) => {
    const at = warehouses(world).find((warehouse) => warehouse.id === one.warehouse);
    const { shippedAt, receivedAt } = one;
    return {
      ...one,
      closed: at?.closed ?? false,
      address: at?.address ?? [],
      shippedAt: day(shippedAt),
      receivedAt: day(receivedAt),
    };
  };

  app.get('/inbound/warehouses', (c) =>
    c.json({ warehouses: warehouses(world), limits: { grams: mostGrams, millimetres: longestMm } }),
  );
  app.post('/inbound/plans', async (c) => {
    const body = await bodyOf(c);
    const units = Array.isArray(body.units) ? body.units.map(dataOf) : [];
    if (units.length < 1 || units.length > 500)
      return refuse(c, market, 422, 'A plan has 1 to 500 stock numbers', [
        { pointer: '/units', detail: 'A plan has 1 to 500 stock numbers.' },
      ]);
    return once(c, body, async () => {
      const labels = body.labels === 'warehouse' ? ('warehouse' as const) : ('self' as const);
      const plan = await makePlan(world, c.get('seller'), { units, labels, again: textOf(body.again) }, known);
      return c.json(shown(plan), 201);
    });
  });
  app.get('/inbound/plans/:id', (c) => {
    const plan = own<Plan>(c, planPlace, c.req.param('id'));
    return plan ? c.json(shown(plan)) : gone(c, 'plan');
  });
  app.post('/inbound/plans/:id/take', async (c) => {
    const plan = own<Plan>(c, planPlace, c.req.param('id'));
    if (!plan) return gone(c, 'plan');
    const taken = await takePlan(world, plan);
    return typeof taken === 'string' ? refuse(c, market, 409, taken) : c.json({ shipments: taken.map(told) });
  });
  app.get('/inbound/shipments', (c) => {
    const { name } = c.get('seller');
    const all = world.store.all<Shipment>(shipmentPlace).filter((one) => one.seller === name);
    return c.json({ shipments: all.slice(-500).map(told) });
  });
  app.get('/inbound/shipments/:id', (c) => {
    const shipment = own<Shipment>(c, shipmentPlace, c.req.param('id'));
    return shipment ? c.json(told(shipment)) : gone(c, 'shipment');
  });
  app.patch('/inbound/shipments/:id/boxes', async (c) => {
    const shipment = own<Shipment>(c, shipmentPlace, c.req.param('id'));
    if (!shipment) return gone(c, 'shipment');
    if (shipment.state !== 'open') return refuse(c, market, 409, 'It is on its way already');
    const at = warehouses(world).find((one) => one.id === shipment.warehouse);
    if (at?.closed) return refuse(c, market, 409, `${at.name} takes nothing in any more. Ask for a new plan.`);
    const boxes = readBoxes(shipment.id, (await bodyOf(c)).boxes);
    const problems = boxProblems(shipment, boxes, (product) => entryOf(product)?.grams ?? 0);
    if (problems.length) return refuse(c, market, 422, 'The boxes are not right', problems);
    return c.json(told(await world.store.put<Shipment>(shipmentPlace, shipment.id, { ...shipment, boxes })));
  });
  app.post('/inbound/shipments/:id/shipped', async (c) => {
    const shipment = own<Shipment>(c, shipmentPlace, c.req.param('id'));
    if (!shipment) return gone(c, 'shipment');
    if (shipment.state !== 'open') return c.json(told(shipment));
    if (shipment.boxes.length === 0) return refuse(c, market, 409, 'Its boxes are not told yet');
    const body = await bodyOf(c);
    const tracking = Array.isArray(body.tracking) ? body.tracking.map(textOf) : [];
    const boxes = shipment.boxes.map((box, index) => ({ ...box, tracking: tracking[index] || null }));
    if (boxes.some((box) => box.tracking === null))
      return refuse(c, market, 422, 'Every box needs its tracking number', [
        { pointer: '/tracking', detail: 'Every box needs its tracking number.' },
      ]);
    const sent: Shipment = {
      ...shipment,
      boxes,
      carrier: textOf(body.carrier),
      state: 'shipped',
      shippedAt: world.now(),
    };
    return c.json(told(await world.store.put<Shipment>(shipmentPlace, shipment.id, sent)));
  });
  app.post('/inbound/shipments/:id/claims', async (c) => {
    const shipment = own<Shipment>(c, shipmentPlace, c.req.param('id'));
    if (!shipment) return gone(c, 'shipment');
    const body = await bodyOf(c);
    const number = textOf(body.number);
    const quantity = numberOf(body.quantity);
    const line = shipment.received.find((one) => one.number === number);
    const claimed = shipment.claims.filter((one) => one.number === number).reduce((sum, one) => sum + one.quantity, 0);
    const missing = line ? line.expected - line.received - claimed : 0;
    if (quantity < 1 || quantity > missing)
      return refuse(c, market, 422, 'So many are not missing', [
        { pointer: '/quantity', detail: `${Math.max(0, missing)} of ${number} are missing and not claimed yet.` },
      ]);
    const about = entryOf(shipment.units.find((one) => one.number === number)?.product ?? '')?.about ?? 0;
    const claim = {
      number,
      quantity,
      note: textOf(body.note),
      answer: 'open' as const,
      cents: Math.round(about * 0.6) * quantity,
    };
    const claims = [...shipment.claims, claim];
    return c.json(told(await world.store.put<Shipment>(shipmentPlace, shipment.id, { ...shipment, claims })));
  });
  app.post('/inbound/dispatches', async (c) => {
    const body = await bodyOf(c);
    const done = await dispatch(
      world,
      market,
      {
        seller: c.get('seller').name,
        order: textOf(body.order),
        number: textOf(body.number),
        quantity: numberOf(body.quantity),
        town: textOf(body.town),
      },
      entryOf,
    );
    return typeof done === 'string' ? refuse(c, market, 409, done) : c.json(done, 201);
  });
  app.post('/inbound/dispatches/:id/return', async (c) => {
    const one = own<Dispatch>(c, dispatchPlace, c.req.param('id'));
    return one ? c.json(await takeBack(world, one)) : gone(c, 'dispatch');
  });
  app.get('/inbound/stock', (c) => {
    const held = onHand(world, c.get('seller').name);
    const rules = world.rules(market);
    return c.json({
      stock: held.map(({ number, product, warehouse, quantity }) => {
        const entry = entryOf(product);
        return { number, product, warehouse, quantity, monthly: entry ? storageFor(rules, entry, quantity) : 0 };
      }),
    });
  });
}

import { z } from 'zod';
import type { Inbound, InboundPlan, InboundShipment } from '../inbound';
import type { Session } from '../session';

const whole = z.number().int().min(0).max(1_000_000_000);
const name = z.string().min(1).max(80);
const unitsSchema = z.object({ number: name, product: z.string().max(80), quantity: whole });
const planSchema = z.object({
  id: name,
  state: z.enum(['open', 'taken', 'lapsed']),
  placements: z.array(z.object({ warehouse: name, units: z.array(unitsSchema), placing: whole })).max(50),
  labelling: whole,
  refused: z.array(unitsSchema.extend({ reason: z.string().max(300) })),
  expiresAt: z.iso.datetime(),
});
const shipmentSchema = z.object({
  id: name,
  warehouse: name,
  address: z.array(z.string().max(120)).max(8),
  closed: z.boolean(),
  units: z.array(unitsSchema),
  boxes: z.array(z.object({ code: z.string().max(80) })),
  state: z.enum(['open', 'shipped', 'received']),
  received: z.array(z.object({ number: name, expected: whole, received: whole })),
  claims: z.array(
    z.object({
      number: name,
      quantity: whole,
      note: z.string().max(1_000),
      answer: z.enum(['open', 'found', 'paid', 'refused']),
      cents: whole,
    }),
  ),
});
const housesSchema = z.object({
  warehouses: z
    .array(z.object({ id: name, name, address: z.array(z.string().max(120)).max(8), closed: z.boolean() }))
    .max(50),
  limits: z.object({ grams: whole, millimetres: whole }),
});
const stockSchema = z.object({
  stock: z.array(z.object({ number: name, warehouse: name, quantity: whole, monthly: whole })),
});

const asUnits = ({ number, product, quantity }: z.infer<typeof unitsSchema>) => ({
  sku: number,
  productId: product,
  quantity,
});

function asPlan(answer: unknown): InboundPlan {
  const { id, state, placements, labelling, refused, expiresAt } = planSchema.parse(answer);
  return {
    planId: id,
    state,
    placements: placements.map(({ warehouse, units, placing }) => ({ warehouse, units: units.map(asUnits), placing })),
    labelling,
    refused: refused.map((one) => ({ ...asUnits(one), reason: one.reason })),
    expiresAt,
  };
}

function asShipment(answer: unknown): InboundShipment {
  const { id, warehouse, address, closed, units, boxes, state, received, claims } = shipmentSchema.parse(answer);
  return {
    shipmentId: id,
    warehouse,
    address,
    isClosed: closed,
    units: units.map(asUnits),
    boxCodes: boxes.map((one) => one.code),
    state,
    received: received.map(({ number, ...counts }) => ({ sku: number, ...counts })),
    claims: claims.map(({ number, cents, ...claim }) => ({ sku: number, amount: cents, ...claim })),
  };
}

const shipmentPath = (id: string) => `/inbound/shipments/${encodeURIComponent(id)}`;
const post = (session: Session, path: string, body: unknown) => session.send({ method: 'POST', path, body });

/** How stock goes to Crateway's warehouses. */
export const crateInbound: Inbound = {
  async warehouses(session) {
    const { warehouses, limits } = housesSchema.parse(
      await session.send({ method: 'GET', path: '/inbound/warehouses' }),
    );
    return { warehouses: warehouses.map(({ closed, ...one }) => ({ ...one, isClosed: closed })), limits };
  },
  async plan(session, { units, labels, again }, idempotencyKey) {
    const body = {
      units: units.map(({ sku, productId, quantity, expiresOn }) => ({
        number: sku,
        product: productId,
        quantity,
        ...(expiresOn ? { expires: expiresOn } : {}),
      })),
      labels,
      ...(again ? { again } : {}),
    };
    return asPlan(await session.send({ method: 'POST', path: '/inbound/plans', body, idempotencyKey }));
  },
  async take(session, planId) {
    const answer = await post(session, `/inbound/plans/${encodeURIComponent(planId)}/take`, {});
    return z
      .object({ shipments: z.array(z.unknown()) })
      .parse(answer)
      .shipments.map(asShipment);
  },
  read: async (session, id) => asShipment(await session.send({ method: 'GET', path: shipmentPath(id) })),
  async tellBoxes(session, id, boxes) {
    const body = {
      boxes: boxes.map(({ grams, millimetres, contents }) => ({
        grams,
        millimetres,
        contents: contents.map(({ sku, quantity }) => ({ number: sku, quantity })),
      })),
    };
    return asShipment(await session.send({ method: 'PATCH', path: `${shipmentPath(id)}/boxes`, body }));
  },
  ship: async (session, id, given) => asShipment(await post(session, `${shipmentPath(id)}/shipped`, given)),
  claim: async (session, id, { sku, quantity, note }) =>
    asShipment(await post(session, `${shipmentPath(id)}/claims`, { number: sku, quantity, note })),
  async stock(session) {
    const { stock } = stockSchema.parse(await session.send({ method: 'GET', path: '/inbound/stock' }));
    return stock.map(({ number, ...one }) => ({ sku: number, ...one }));
  },
  async dispatch(session, { order, sku, quantity, town }) {
    const { id, cents, tracking } = z
      .object({ id: name, cents: whole, tracking: z.string().max(80) })
      .parse(await post(session, '/inbound/dispatches', { order, number: sku, quantity, town }));
    return { dispatchId: id, amount: cents, tracking };
  },
  async takeBack(session, id) {
    await post(session, `/inbound/dispatches/${encodeURIComponent(id)}/return`, {});
  },
};

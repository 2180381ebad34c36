import { escapeHtml } from '../../kit/page';
import type { Json } from '../../kit/types';
import type { World } from '../../kit/world';
import { shipmentPlace } from './plans';
import { receive, settleClaims } from './receiving';
import type { Shipment } from './types';
import { setClosed, warehouses } from './warehouses';

type Given = Record<string, Json>;

/** `GH-1:1, GH-2:3`: of which numbers how many fewer came. */
const shortOf = (text: string): Map<string, number> =>
  new Map(
    text.split(',').flatMap((part): [string, number][] => {
      const [number = '', count = ''] = part.trim().split(':');
      return number ? [[number, Number(count) || 1]] : [];
    }),
  );

const shipmentOf = (world: World, given: Given) =>
  world.store.get<Shipment>(shipmentPlace, String(given.shipment ?? ''));

/** What happens to goods on their way and in the warehouses. A sentence says why it cannot. */
export const inboundDeeds: Record<string, (world: World, given: Given) => Promise<Json | string>> = {
  async receive(world, given) {
    const shipment = shipmentOf(world, given);
    if (!shipment) return 'There is no such shipment.';
    const done = await receive(world, shipment, shortOf(String(given.short ?? '')));
    return typeof done === 'string' ? done : { received: done.received };
  },
  async claims(world, given) {
    const shipment = shipmentOf(world, given);
    if (!shipment) return 'There is no such shipment.';
    const done = await settleClaims(world, shipment, given.answer === 'found' ? 'found' : 'paid');
    return { claims: done.claims };
  },
  async warehouse(world, given) {
    const done = await setClosed(world, String(given.warehouse ?? ''), String(given.closed) === 'true');
    return done ? { warehouse: done.id, closed: done.closed } : 'There is no such warehouse.';
  },
};

const form = (deed: string, hidden: Record<string, string>, more: string, button: string) =>
  `<form method="post" action="/control/api/crateway/${deed}">${Object.entries(hidden)
    .map(([name, value]) => `<input type="hidden" name="${name}" value="${escapeHtml(value)}">`)
    .join('')}${more} <button>${button}</button></form>`;

/** The warehouses and what is on its way to them, for the control room. */
export function inboundPart(world: World): string {
  const houses = warehouses(world)
    .map(({ id, name, closed }) =>
      form(
        'warehouse',
        { warehouse: id, closed: closed ? 'false' : 'true' },
        `${name} ${closed ? 'is closed' : 'takes goods in'}`,
        closed ? 'Open it again' : 'Close it',
      ),
    )
    .join('');
  const shipments = world.store
    .all<Shipment>(shipmentPlace)
    .filter((one) => one.state === 'shipped' || one.claims.some((claim) => claim.answer === 'open'))
    .slice(-30)
    .map((one) => {
      const count = one.units.reduce((sum, units) => sum + units.quantity, 0);
      const hidden = { shipment: one.id };
      const first = one.units[0]?.number ?? '';
      const deeds =
        one.state === 'shipped'
          ? form('receive', hidden, '', 'All of it arrives') +
            form(
              'receive',
              hidden,
              `<label>Missing <input name="short" value="${escapeHtml(first)}:1" size="16"></label>`,
              'It arrives with some missing',
            )
          : form('claims', { ...hidden, answer: 'found' }, '', 'What was missing is found') +
            form('claims', { ...hidden, answer: 'paid' }, '', 'What is missing is paid for');
      return `<p>${one.id}: ${count} units in ${one.boxes.length} boxes to ${one.warehouse}</p>${deeds}`;
    })
    .join('');
  return `<h3>The warehouses</h3>${houses}${shipments || '<p>Nothing is on its way to them.</p>'}`;
}

import type { World } from '../../kit/world';
import type { Warehouse } from './types';

const place = 'crateway/warehouses';
const first: Omit<Warehouse, 'closed'>[] = [
  { id: 'NW', name: 'Northwick', address: ['Crateway Northwick', 'Gate 4, Ropewalk 12', 'Northwick'] },
  { id: 'HB', name: 'Harbour Bend', address: ['Crateway Harbour Bend', 'Pier Road 3', 'Harbour Bend'] },
  { id: 'SF', name: 'Southfold', address: ['Crateway Southfold', 'Mill Lane 77', 'Southfold'] },
];

/** The three warehouses, and whether each takes goods in just now. */
export const warehouses = (world: World): Warehouse[] =>
  first.map((one) => ({ ...one, closed: world.store.get<Warehouse>(place, one.id)?.closed ?? false }));

/** Closes a warehouse, or opens it again. */
export async function setClosed(world: World, id: string, closed: boolean): Promise<Warehouse | null> {
  const found = warehouses(world).find((one) => one.id === id);
  return found ? world.store.put<Warehouse>(place, id, { ...found, closed }) : null;
}

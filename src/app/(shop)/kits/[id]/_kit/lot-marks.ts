import type { LotView } from '@/services/kits/find-kit';

/** Places that hold more lots than a place takes. */
export function fullPlaces(lots: readonly LotView[], holds: number | null): Set<string> {
  if (holds === null) return new Set();
  const counts = new Map<string, number>();
  for (const { place, state } of lots) if (place && state !== 'out') counts.set(place, (counts.get(place) ?? 0) + 1);
  return new Set([...counts].flatMap(([place, count]) => (count > holds ? [place] : [])));
}

/** A lot in stock that is written otherwise here, or a line of a list of what is there. */
export const isToChange = ({ state, edited, meant }: LotView): boolean =>
  state === 'done' ? edited.length > 0 : state === 'open' && meant === 'change';

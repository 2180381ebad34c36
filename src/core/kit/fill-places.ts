import { nextPlace } from '../batch/place';

/** A series holds so many places at most. */
const mostPlaces = 5_000;

/** The places from one to another, counted on by their last number: A1, A2 … A60; null where the second never comes. */
export function placesBetween(from: string, to: string): string[] | null {
  const places = [from];
  while (places.at(-1) !== to) {
    const next = nextPlace(places.at(-1) ?? '');
    if (next === '' || places.length >= mostPlaces) return null;
    places.push(next);
  }
  return places;
}

/**
 * Gives things places in their order, each place until it is full.
 * @param holds how many a place takes
 * @param taken how many lie there already
 * @returns one place each, null for those that find no room
 */
export function fillPlaces(
  count: number,
  places: readonly string[],
  holds: number,
  taken: ReadonlyMap<string, number>,
): (string | null)[] {
  const given: (string | null)[] = [];
  for (const place of places) {
    for (let room = holds - (taken.get(place) ?? 0); room > 0 && given.length < count; room--) given.push(place);
    if (given.length >= count) return given;
  }
  return [...given, ...Array.from({ length: count - given.length }, () => null)];
}

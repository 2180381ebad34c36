/** Where units lie that are meant for a marketplace's warehouse: set aside here, on their way, there. */
export const afarPlaces = ['aside', 'way', 'there'] as const;
export type AfarPlace = (typeof afarPlaces)[number];
export const afarWords: Record<AfarPlace, string> = {
  aside: 'set aside',
  way: 'on the way',
  there: 'at the warehouse',
};

/** Units of an item that are not for sale from here: `there:7` are those in the warehouse of account 7. As digits. */
export type Elsewhere = Record<string, string>;

const keyOf = (place: AfarPlace, account: number) => `${place}:${account}`;
const read = (text: string | undefined): number => Number.parseInt(text ?? '', 10) || 0;

/** Units at one place of one account. May be below zero where more was sold than had come. */
export const unitsAt = (elsewhere: Elsewhere, place: AfarPlace, account: number): number =>
  read(Object.hasOwn(elsewhere, keyOf(place, account)) ? elsewhere[keyOf(place, account)] : undefined);

/** Every place that is known, with its units. */
export const afarUnits = (elsewhere: Elsewhere): { place: AfarPlace; account: number; units: number }[] =>
  Object.entries(elsewhere).flatMap(([key, text]) => {
    const [name, account] = key.split(':');
    const place = afarPlaces.find((one) => one === name);
    return place && Number(account) > 0 ? [{ place, account: Number(account), units: read(text) }] : [];
  });

/** All that lies elsewhere. */
export const unitsElsewhere = (elsewhere: Elsewhere): number =>
  afarUnits(elsewhere).reduce((sum, one) => sum + one.units, 0);

/** With so many units more (or fewer) at a place; a place without any is not named. */
export function withUnits(elsewhere: Elsewhere, place: AfarPlace, account: number, delta: number): Elsewhere {
  const { [keyOf(place, account)]: _before, ...rest } = elsewhere;
  const units = unitsAt(elsewhere, place, account) + delta;
  return units === 0 ? rest : { ...rest, [keyOf(place, account)]: String(units) };
}

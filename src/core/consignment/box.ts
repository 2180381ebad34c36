/** A box on its way into a warehouse. Contents: stock number → units. Grams and millimetres, null while not measured. */
export type Box = {
  number: number;
  contents: Record<string, number>;
  grams: number | null;
  millimetres: [number, number, number] | null;
  /** Nothing more goes into it. */
  isFull: boolean;
};

/** What a warehouse takes: the most that a box may weigh, and how long its sides may be. */
export type BoxLimits = { grams: number; millimetres: number };

/** Units of a stock number that a shipment is to hold. */
export type ShipmentUnits = { sku: string; quantity: number };

/** What is wrong with the boxes of a shipment, at its place: in a box, or in the shipment as a whole. */
export type BoxFault = { box: number | null; field: 'grams' | 'millimetres' | 'contents'; message: string };

export const emptyBox = (number: number): Box => ({
  number,
  contents: {},
  grams: null,
  millimetres: null,
  isFull: false,
});

export const unitsIn = (box: Pick<Box, 'contents'>): number =>
  Object.values(box.contents).reduce((sum, one) => sum + one, 0);

/** Units of a stock number in all the boxes. */
export const packedOf = (boxes: readonly Pick<Box, 'contents'>[], sku: string): number =>
  boxes.reduce((sum, box) => sum + (Object.hasOwn(box.contents, sku) ? (box.contents[sku] ?? 0) : 0), 0);

/** What the things in a box weigh; those of unknown weight count nothing. */
export const bareGrams = (box: Pick<Box, 'contents'>, gramsOf: (sku: string) => number): number =>
  Object.entries(box.contents).reduce((sum, [sku, units]) => sum + units * gramsOf(sku), 0);

const kilograms = (grams: number) => `${(grams / 1_000).toLocaleString('en')} kg`;

function faultsIn(box: Box, limits: BoxLimits, gramsOf: (sku: string) => number): BoxFault[] {
  const faults: BoxFault[] = [];
  const say = (field: BoxFault['field'], message: string) => faults.push({ box: box.number, field, message });
  const { grams, millimetres, number } = box;
  if (unitsIn(box) === 0) say('contents', `Box ${number} is empty`);
  const bare = bareGrams(box, gramsOf);
  if (grams === null) say('grams', `Box ${number} is not weighed yet`);
  else if (grams > limits.grams)
    say('grams', `Box ${number} weighs ${kilograms(grams)}; at most ${kilograms(limits.grams)} are taken`);
  else if (grams < bare) say('grams', `Box ${number} weighs ${grams} g, what is in it weighs ${bare} g`);
  if (millimetres === null) say('millimetres', `Box ${number} is not measured yet`);
  else if (Math.max(...millimetres) > limits.millimetres)
    say(
      'millimetres',
      `A side of box ${number} is ${Math.max(...millimetres) / 10} cm; at most ${limits.millimetres / 10} cm are taken`,
    );
  return faults;
}

/**
 * What is wrong with the boxes of a shipment: a box that is too heavy, too long, empty, not measured, or lighter than what
 * is in it; and what is packed otherwise than planned. None: each stock number is in the boxes just as often as planned.
 * @param gramsOf what one unit weighs, 0 where that is not known
 */
export function boxFaults(
  planned: readonly ShipmentUnits[],
  boxes: readonly Box[],
  limits: BoxLimits,
  gramsOf: (sku: string) => number,
): BoxFault[] {
  const faults = boxes.flatMap((box) => faultsIn(box, limits, gramsOf));
  const whole = (message: string) => faults.push({ box: null, field: 'contents', message });
  if (boxes.length === 0) whole('There is no box yet');
  for (const { sku, quantity } of planned) {
    const packed = packedOf(boxes, sku);
    if (packed < quantity) whole(`${quantity - packed} of ${sku} ${quantity - packed === 1 ? 'is' : 'are'} not packed`);
    if (packed > quantity) whole(`${packed} of ${sku} are packed, ${quantity} are planned`);
  }
  const known = new Set(planned.map((one) => one.sku));
  for (const sku of new Set(boxes.flatMap((box) => Object.keys(box.contents))))
    if (!known.has(sku) && packedOf(boxes, sku) > 0) whole(`${sku} does not belong into this shipment`);
  return faults;
}

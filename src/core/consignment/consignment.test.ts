import fc from 'fast-check';
import type { Tariff } from '../price/postage';
import { type Box, boxFaults, emptyBox, packedOf, unitsIn } from './box';
import { contentsFromRows } from './contents-rows';
import { costWithWay, ownLabelling, plannedPostage, sharedByUnits } from './cost';
import { closeBox, type Packing, placeUnit, takeOut } from './pack';

const limits = { grams: 23_000, millimetres: 630 };
const weight = () => 500;
const measured = (box: Box): Box => ({ ...box, grams: 20_000, millimetres: [400, 300, 300] });

const unitsOf = fc.uniqueArray(
  fc.record({ sku: fc.stringMatching(/^[A-Z]{1,4}$/), quantity: fc.integer({ min: 1, max: 9 }) }),
  {
    minLength: 1,
    maxLength: 6,
    selector: (one) => one.sku,
  },
);

test('packed unit by unit in any order, the boxes hold just what was planned, and none is too full', () => {
  fc.assert(
    fc.property(
      fc.array(unitsOf, { minLength: 1, maxLength: 3 }),
      fc.integer({ min: 0, max: 5 }),
      fc.integer({ min: 0, max: 2 ** 31 - 1 }),
      (plans, most, seed) => {
        let shipments: Packing[] = plans.map((units, index) => ({ id: index + 1, units, boxes: [] }));
        const scans = plans.flat().flatMap(({ sku, quantity }) => Array.from({ length: quantity }, () => sku));
        const order = scans.map((sku, index) => ({ sku, at: (index * 2_654_435_761 + seed) % 4_294_967_296 }));
        let last: number | null = null;
        for (const { sku } of order.sort((a, b) => a.at - b.at)) {
          const placed = placeUnit(shipments, sku, {
            limits: { grams: 3_000, units: most },
            gramsOf: weight,
            last,
          });
          if (!placed) throw new Error('something was left over');
          last = placed.shipment;
          shipments = shipments.map((one) => (one.id === placed.shipment ? { ...one, boxes: placed.boxes } : one));
        }
        for (const { units, boxes } of shipments) {
          expect(boxFaults(units, boxes.map(measured), limits, weight)).toEqual([]);
          for (const box of boxes) {
            expect(unitsIn(box)).toBeLessThanOrEqual(most || 4); // 4 × 500 g and the box itself are just below 3 kg
            expect(unitsIn(box)).toBeGreaterThan(0);
          }
          expect(boxes.map((box) => box.number)).toEqual(boxes.map((_, index) => index + 1));
        }
        for (const { sku } of order)
          expect(
            placeUnit(shipments, sku, { limits: { grams: 3_000, units: most }, gramsOf: weight, last }),
          ).toBeNull();
      },
    ),
  );
});

test('one hand stays at one box: what several warehouses lack goes where it packed last', () => {
  const shipments = [1, 2].map((id): Packing => ({ id, units: [{ sku: 'A', quantity: 1 }], boxes: [] }));
  const options = { limits: { grams: 23_000, units: 0 }, gramsOf: weight };
  expect(placeUnit(shipments, 'A', { ...options, last: 2 })).toMatchObject({ shipment: 2, box: 1, isNew: true });
  expect(placeUnit(shipments, 'A', { ...options, last: null })).toMatchObject({ shipment: 1 });
  expect(placeUnit(shipments, 'B', { ...options, last: null })).toBeNull();
});

test('a closed box gets nothing more, what is taken out is lacking again', () => {
  const units = [{ sku: 'A', quantity: 3 }];
  const options = { limits: { grams: 23_000, units: 0 }, gramsOf: weight, last: null };
  const one = placeUnit([{ id: 1, units, boxes: [] }], 'A', options);
  const closed = closeBox(one?.boxes ?? []);
  const two = placeUnit([{ id: 1, units, boxes: closed }], 'A', options);
  expect(two).toMatchObject({ box: 2, isNew: true });
  const out = takeOut(two?.boxes ?? [], 1, 'A');
  expect(packedOf(out, 'A')).toBe(1);
  expect(boxFaults(units, out.map(measured), limits, weight).map((fault) => fault.message)).toEqual([
    'Box 1 is empty',
    '2 of A are not packed',
  ]);
});

test('weights that do not add up, sides too long, and what was not planned are said at their place', () => {
  const boxes: Box[] = [
    { ...emptyBox(1), contents: { A: 2, X: 1 }, grams: 900, millimetres: [640, 100, 100] },
    { ...emptyBox(2), contents: { A: 1 }, grams: 23_001, millimetres: null },
    { ...emptyBox(3), contents: { A: 1 } },
  ];
  expect(boxFaults([{ sku: 'A', quantity: 3 }], boxes, limits, weight)).toEqual([
    { box: 1, field: 'grams', message: 'Box 1 weighs 900 g, what is in it weighs 1500 g' },
    { box: 1, field: 'millimetres', message: 'A side of box 1 is 64 cm; at most 63 cm are taken' },
    { box: 2, field: 'grams', message: 'Box 2 weighs 23.001 kg; at most 23 kg are taken' },
    { box: 2, field: 'millimetres', message: 'Box 2 is not measured yet' },
    { box: 3, field: 'grams', message: 'Box 3 is not weighed yet' },
    { box: 3, field: 'millimetres', message: 'Box 3 is not measured yet' },
    { box: null, field: 'contents', message: '4 of A are packed, 3 are planned' },
    { box: null, field: 'contents', message: 'X does not belong into this shipment' },
  ]);
});

test('rows of a file say what is in which box; a row that cannot be meant is named', () => {
  const planned = [{ sku: 'GH-1', quantity: 3 }];
  const before = [{ ...emptyBox(2), grams: 4_000, contents: { 'GH-1': 9 } }];
  expect(
    contentsFromRows(
      [
        ['Box', 'Stock number', 'Units'],
        ['1', 'gh-1', '1'],
        ['2', 'GH-1', '2'],
      ],
      planned,
      before,
    ),
  ).toEqual({
    boxes: [
      { ...emptyBox(1), contents: { 'GH-1': 1 } },
      { ...emptyBox(2), grams: 4_000, contents: { 'GH-1': 2 } },
    ],
  });
  expect(
    contentsFromRows(
      [
        ['box', 'number', 'units'],
        ['x', 'GH-1', '1'],
        ['1', 'GH-9', '1'],
        ['1', 'GH-1', 'two'],
      ],
      planned,
      [],
    ),
  ).toEqual({
    faults: [
      { row: 2, message: '“x” is no number of a box' },
      { row: 3, message: '“GH-9” is not in this shipment' },
      { row: 4, message: '“two” is no number of units' },
    ],
  });
  expect(contentsFromRows([['a', 'b']], planned, [])).toMatchObject({ faults: [{ row: 1 }] });
});

test('what the way cost is shared out to the cent, and borne by every piece', () => {
  fc.assert(
    fc.property(
      fc.nat(1_000_000),
      fc.array(fc.integer({ min: 1, max: 500 }), { minLength: 1, maxLength: 30 }),
      (total, units) => {
        expect(sharedByUnits(total, units).reduce((sum, one) => sum + one, 0)).toBe(total);
      },
    ),
  );
  expect(costWithWay(500, { before: 0, now: 30 }, 4)).toBe(508);
  expect(costWithWay(null, { before: 0, now: 30 }, 4)).toBeNull();
  // Three shipments bear 1.55 each of four pieces: 1.16 a piece, not three times 0.39.
  const [one, two] = [costWithWay(0, { before: 0, now: 155 }, 4), costWithWay(39, { before: 155, now: 155 }, 4)];
  expect([one, two, costWithWay(78, { before: 310, now: 155 }, 4)]).toEqual([39, 78, 116]);
  expect(ownLabelling(40, 12, 1_500)).toBe(200);
});

test('postage of a plan: as few boxes as are allowed, each by the cheapest carrier that takes it', () => {
  const tariff = (id: string, cents: number, upToGrams: number): Tariff => ({
    id,
    name: id,
    volumeDivisor: 5_000,
    steps: [{ upToGrams, cents }],
    bands: { home: 100 },
    longestMm: 1_200,
  });
  const tariffs = [tariff('dear', 1_500, 31_500), tariff('light', 400, 5_000)];
  expect(plannedPostage(30_000, { limit: 23_000, tariffs })).toBe(3_000);
  expect(plannedPostage(3_000, { limit: 23_000, tariffs })).toBe(400);
  expect(plannedPostage(0, { limit: 23_000, tariffs })).toBe(0);
  expect(plannedPostage(3_000, { limit: 23_000, tariffs: [] })).toBeNull();
});

import fc from 'fast-check';
import {
  areaSchema,
  isByHand,
  type Picture,
  type PrintTemplate,
  placingFor,
  placingSchema,
  planWord,
  printPlan,
  readPlacing,
  readPlan,
  soldProduct,
  verdictOn,
  withVerdict,
  writePlacing,
} from '.';

const picture: Picture = {
  width: 4_500,
  height: 5_400,
  visible: { box: { x: 0.1, y: 0.2, width: 0.8, height: 0.5 }, centre: { x: 0.5, y: 0.5 } },
};
const areas = fc
  .record({
    widthMm: fc.integer({ min: 40, max: 900 }),
    heightMm: fc.integer({ min: 40, max: 900 }),
    dots: fc.integer({ min: 4, max: 14 }),
    safeMm: fc.integer({ min: 0, max: 15 }),
    bleedMm: fc.integer({ min: 0, max: 30 }),
    profile: fc.constantFrom('srgb' as const, 'p3' as const),
  })
  .map(({ dots, ...area }) => ({ ...area, widthPx: area.widthMm * dots, heightPx: area.heightMm * dots }));
const placings = fc
  .record({
    x: fc.double({ min: 0, max: 1, noNaN: true }),
    y: fc.double({ min: 0, max: 1, noNaN: true }),
    scale: fc.double({ min: 0.01, max: 2, noNaN: true }),
    degrees: fc.integer({ min: -180, max: 180 }),
    isOptical: fc.boolean(),
  })
  .map((one) => placingSchema.parse(one));

test('a plan as a word reads back the same; no pixels are invented', () => {
  fc.assert(
    fc.property(areas, placings, fc.constantFrom(null, '#efe6d2'), (area, placing, background) => {
      const plan = printPlan(area, picture, placing, background);
      expect(readPlan(planWord(plan))).toEqual(plan);
      expect(plan.at.width).toBeLessThanOrEqual(plan.cut.width + 1);
      const most = Math.ceil((area.widthPx * (area.widthMm + 2 * area.bleedMm)) / area.widthMm) + 1;
      expect(plan.canvas.width).toBeLessThanOrEqual(most);
      expect(plan.canvas.width * plan.canvas.height).toBeLessThan(121_000_000);
    }),
  );
  expect(readPlan('0,0,1,1')).toBeNull();
  expect(
    readPlan(
      `${planWord(printPlan(areaSchema.parse({ widthMm: 100, heightMm: 100, widthPx: 500, heightPx: 500 }), picture, placingSchema.parse({}), null))}x`,
    ),
  ).toBeNull();
});

test('an area of its own measure: the file is as large as is asked for, and the picture lies in its middle', () => {
  const area = areaSchema.parse({ widthMm: 300, heightMm: 400, widthPx: 1_500, heightPx: 2_000, bleedMm: 10 });
  const plan = printPlan(area, picture, placingSchema.parse({ scale: 1 }), null);
  expect(plan.canvas).toEqual({ width: 1_600, height: 2_100 });
  expect(plan.cut).toEqual({ x: 450, y: 1_080, width: 3_600, height: 2_700 });
  expect(plan.at).toEqual({ x: 50, y: 488, width: 1_500, height: 1_125 });
  expect(plan.dots).toBe(127);
});

test('pixels that are no squares: in millimetres it stands where it is placed', () => {
  const area = areaSchema.parse({ widthMm: 300, heightMm: 400, widthPx: 1_500, heightPx: 1_600 });
  const { canvas, at } = printPlan(area, picture, placingSchema.parse({ scale: 1, y: 1 }), null);
  expect(canvas).toEqual({ width: 1_500, height: 1_600 });
  // 300 mm wide, so 225 mm high, at the lower edge.
  expect(at).toEqual({ x: 0, y: 1_150, width: 1_500, height: 900 });
});

test('an area of measures that nobody has makes no file that nothing can hold', () => {
  const huge = areaSchema.parse({ widthMm: 1_000, heightMm: 1_000, widthPx: 20_000, heightPx: 20_000 });
  const { canvas } = printPlan(huge, picture, placingSchema.parse({ scale: 0.01 }), null);
  expect(canvas.width * canvas.height).toBeLessThanOrEqual(120_100_000);
});

test('a placing in words reads back the same, to a ten-thousandth', () => {
  fc.assert(
    fc.property(placings, (placing) => {
      const back = readPlacing(writePlacing(placing));
      expect(back?.isOptical).toBe(placing.isOptical);
      for (const field of ['x', 'y', 'scale', 'degrees'] as const)
        expect(back?.[field]).toBeCloseTo(field === 'scale' ? Math.max(0.01, placing[field]) : placing[field], 3);
    }),
  );
  expect(readPlacing('here')).toBeNull();
});

test('a hand on this product goes before a hand on all, and that before the template', () => {
  const template: Pick<PrintTemplate, 'placing'> = { placing: placingSchema.parse({ scale: 0.5 }) };
  const all = writePlacing(placingSchema.parse({ scale: 0.6 }));
  const mug = writePlacing(placingSchema.parse({ scale: 0.7 }));
  expect(placingFor({ placings: {} }, 'Mug', template).scale).toBe(0.5);
  expect(placingFor({ placings: {} }, 'Mug', null).scale).toBe(0.9);
  expect(placingFor({ placings: { '*': all } }, 'Mug', template).scale).toBe(0.6);
  expect(placingFor({ placings: { '*': all, Mug: mug } }, 'Mug', template).scale).toBe(0.7);
  expect(placingFor({ placings: { '*': all, Mug: mug } }, 'Bag', template).scale).toBe(0.6);
  expect([isByHand({ placings: {} }, 'Mug'), isByHand({ placings: { Mug: mug } }, 'Bag')]).toEqual([false, false]);
  expect(isByHand({ placings: { '*': all } }, 'Bag')).toBe(true);
});

test('what is said of one product and ground is said of no other, and can be taken back', () => {
  const said = withVerdict({}, { product: 'Mug', ground: 'White', verdict: 'off' });
  expect(verdictOn({ looks: said }, 'Mug', 'White')).toBe('off');
  expect(verdictOn({ looks: said }, 'Mug', 'Black')).toBeNull();
  expect(withVerdict(said, { product: 'Mug', ground: 'White', verdict: null })).toEqual({});
});

test('the product of a sale: the longest that is known, else what stands before the last comma', () => {
  const products = ['Mug', 'Mug, large', 'Poster A3'];
  expect(soldProduct('Mug, large, White', products, '')).toBe('Mug, large');
  expect(soldProduct('Mug, White', products, '')).toBe('Mug');
  expect(soldProduct('Cup, White', products, '')).toBe('Cup');
  expect(soldProduct('Cup', products, '')).toBe('Cup');
  expect(soldProduct(null, products, 'Poster A3')).toBe('Poster A3');
});

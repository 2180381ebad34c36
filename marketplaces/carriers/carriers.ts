import { Hono } from 'hono';

/** Two carriers: what a parcel costs by the weight that counts and by how far it goes. */
type Carrier = {
  id: string;
  name: string;
  /** Cubic centimetres that count as one kilogram. */
  volumeDivisor: number;
  steps: { upToGrams: number; cents: number }[];
  /** For each band, hundredths that the price is multiplied by. */
  bands: Record<string, number>;
  longestMm: number;
};

const carriers: Carrier[] = [
  {
    id: 'postline',
    name: 'Postline',
    volumeDivisor: 6_000,
    steps: [
      { upToGrams: 250, cents: 290 },
      { upToGrams: 1_000, cents: 450 },
      { upToGrams: 2_000, cents: 590 },
      { upToGrams: 5_000, cents: 790 },
      { upToGrams: 10_000, cents: 1_090 },
      { upToGrams: 20_000, cents: 1_690 },
    ],
    bands: { near: 100, home: 100, abroad: 240, far: 420 },
    longestMm: 1_200,
  },
  {
    id: 'haulbee',
    name: 'Haulbee',
    volumeDivisor: 5_000,
    steps: [
      { upToGrams: 1_000, cents: 420 },
      { upToGrams: 3_000, cents: 560 },
      { upToGrams: 10_000, cents: 890 },
      { upToGrams: 31_500, cents: 1_490 },
    ],
    bands: { near: 85, home: 100, abroad: 210, far: 460 },
    longestMm: 1_750,
  },
];

const positive = (text: string | undefined) => Math.max(0, Number(text) || 0);

export function carrierRoutes(): Hono {
  const app = new Hono();
  app.get('/api/carriers', (c) =>
    c.json({ carriers: carriers.map(({ id, name, bands }) => ({ id, name, bands: Object.keys(bands) })) }),
  );
  app.get('/api/quote', (c) => {
    const grams = positive(c.req.query('grams'));
    const sides = (c.req.query('millimetres') ?? '').split(',').map(positive);
    const band = c.req.query('band') ?? 'home';
    const [length = 0, width = 0, height = 0] = sides;
    const quotes = carriers.flatMap((carrier) => {
      const volumetric = Math.ceil((length * width * height) / carrier.volumeDivisor);
      const counted = Math.max(grams, volumetric);
      const step = carrier.steps.find((one) => counted <= one.upToGrams);
      const factor = carrier.bands[band];
      if (!step || !factor || Math.max(...sides, 0) > carrier.longestMm) return [];
      return [
        {
          carrier: carrier.id,
          name: carrier.name,
          cents: Math.round((step.cents * factor) / 100),
          countedGrams: counted,
        },
      ];
    });
    return c.json({ currency: 'EUR', band, quotes });
  });
  // How they compute it, for those who want to compute it themselves.
  app.get('/api/tariff', (c) => c.json({ currency: 'EUR', carriers }));
  return app;
}

/** Units of a currency for one euro, in millionths; they wander a little from day to day. */
const perEuro: Record<string, number> = { EUR: 1_000_000, SGD: 1_452_000, USD: 1_083_000, GBP: 853_000 };

export function rateRoutes(now: () => number): Hono {
  const app = new Hono();
  app.get('/api/latest', (c) => {
    const base = c.req.query('base') ?? 'EUR';
    const day = Math.floor(now() / 86_400_000);
    const from = perEuro[base];
    if (!from) return c.json({ title: 'There is no such currency' }, 404);
    const rates = Object.fromEntries(
      Object.entries(perEuro).map(([currency, value]) => {
        const wander = currency === 'EUR' ? 0 : Math.round(value * 0.012 * Math.sin(day / 9 + value));
        return [currency, Math.round(((value + wander) * 1_000_000) / from)];
      }),
    );
    return c.json({ base, date: new Date(day * 86_400_000).toISOString().slice(0, 10), millionths: rates });
  });
  return app;
}

import { markets } from '../../marketplaces/list';
import { NettingError } from '../../src/core/errors';
import { type Content, computeListing } from '../../src/core/listing';
import { driftedFields } from '../../src/core/sync';
import { sampleItem } from '../../src/core/testing.test-data';
import { type Connector, connectors } from '../../src/markets';
import type { Session } from '../../src/markets/session';
import { echo } from './echo.test-data';
import { accountWith, rulesOfAll } from './rules-of-all.test-data';

const item = sampleItem({
  lengthMm: 190,
  widthMm: 130,
  heightMm: 120,
  highlights: ['One', 'Two'],
  retailPrice: 20_000,
  attributes: {
    'Film format': '35 mm',
    Colour: 'Black',
    Decade: '1970s',
    Material: 'Metal',
    Language: 'English',
    Subject: 'Harbour',
  },
  photos: [{ hash: 'a'.repeat(64), width: 2_600, height: 2_600 }],
});

async function contentFor(connector: Connector): Promise<Content> {
  const rules = (await rulesOfAll()).find((one) => one.market === connector.market)?.rules;
  if (!rules) throw new Error(connector.market);
  return computeListing({ item, overrides: {}, account: accountWith(rules) }).content;
}

describe.each(connectors.map((connector) => [connector.name, connector] as const))('%s', (_name, connector) => {
  test('what is created comes back in our fields, with nothing drifted', async () => {
    const content = await contentFor(connector);
    const { session } = echo(connector.market);
    const remote = await connector.create(session, { content, photoIds: ['p1'], idempotencyKey: 'k' });
    expect(remote).toMatchObject({ remoteId: '7', state: 'live', sku: content.sku });
    // Rounding to their units may only make it heavier, and some tell only a class of weight.
    const drifted = driftedFields(content, remote.content).filter(
      (field) => !['weightGrams', 'size', 'quantity'].includes(field),
    );
    expect(drifted).toEqual([]);
    if (typeof remote.content.weightGrams === 'number')
      expect(remote.content.weightGrams).toBeGreaterThanOrEqual(Number(content.weightGrams));
    const [sides, shown] = [content.size, remote.content.size];
    if (Array.isArray(sides) && Array.isArray(shown))
      for (const [at, side] of sides.entries()) {
        expect(Number(shown[at])).toBeGreaterThanOrEqual(Number(side));
        expect(Number(shown[at])).toBeLessThanOrEqual(Number(side) + 3);
      }
  });

  test('everything that is sent is shown back, but for what it says that it hides', async () => {
    const content = await contentFor(connector);
    const { session } = echo(connector.market);
    const remote = await connector.create(session, { content, photoIds: ['p1'], idempotencyKey: 'k' });
    const sent = Object.keys(content).filter(
      (field) => field !== 'photos' && connector.shownWith([field], [field]).length,
    );
    expect(sent.filter((field) => !(field in remote.content)).sort()).toEqual(
      connector.hides.filter((field) => field in content),
    );
  });

  test('a change carries only what was changed', async () => {
    const content = await contentFor(connector);
    const { session, asked } = echo(connector.market);
    const fields = content.price === undefined ? ['description'] : ['price'];
    await connector.change(session, '7', { content, photoIds: [], idempotencyKey: 'k' }, fields);
    const first = asked[0];
    const body = (first?.lines?.[0] ??
      (first?.body as { lines?: { offer: object }[] } | undefined)?.lines?.[0]?.offer ??
      first?.body) as object;
    const named = Object.keys(body).filter((key) => !['op', 'lot'].includes(key));
    expect(named).toHaveLength(1);
  });

  test('a published value that is null takes the field away, never leaves an old one', async () => {
    const content = await contentFor(connector);
    const { session, asked } = echo(connector.market);
    const { conditionNote: _gone, ...rest } = content;
    await connector.change(session, '7', { content: rest, photoIds: [], idempotencyKey: 'k' }, [
      'conditionNote',
      'condition',
    ]);
    expect(JSON.stringify(asked)).not.toContain('Light brassing');
  });

  test('its answers are never trusted: nonsense is refused', async () => {
    const content = await contentFor(connector);
    const nonsense: Session = { send: async () => ({ id: 5, state: 'sort of', link: 'javascript:alert(1)' }) };
    await expect(connector.create(nonsense, { content, photoIds: [], idempotencyKey: 'k' })).rejects.toThrow();
    await expect(connector.readRules(nonsense)).rejects.toThrow();
    await expect(connector.readOrder(nonsense, 'x')).rejects.toThrow();
  });

  test('it is in both lists: ours and the marketplaces’ own', () =>
    expect(markets.map((one) => one.name)).toContain(connector.market));
});

describe('what a refusal is about', () => {
  const refusing = (details: { field: string; message: string }[], message = 'X: refused'): Session => ({
    send: async () => {
      throw new NettingError('market-refused', message, { details });
    },
  });
  const about = async (market: string, session: Session): Promise<string | undefined> => {
    const connector = connectors.find((one) => one.market === market);
    try {
      await connector?.create(session, { content: { sku: 'X' }, photoIds: [], idempotencyKey: 'k' });
    } catch (error) {
      return error instanceof NettingError ? error.facts.field : String(error);
    }
    return undefined;
  };

  test.each([
    ['hallowick', '/heading', 'title'],
    ['hallowick', '/condition/note', 'conditionNote'],
    ['hallowick', '/parcel/pounds', 'weightGrams'],
    ['hallowick', '/details/film_format', 'attr.film_format'],
    ['hallowick', '/terms/returns', 'extra.returns'],
    ['oakhand', '/tags/3', 'tags'],
    ['oakhand', '/decade', 'extra.decade'],
    ['selasar', '/parcel/centimetres', 'size'],
    ['selasar', '/sale/from', 'extra.saleFrom'],
    ['selasar', '/highlights', 'highlights'],
    ['shopfront', '/search/title', 'extra.searchTitle'],
    ['shopfront', '/stock', 'extra.stockPlace'],
    ['shopfront', '/stock/shop', 'quantity'],
    ['glintfeed', '/picture/0', 'photos'],
  ])('%s at %s is about %s', async (market, pointer, field) =>
    expect(await about(market, refusing([{ field: pointer, message: 'm' }]))).toBe(field),
  );

  test.each([
    ['pippet', 'The name is too long, at most 45 characters.', 'title'],
    ['pippet', 'Who pays the postage is missing.', 'extra.postagePaidBy'],
    ['pippet', 'Lens mount is too long.', 'attr.lens_mount'],
    ['swishel', 'A picture must be square.', 'photos'],
    ['swishel', 'Hashtags have no spaces and no signs.', 'tags'],
    ['swishel', 'Size is missing.', 'attr.size'],
    ['lanesend', 'The place is missing.', 'extra.place'],
    ['lanesend', 'The weight class is missing.', 'weightGrams'],
    ['wallfolk', 'A picture must have 2400 pixels on its longest side.', 'photos'],
    ['wallfolk', 'The price must be at least the base price of 690 cents.', 'price'],
    ['wallfolk', 'Something quite new.', undefined],
  ])('%s saying %j is about %s', async (market, sentence, field) =>
    expect(await about(market, refusing([], `${market}: ${sentence}`))).toBe(field),
  );

  test('a refused line of a feed or batch is the error that a single request would be', async () => {
    const feed = echo('crateway', (request) =>
      request.path.startsWith('/feeds/')
        ? {
            feed: 'f',
            state: 'done',
            rows: [
              {
                ok: false,
                listing: null,
                problems: [{ pointer: '/expires', detail: 'Too near.' }],
                sentence: 'Refused',
              },
            ],
          }
        : undefined,
    );
    expect(await about('crateway', feed.session)).toBe('extra.expires');
    const busy = echo('lotbarn', (request) =>
      request.lines
        ? [{ ok: false, status: 429, sentence: 'Only 20 a day', problems: [], retryAfter: '60' }]
        : undefined,
    );
    const connector = connectors.find((one) => one.market === 'lotbarn');
    await expect(
      connector?.create(busy.session, { content: { sku: 'X' }, photoIds: [], idempotencyKey: 'k' }),
    ).rejects.toMatchObject({
      code: 'market-busy',
      facts: { retryAfterMs: 60_000 },
    });
  });
});

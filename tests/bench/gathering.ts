import { setTimeout as pause } from 'node:timers/promises';
import { and, count, eq, inArray, isNotNull } from 'drizzle-orm';
import pino from 'pino';
import sharp from 'sharp';
import { connectElsewhere } from '../../demo/connect-elsewhere';
import { contentElsewhere, elsewhere, type Listed, sellerElsewhere, shotOf } from '../../demo/elsewhere';
import { openSellerElsewhere } from '../../demo/list-elsewhere';
import { config } from '../../src/config';
import { database } from '../../src/db/client';
import { account, foundListing, gathering, task } from '../../src/db/schema';
import { connectorOf } from '../../src/markets';
import type { Actor } from '../../src/services/access/actor';
import { beginGathering } from '../../src/services/gathering/begin-gathering';
import { beginSurvey } from '../../src/services/gathering/begin-survey';
import { findFound } from '../../src/services/gathering/find-found';
import { gatherStep } from '../../src/services/gathering/gather-step';
import { openAccount } from '../../src/services/records/accounts/open-account';
import { claimTask } from '../../src/services/tasks/claim-task';
import { runTask } from '../../src/services/tasks/run-task';
import { type Figure, ratioFigure, time } from './measure';

const markets = ['hallowick', 'shopfront'];
const silent = pino({ level: 'silent' });

/** The same picture under other bytes, as no two uploads are the same file: a comment is put into it. */
function commented(jpeg: Buffer, words: string): Buffer {
  const text = Buffer.from(words);
  const head = Buffer.from([0xff, 0xfe, (text.length + 2) >> 8, (text.length + 2) & 0xff]);
  return Buffer.concat([jpeg.subarray(0, 2), head, text, jpeg.subarray(2)]);
}

/** A word that nothing in the inventory is called. */
const wordFor = (number: number): string =>
  [...String(number * 7_919 + 104_729)].map((digit) => 'bazyxuvoke'.charAt(Number(digit))).join('');

/** Things on both marketplaces under differing titles, three photos each. */
async function prepare(things: number, say: (text: string) => void): Promise<void> {
  const base = elsewhere(120, { markets: ['hallowick'], seed: 3, first: 300_000 });
  const pictures: Buffer[] = [];
  for (const one of base)
    for (const view of ['front', 'angle', 'detail'] as const)
      pictures.push(
        await sharp(await shotOf(one.thing, { view, treated: 'packed' }))
          .jpeg({ quality: 74 })
          .toBuffer(),
      );
  for (const market of markets) {
    const session = await openSellerElsewhere(config.marketsUrl, market, 'bench-attic');
    const connector = connectorOf(market);
    const rules = await connector.readRules(session);
    const shop = sellerElsewhere(market, rules);
    const open = Array.from({ length: things }, (_, at) => at);
    const work = async () => {
      for (let at = open.shift(); at !== undefined; at = open.shift()) {
        const model = base[at % base.length] as Listed; // never empty
        const item = {
          ...model.item,
          sku: `Q-${at}`,
          title: `${wordFor(at)} ${wordFor(at * 31 + 7)} lantern, lot ${at}`,
        };
        const photoIds: string[] = [];
        for (let photo = 0; photo < 3; photo++) {
          const picture = pictures[(at * 3 + photo) % pictures.length] as Buffer; // in its range
          photoIds.push(await connector.uploadPhoto(session, commented(picture, `${market} ${at} ${photo}`)));
        }
        const content = contentElsewhere({ ...model, item, market, hasNumber: at % 10 !== 0 }, shop);
        await connector.create(session, { content, photoIds, idempotencyKey: `bench-${market}-${at}` });
      }
    };
    await Promise.all(Array.from({ length: 8 }, work));
    say(`${things} listings with ${things * 3} photos stand on ${connector.name}`);
  }
}

/** What it takes at least: their lists, page by page, and every photo as a file, eight at a time. */
const plain = (ids: number[]) =>
  time(async () => {
    for (const id of ids) {
      const { session, connector } = await openAccount(id);
      const urls: string[] = [];
      for (let after: string | null = null; ; ) {
        const page: Awaited<ReturnType<typeof connector.listPage>> = await connector.listPage(session, after);
        urls.push(...page.listings.flatMap((one) => one.photos.map((photo) => photo.url)));
        if (!page.next) break;
        after = page.next;
      }
      const work = async () => {
        for (let url = urls.shift(); url !== undefined; url = urls.shift()) await (await fetch(url)).arrayBuffer();
      };
      await Promise.all(Array.from({ length: 8 }, work));
    }
  });

/** Works off what waits until nothing does, as the process for long work does. */
async function workOff(): Promise<void> {
  for (;;) {
    if (await runTask('bench', silent, () => false)) continue;
    const [open] = await database()
      .select({ id: task.id })
      .from(task)
      .where(inArray(task.state, ['waiting', 'running']))
      .limit(1);
    if (!open) return;
    await pause(20);
  }
}

/** P10: thousands of listings of two marketplaces brought in, beside their rate limit and the plain download. */
export async function bringingIn(actor: Actor, listings: number, say: (text: string) => void): Promise<Figure[]> {
  await prepare(listings / 2, say);
  const ids = await connectElsewhere(actor, markets, 'bench-attic');
  await database().update(account).set({ autoDraft: false }).where(inArray(account.id, ids));
  const raw = await plain(ids);
  /** What each part of the work took. */
  const parts: Record<string, number> = {};
  const ours = await time(async () => {
    parts.survey = await time(async () => {
      for (const id of ids) await beginSurvey(actor, id);
      await workOff();
    });
    for (const id of ids) parts['a page of what was found'] = await time(() => findFound({ account: id, limit: 50 }));
    const choices = ids.map((id) => ({ filter: { account: id, only: 'open' as const }, without: [] }));
    await beginGathering(actor, { choices, mode: 'at-once', prefer: {} });
    let row = await claimTask('bench');
    while (row?.state === 'running') {
      const phase = (row.cursor as { phase: string } | null)?.phase ?? 'begin'; // as `gatherStep` keeps it
      const took = performance.now();
      row = await gatherStep(row, 'bench');
      parts[phase] = (parts[phase] ?? 0) + performance.now() - took;
    }
  });
  const [row] = await database().select().from(gathering).where(eq(gathering.chosen, listings));
  if (!row) throw new Error('the listings were not chosen');
  // Things that ask for an answer wait for a person, whose time is not measured; nearly all of it has to be in.
  const [brought] = await database()
    .select({ count: count() })
    .from(foundListing)
    .where(and(eq(foundListing.gatheringId, row.id), isNotNull(foundListing.itemId)));
  const inNow = brought?.count ?? 0;
  if (inNow < listings * 0.85) throw new Error(`only ${inNow} of ${listings} listings were brought in`);
  const spent = Object.entries(parts).map(([phase, ms]) => `${phase} ${Math.round(ms)} ms`);
  say(`${spent.join(', ')}; ${inNow} of ${listings} in, the others ask`);
  return [ratioFigure(`P10 ${listings} listings (${inNow} in), ${listings * 3} photos brought in`, { ours, raw }, 1.3)];
}

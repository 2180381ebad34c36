import { elsewhere, type Listed } from '../../demo/elsewhere';
import { listElsewhere } from '../../demo/list-elsewhere';
import { bringIn, settled, survey } from './gathering';
import { accountOf, stack } from './stack';

const syllables = [
  'bra',
  'ket',
  'lun',
  'mor',
  'nis',
  'pel',
  'quo',
  'rad',
  'sil',
  'tav',
  'ul',
  'vex',
  'wim',
  'zor',
  'dax',
];

/** A word that nothing else is called: the same for the same numbers. */
const wordOf = (run: number, at: number): string => {
  let rest = run * 977 + at * 7_919 + 13;
  let word = '';
  for (let part = 0; part < 4; part++) {
    word += syllables[rest % syllables.length];
    rest = Math.floor(rest / syllables.length) + at * 31 + part;
  }
  return word;
};

/**
 * Things that somebody has listed on two marketplaces by other means, each under a name that nothing else has. Most carry a
 * stock number on both; of the last `unsure` neither carries one, and their photos are others, so that only the title tells.
 * @param tag a word in every title, to find them by
 */
export async function listOnTwo(
  tag: string,
  { things, unsure, run }: { things: number; unsure: number; run: number },
): Promise<{ listed: Listed[]; numbers: string[] }> {
  const models = elsewhere(things, { markets: ['hallowick'], seed: run, first: 20_000 + (run % 1_000) * 100 });
  const listed = models.flatMap((one, at): Listed[] => {
    const isUnsure = at >= things - unsure;
    const name = `${wordOf(run, at)} ${wordOf(run + 5, at)} ${tag} harbour lantern`;
    const item = { ...one.item, sku: `T${run}-${at}`, title: name, price: 4_000 + at * 100 };
    const there = { ...one, item, hasNumber: !isUnsure };
    // On the other marketplace the same pictures, or quite others of another piece.
    return [there, { ...there, market: 'shopfront', ...(isUnsure ? { thing: one.thing + 50_000 } : {}) }];
  });
  return { listed, numbers: await listElsewhere(stack.markets, 'grainhouse', listed) };
}

/** A bringing in that waits for an answer: two listings of which only the title tells that they may be one thing. */
export async function askingGathering(): Promise<number> {
  const run = Math.floor(Date.now() / 1_000) % 100_000;
  const { listed, numbers } = await listOnTwo(`ask${run}`, { things: 1, unsure: 1, run });
  const ids: number[] = [];
  for (const [market, name] of [
    ['hallowick', 'Hallowick'],
    ['shopfront', 'Shopfront'],
  ] as const) {
    const page = await survey(await accountOf(name));
    const own = page.found.filter((one) =>
      listed.some((other, at) => other.market === market && numbers[at] === one.remoteId),
    );
    ids.push(...own.map((one) => one.id));
  }
  const id = await bringIn(ids);
  if (id === null) throw new Error('nothing was brought in');
  await settled(id);
  return id;
}

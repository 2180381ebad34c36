import sharp from 'sharp';
import { areaSchema, type Picture, placingSchema, printPlan } from '../../src/core/artwork';
import { makePrintable } from '../../src/photos/printable';
import { type Figure, median, ratioFigure, time } from './measure';

const [width, height] = [4_500, 5_400];
const most = 600;

/** A drawing of many strokes and soft edges, with transparency around it. */
async function drawn(seed: number): Promise<Buffer> {
  const at = (step: number, range: number) => (seed * 7_919 + step * 104_729) % range;
  const strokes = Array.from({ length: 60 }, (_, step) => {
    const [x, y] = [600 + at(step, 3_300), 700 + at(step * 3 + 1, 4_000)];
    return `<path d="M${x} ${y} q ${at(step, 700) - 350} ${at(step + 5, 700) - 350} ${at(step + 9, 900) - 450} ${at(step + 2, 900) - 450}" stroke="hsl(${at(step, 360)} 60% ${30 + at(step, 40)}%)" stroke-width="${40 + at(step, 160)}" stroke-linecap="round" fill="none"/>`;
  }).join('');
  return sharp(
    Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${strokes}</svg>`),
  )
    .png()
    .toBuffer();
}

const areas = [
  areaSchema.parse({ widthMm: 297, heightMm: 420, widthPx: 3_508, heightPx: 4_961, safeMm: 5 }),
  areaSchema.parse({ widthMm: 200, heightMm: 85, widthPx: 2_480, heightPx: 1_054, safeMm: 4 }),
  areaSchema.parse({ widthMm: 260, heightMm: 300, widthPx: 2_600, heightPx: 3_000, safeMm: 5 }),
];

/** The same measure by plain sharp: made as large as it fits, in the middle of nothing. */
const plain = (bytes: Buffer, area: (typeof areas)[number]): Promise<Buffer> =>
  sharp(bytes)
    .resize(area.widthPx, area.heightPx, { fit: 'contain', background: { r: 0, g: 0, b: 0, alpha: 0 } })
    .png({ compressionLevel: 6, adaptiveFiltering: false })
    .toBuffer();

/** P14: artwork of 4,500 × 5,400 to three measures each, against plain sharp; by turns. */
export async function printing(count: number): Promise<Figure[]> {
  const pictures = await Promise.all([1, 2, 3, 4, 5].map(drawn));
  const whole: Picture = {
    width,
    height,
    visible: { box: { x: 0, y: 0, width: 1, height: 1 }, centre: { x: 0.5, y: 0.5 } },
  };
  const placing = placingSchema.parse({ scale: 1 });
  const portion = Math.max(1, Math.ceil(count / 10));
  const ours: number[] = [];
  const raw: number[] = [];
  let [memory, rawMemory, isOurs] = [0, 0, true];
  const watch = setInterval(() => {
    const now = process.memoryUsage.rss();
    if (isOurs) memory = Math.max(memory, now);
    else rawMemory = Math.max(rawMemory, now);
  }, 50);
  const each = async (work: (bytes: Buffer, area: (typeof areas)[number]) => Promise<Buffer>, from: number) => {
    for (let at = from; at < Math.min(count, from + portion); at++)
      for (const area of areas) await work(pictures[at % pictures.length] as Buffer, area); // five pictures, by turns
  };
  try {
    for (let from = 0; from < count; from += portion) {
      isOurs = true;
      ours.push(
        await time(() => each((bytes, area) => makePrintable(bytes, printPlan(area, whole, placing, null)), from)),
      );
      isOurs = false;
      raw.push(await time(() => each(plain, from)));
    }
  } finally {
    clearInterval(watch);
  }
  return [
    ratioFigure(
      `P14 ${count} artworks of 4,500 × 5,400 to three measures each, ${portion} of them`,
      { ours: median(ours), raw: median(raw) },
      1.3,
    ),
    {
      id: `P14 memory at most, the whole process (plain: ${Math.round(rawMemory / 1_000_000)} MB)`,
      value: Math.round(memory / 1_000_000),
      unit: 'MB',
      baseline: null,
      ratio: null,
      goal: `≤ ${most} MB`,
      ok: memory <= most * 1_000_000,
    },
  ];
}

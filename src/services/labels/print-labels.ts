import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { builtInSizes, type LabelRequest, type LabelSize, labelPlaces } from '../../core/label';
import type { labelRequestSchema } from '../../core/label/request';
import { writePdf } from '../../files/pdf';
import { readSettings } from '../records/accounts/read-settings';
import { drawLabels } from './draw-labels';
import { labelWords } from './label-words';

const barSchema = z.object({ x: z.number(), y: z.number(), width: z.number(), height: z.number() });
const drawnSchema = z.union([
  z.object({ is: z.literal('bars'), bars: z.array(barSchema) }),
  z.object({ is: z.literal('path'), x: z.number(), y: z.number(), path: z.string() }),
]);
export const labelPagesSchema = z.object({
  count: z.number(),
  pageCount: z.number(),
  /** The first pages, in millimetres. */
  pages: z.array(z.object({ widthMm: z.number(), heightMm: z.number(), drawn: z.array(drawnSchema) })),
});

async function sizeOf(id: string): Promise<LabelSize> {
  const { labelSizes } = await readSettings();
  const found = builtInSizes[id] ?? labelSizes[id];
  if (!found)
    throw new NettingError('not-found', 'This size of label is not kept any more', {
      field: 'size',
      fix: 'Choose another one',
    });
  return found;
}

const shownPages = 3;

/** The labels as they will be printed: how many, and the first pages, which alone are drawn. */
export async function previewLabels(
  request: z.output<typeof labelRequestSchema>,
): Promise<z.infer<typeof labelPagesSchema>> {
  const [size, words] = await Promise.all([sizeOf(request.size), labelWords(request)]);
  const { startAt, prefers } = request;
  const places = labelPlaces(size, words.length, startAt);
  const shown = words.slice(0, places.filter((one) => one.page < shownPages).length);
  return {
    count: words.length,
    pageCount: (places.at(-1)?.page ?? -1) + 1,
    pages: drawLabels({ size, words: shown, startAt, prefers }),
  };
}

/** The same as a PDF. */
export async function labelFile(request: LabelRequest): Promise<{ pdf: Uint8Array; title: string }> {
  const [size, words] = await Promise.all([sizeOf(request.size), labelWords(request)]);
  const { startAt, prefers } = request;
  const title = words.length === 1 ? `Label ${words[0]?.code ?? ''}` : `${words.length} labels`;
  return { pdf: await writePdf(drawLabels({ size, words, startAt, prefers }), title), title };
}

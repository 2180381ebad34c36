import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { builtInSizes, type LabelRequest, type LabelSize } from '../../core/label';
import type { labelRequestSchema } from '../../core/label/request';
import { type DrawnPage, writePdf } from '../../files/pdf';
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

async function pagesFor(request: LabelRequest): Promise<{ pages: DrawnPage[]; count: number; title: string }> {
  const [size, words] = await Promise.all([sizeOf(request.size), labelWords(request)]);
  const { startAt, prefers } = request;
  const title = words.length === 1 ? `Label ${words[0]?.code ?? ''}` : `${words.length} labels`;
  return { pages: drawLabels({ size, words, startAt, prefers }), count: words.length, title };
}

const shownPages = 3;

/** The labels as they will be printed: how many, and the first pages. */
export async function previewLabels(
  request: z.output<typeof labelRequestSchema>,
): Promise<z.infer<typeof labelPagesSchema>> {
  const { pages, count } = await pagesFor(request);
  return { count, pageCount: pages.length, pages: pages.slice(0, shownPages) };
}

/** The same as a PDF. */
export async function labelFile(request: LabelRequest): Promise<{ pdf: Uint8Array; title: string }> {
  const { pages, title } = await pagesFor(request);
  return { pdf: await writePdf(pages, title), title };
}

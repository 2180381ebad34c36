import { z } from 'zod';
import type { Item } from '../../item/item';
import { textLength } from './text-length';
import { fitTitle } from './title';

export const titleVersionSchema = z.object({
  text: z.string(),
  lost: z.array(z.string()),
  why: z.string(),
});
export type TitleVersion = z.infer<typeof titleVersionSchema>;

/** Properties that distinguish one piece from the next, the most telling first. */
const telling = [
  'Film format',
  'Lens mount',
  'Focal length',
  'Largest aperture',
  'Size',
  'Material',
  'Colour',
  'Decade',
];

/**
 * Up to three ways to say the title within the limit, each with what it loses: the writer's own words shortened; the
 * same without abbreviations' help for sizes and years (what it is before what distinguishes it); and one built from
 * brand, model and attributes.
 */
export function titleVersions(
  item: Pick<Item, 'title' | 'brand' | 'model' | 'category' | 'attributes'>,
  max: number,
): TitleVersion[] {
  const keep = [item.brand, item.model];
  const kind = item.category.split('/');
  const first = fitTitle(item.title, max, keep, kind);
  const versions: TitleVersion[] = [
    { ...first, why: first.lost.length ? 'your words, the least telling left out' : 'your words' },
  ];
  // Words before the first comma say what it is; what follows distinguishes.
  const [main = '', ...rest] = item.title.split(/,\s*/);
  if (rest.length) {
    const short = fitTitle(main, max, keep, kind);
    versions.push({
      text: short.text,
      lost: [...rest, ...short.lost],
      why: 'what it is, without what follows the comma',
    });
  }
  const facts = telling.flatMap((name) => (item.attributes[name] ? [item.attributes[name]] : []));
  // Short words of a category are mostly abbreviations: slr is written SLR.
  const last = (kind.at(-1) ?? '').replace(/-/g, ' ').replace(/\b[a-z]{1,3}\b/g, (word) => word.toUpperCase());
  const built = fitTitle([item.brand, item.model, last, ...facts].filter(Boolean).join(' '), max, keep, kind);
  const said = new Set(built.text.toLowerCase().split(/\s+/));
  const lost = item.title
    .split(/\s+/)
    .map((word) => word.replace(/[,.;]$/, ''))
    .filter((word) => word && !said.has(word.toLowerCase()));
  if (textLength(built.text) > 0)
    versions.push({ text: built.text, lost, why: 'built from brand, model and attributes' });
  const seen = new Set<string>();
  return versions
    .filter(({ text }) => text !== '' && !seen.has(text.toLowerCase()) && Boolean(seen.add(text.toLowerCase())))
    .slice(0, 3);
}

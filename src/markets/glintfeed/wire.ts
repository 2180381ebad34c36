import type { Content } from '../../core/listing';
import { fieldsFrom, list, said, text } from '../content';

/** Our content as Glintfeed's fields: a picture, a caption, hashtags. */
export function toWire(content: Content, photoIds: string[]): Record<string, unknown> {
  return {
    note: text(content, 'sku'),
    caption: text(content, 'description'),
    picture: photoIds[0] ?? null,
    hashtags: list(content, 'tags'),
    ...(text(content, 'category') ? { topic: text(content, 'category') } : {}),
  };
}

export const wireFields = fieldsFrom(
  {
    sku: ['note'],
    description: ['caption'],
    photos: ['picture'],
    tags: ['hashtags'],
    category: ['topic'],
  },
  'topic',
);

/** What Glintfeed shows, in our fields. */
export const fromWire = (wire: Record<string, unknown>): Content =>
  said({ sku: wire.note, description: wire.caption, tags: wire.hashtags, category: wire.topic });

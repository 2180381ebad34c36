import {
  type ArtworkDetails,
  audienceAttribute,
  groundsAttribute,
  readGrounds,
  writeGrounds,
} from '../../core/artwork';
import type { Item } from '../../core/item';
import type { Json } from '../../core/json';
import { toPlainText } from '../../core/listing';
import { toRichText } from '../../core/listing/fit/rich-text';

type Described = Pick<Item, 'title' | 'description' | 'keywords' | 'attributes'>;

/** So many tags an item holds. */
export const mostTags = 60;

/** The item's field that holds a detail. */
export const fieldOfDetail: Record<keyof ArtworkDetails, string> = {
  title: 'title',
  description: 'description',
  tags: 'keywords',
  audience: `attributes.${audienceAttribute}`,
  grounds: `attributes.${groundsAttribute}`,
};

/** What an item says of its picture, as it travels in the file. */
export const detailsOf = ({ title, description, keywords, attributes }: Described): ArtworkDetails => ({
  title,
  description: toPlainText(description).trim(),
  tags: keywords,
  audience: attributes[audienceAttribute] ?? '',
  grounds: readGrounds(attributes[groundsAttribute] ?? ''),
});

/** The way back: what a file says, as the item's fields hold it; what is longer is cut. */
export const heldOf = (said: ArtworkDetails) =>
  ({
    title: said.title.slice(0, 300),
    description: toRichText(said.description),
    tags: [...new Set(said.tags.map((one) => one.slice(0, 60)))].slice(0, mostTags),
    audience: said.audience.slice(0, 300),
    grounds: writeGrounds(said.grounds).slice(0, 300),
  }) satisfies Record<keyof ArtworkDetails, Json>;

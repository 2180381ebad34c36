import { z } from 'zod';

/** What is said of a picture of artwork: it travels in the file, by open standards. */
export const artworkDetailsSchema = z.object({
  title: z.string(),
  description: z.string(),
  tags: z.array(z.string()),
  /** Whom it is for. */
  audience: z.string(),
  /** Ground colours on which it reads well, by their names. */
  grounds: z.array(z.string()),
});
export type ArtworkDetails = z.infer<typeof artworkDetailsSchema>;

export const noDetails: ArtworkDetails = { title: '', description: '', tags: [], audience: '', grounds: [] };

/** How lines are broken is no matter of what is said. */
const words = (said: ArtworkDetails[keyof ArtworkDetails]): string =>
  Array.isArray(said) ? said.join('\n') : said.replace(/\s+/g, ' ').trim();

/** What a file says otherwise than we do; what it does not say at all is no difference. */
export const differing = (ours: ArtworkDetails, theirs: ArtworkDetails): (keyof ArtworkDetails)[] =>
  (Object.keys(noDetails) as (keyof ArtworkDetails)[]).filter(
    (one) => theirs[one].length > 0 && words(ours[one]) !== words(theirs[one]),
  );

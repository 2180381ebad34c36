import { z } from 'zod';
import { longestClip, photosIn } from '../../photo/clip';
import { readPhotoReference } from '../../photo/reference';
import { defineVerb } from './verb';

export const makeClipVerb = defineVerb({
  name: 'clip-make',
  label: 'Make it from the photos',
  kinds: ['clip'],
  schema: z
    .object({
      verb: z.literal('clip-make'),
      photos: z.number().int().min(2, 'A clip needs two photos or more').max(12).default(8),
      seconds: z.number().int().min(3).max(longestClip, `At most ${longestClip} seconds`).default(longestClip),
    })
    .strict(),
  apply({ photos: most, seconds }, _value, { fieldAt, photos }) {
    const all = fieldAt('photos');
    const hashes = Array.isArray(all) ? all.map((one) => readPhotoReference(String(one)).hash) : [];
    const taken = [...new Set(hashes)].slice(0, Math.min(most, photosIn(hashes.length, seconds)));
    if (taken.length < 2) return { refused: 'A clip needs two photos or more' };
    return photos ? { to: photos.clip({ photos: taken, seconds }) } : { refused: 'Nothing is known of its photos' };
  },
  say: ({ photos, seconds }) => `made from the first ${photos} photos, ${seconds} s at most`,
});

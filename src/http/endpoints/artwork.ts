import { Readable } from 'node:stream';
import { z } from 'zod';
import { placingSchema } from '../../core/artwork';
import { maxPhotoBytes } from '../../photos/intake';
import { artworkFile } from '../../services/artwork/artwork-file';
import { artworksSchema, findArtworks, findArtworksSchema } from '../../services/artwork/find-artworks';
import { receiveArtwork, receivedArtworkSchema } from '../../services/artwork/receive-artwork';
import { setGrounds, setGroundsSchema } from '../../services/artwork/set-grounds';
import { setPlacing } from '../../services/artwork/set-placing';
import { done, endpoint, streamed } from '../endpoint';
import { fileResponse } from '../file-response';
import { readLimited } from '../read-limited';

const tag = 'Artwork';

/** Pictures that are printed on products. */
export const artworkEndpoints = [
  endpoint({
    method: 'GET',
    path: '/artworks',
    tag,
    summary: 'Artwork, the newest first, with the grounds on which it reads well',
    query: findArtworksSchema,
    answer: artworksSchema,
    run: ({ query }) => findArtworks(query),
  }),
  endpoint({
    method: 'POST',
    path: '/artworks',
    tag,
    summary: 'Make an item of a picture of artwork: the picture is the body, its name may be in X-File-Name',
    takesPicture: true,
    answer: receivedArtworkSchema,
    run: async ({ actor, request }) =>
      receiveArtwork(actor, {
        bytes: await readLimited(request, maxPhotoBytes),
        name: decodeURIComponent(request.headers.get('x-file-name') ?? ''),
      }),
  }),
  endpoint({
    method: 'PUT',
    path: '/artworks/{id}/grounds',
    tag,
    summary: 'Say by hand on which grounds it reads well',
    body: setGroundsSchema,
    answer: z.object({ version: z.number() }),
    run: ({ actor, params, body }) => setGrounds(actor, params.id, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/artworks/{id}/placing',
    tag,
    summary: 'Place it once: on every product it stands in proportion to that',
    body: placingSchema,
    answer: done,
    run: ({ params, body }) => setPlacing(params.id, body),
  }),
  streamed({
    path: '/artworks/{id}/file',
    tag,
    summary: 'The picture with what is said of it inside, or that alone as a file beside it',
    query: z.object({ of: z.enum(['picture', 'details']).default('picture') }).strict(),
    media: 'application/octet-stream',
    answer: z.string(),
    run: async ({ params, query }) => {
      const { bytes, name, mime } = await artworkFile(params.id, query.of);
      return fileResponse(Readable.from([bytes]), { mime, name });
    },
  }),
];

import { Readable } from 'node:stream';
import { z } from 'zod';
import { maxArtworkBytes } from '../../photos/intake';
import { artworkFile } from '../../services/artwork/artwork-file';
import { artworksSchema, findArtworks, findArtworksSchema } from '../../services/artwork/find-artworks';
import { artworkEarningsQuery, artworkEarningsSchema, findArtworkEarnings } from '../../services/artwork/find-earnings';
import { artworkOffersSchema, findArtworkOffers } from '../../services/artwork/find-offers';
import { findSights, findSightsSchema, sightsSchema } from '../../services/artwork/find-sights';
import { hearSidecar } from '../../services/artwork/hear-sidecar';
import { printOf, printOfQuery } from '../../services/artwork/print-of';
import { beginPrints, begunPrintsSchema } from '../../services/artwork/prints-step';
import { receiveArtwork, receivedArtworkSchema } from '../../services/artwork/receive-artwork';
import { setGrounds, setGroundsSchema } from '../../services/artwork/set-grounds';
import { setLooks, setLooksSchema } from '../../services/artwork/set-looks';
import { setPlacing, setPlacingSchema } from '../../services/artwork/set-placing';
import { settleTwin, settleTwinSchema } from '../../services/artwork/settle-twin';
import { takeDetails, takeDetailsSchema } from '../../services/artwork/take-details';
import { endpoint, streamed } from '../endpoint';
import { fileResponse } from '../file-response';
import { readLimited } from '../read-limited';

const tag = 'Artwork';
const version = z.object({ version: z.number() });
/** A file of words beside a picture is small. */
const maxSidecarBytes = 2_000_000;

/** Pictures that are printed on products. */
export const artworkEndpoints = [
  endpoint({
    method: 'GET',
    path: '/artworks',
    tag,
    role: 'seller',
    summary: 'Artwork, the newest first, with the grounds on which it reads well',
    query: findArtworksSchema,
    answer: artworksSchema,
    run: ({ query }) => findArtworks(query),
  }),
  endpoint({
    method: 'GET',
    path: '/artworks/offers',
    tag,
    role: 'seller',
    summary: 'Every ground and every product that artwork is printed on anywhere',
    answer: artworkOffersSchema,
    run: () => findArtworkOffers(),
  }),
  endpoint({
    method: 'GET',
    path: '/artworks/earnings',
    tag,
    role: 'seller',
    summary: 'What each picture earned on each product and account, what earned most first',
    query: artworkEarningsQuery,
    answer: artworkEarningsSchema,
    run: ({ query }) => findArtworkEarnings(query),
  }),
  endpoint({
    method: 'GET',
    path: '/artworks/sights',
    tag,
    role: 'seller',
    summary: 'Artwork as it will look on every product and ground that its templates name',
    query: findSightsSchema,
    answer: sightsSchema,
    run: ({ query }) => findSights(query),
  }),
  endpoint({
    method: 'POST',
    path: '/artworks/details',
    tag,
    role: 'seller',
    summary: 'Hear what an XMP file beside a picture says of it: the file is the body, its name must be in X-File-Name',
    takesFile: true,
    answer: z.object({ itemId: z.number(), differs: z.array(z.string()) }),
    run: async ({ request }) =>
      hearSidecar({
        bytes: await readLimited(request, maxSidecarBytes),
        name: decodeURIComponent(request.headers.get('x-file-name') ?? ''),
      }),
  }),
  endpoint({
    method: 'POST',
    path: '/artworks',
    tag,
    role: 'seller',
    summary: 'Make an item of a picture of artwork: the picture is the body, its name may be in X-File-Name',
    takesPicture: true,
    answer: receivedArtworkSchema,
    run: async ({ actor, request }) =>
      receiveArtwork(actor, {
        bytes: await readLimited(request, maxArtworkBytes),
        name: decodeURIComponent(request.headers.get('x-file-name') ?? ''),
      }),
  }),
  endpoint({
    method: 'PUT',
    path: '/artworks/{id}/grounds',
    tag,
    role: 'seller',
    summary: 'Say by hand on which grounds it reads well',
    body: setGroundsSchema,
    answer: version,
    run: ({ actor, params, body }) => setGrounds(actor, params.id, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/artworks/{id}/placing',
    tag,
    role: 'seller',
    summary: 'Place it by hand, on one product or on all: there it stands in proportion to what is printed on',
    body: setPlacingSchema,
    answer: version,
    run: ({ actor, params, body }) => setPlacing(actor, params.id, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/artworks/{id}/looks',
    tag,
    role: 'seller',
    summary: 'Say of it on products and grounds whether it is good there, or not offered',
    body: setLooksSchema,
    answer: version,
    run: ({ actor, params, body }) => setLooks(actor, params.id, body),
  }),
  endpoint({
    method: 'PUT',
    path: '/artworks/{id}/details',
    tag,
    role: 'seller',
    summary: 'Take over what its file says, or leave ours',
    body: takeDetailsSchema,
    answer: version,
    run: ({ actor, params, body }) => takeDetails(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/artworks/{id}/twin',
    tag,
    role: 'seller',
    summary: 'Settle that it looks like another one: its file takes the place of the other’s, or it is one of its own',
    body: settleTwinSchema,
    answer: z.object({ itemId: z.number() }),
    run: ({ actor, params, body }) => settleTwin(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/artworks/prints',
    tag,
    role: 'seller',
    summary: 'Begin to make the printables of all artwork on every product that is offered',
    answer: begunPrintsSchema,
    run: ({ actor }) => beginPrints(actor),
  }),
  streamed({
    path: '/artworks/{id}/print',
    tag,
    role: 'seller',
    summary: 'The printable of artwork on a product, in the measure of its template',
    query: printOfQuery,
    media: 'application/octet-stream',
    answer: z.string(),
    run: async ({ params, query }) => {
      const { bytes, name, mime } = await printOf(params.id, query);
      return fileResponse(Readable.from([bytes]), { mime, name });
    },
  }),
  streamed({
    path: '/artworks/{id}/file',
    tag,
    role: 'seller',
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

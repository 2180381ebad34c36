import { z } from 'zod';
import { maxPhotoBytes } from '../../photos/intake';
import { badgeSchema, findBadges } from '../../services/photos/find-badges';
import { keepBadgePicture, mostBadgeBytes } from '../../services/photos/keep-badge-picture';
import { makePhoto, makePhotoSchema } from '../../services/photos/make-photo';
import { photoHashSchema, photoMadeSchema, photoRecipe } from '../../services/photos/photo-recipe';
import { saveBadge, saveBadgeSchema } from '../../services/photos/save-badge';
import { modelSchema, sharedPhotoSchema, sharedPhotos, sharedPhotosSchema } from '../../services/photos/shared-photos';
import { keepPhoto } from '../../services/records/keep-photo';
import { endpoint } from '../endpoint';
import { readLimited } from '../read-limited';

const nameOf = (request: Request) => decodeURIComponent(request.headers.get('x-file-name') ?? '');

/** Photos by themselves: how they are made, what is put on them, what many items have in common. */
export const photosEndpoints = [
  endpoint({
    method: 'POST',
    path: '/photos',
    tag: 'Photos',
    summary: 'Keep a picture that is put on many items later: the picture is the body, its name may be in X-File-Name',
    takesPicture: true,
    answer: z.object({ hash: z.string(), width: z.number(), height: z.number(), bytes: z.number() }),
    run: async ({ request }) => keepPhoto({ bytes: await readLimited(request, maxPhotoBytes), name: nameOf(request) }),
  }),
  endpoint({
    method: 'POST',
    path: '/photos/shared',
    tag: 'Photos',
    summary: 'Pictures that stand on more than one of the chosen items, and items on which steps are tried',
    body: sharedPhotosSchema,
    answer: z.object({ photos: z.array(sharedPhotoSchema), models: z.array(modelSchema) }),
    run: ({ body }) => sharedPhotos(body),
  }),
  endpoint({
    method: 'GET',
    path: '/photos/recipe',
    tag: 'Photos',
    summary: 'What a picture was made from, and how; what its original shows',
    query: photoHashSchema,
    answer: photoMadeSchema,
    run: ({ query }) => photoRecipe(query),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/photos/made',
    tag: 'Photos',
    summary: 'Make a photo anew of its original, in its place',
    body: makePhotoSchema,
    answer: z.object({ hash: z.string(), photos: z.array(z.string()) }),
    run: ({ actor, params, body }) => makePhoto(actor, params.id, body),
  }),
  endpoint({
    method: 'GET',
    path: '/badges',
    tag: 'Photos',
    summary: 'Badges that are put on photos',
    answer: z.object({ badges: z.array(badgeSchema) }),
    run: () => findBadges(),
  }),
  endpoint({
    method: 'PUT',
    path: '/badges',
    tag: 'Photos',
    summary: 'Keep a badge, or draw it otherwise on every photo that carries it',
    body: saveBadgeSchema,
    answer: z.object({
      id: z.number(),
      changing: z.number().describe('Items whose photos are made anew in the background'),
      runId: z.number().nullable(),
    }),
    run: ({ actor, body }) => saveBadge(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/badges/picture',
    tag: 'Photos',
    summary: 'Keep a picture for a badge, PNG or SVG: it is the body, its name may be in X-File-Name',
    takesPicture: true,
    answer: z.object({ hash: z.string(), ratio: z.number() }),
    run: async ({ request }) =>
      keepBadgePicture({ bytes: await readLimited(request, mostBadgeBytes), name: nameOf(request) }),
  }),
];

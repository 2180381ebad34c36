import { z } from 'zod';
import { NettingError } from '../../core/errors';
import { maxPhotoBytes } from '../../photos/intake';
import { addDropped, addDroppedSchema } from '../../services/photos/add-dropped';
import { dropSchema } from '../../services/photos/drop-counts';
import { badgeSchema, findBadges } from '../../services/photos/find-badges';
import { droppedStateSchema, dropViewSchema, findDrop, findDropSchema } from '../../services/photos/find-drop';
import { findDrops } from '../../services/photos/find-drops';
import {
  countFlaws,
  findFlawed,
  findFlawedSchema,
  flawCountsSchema,
  flawedItemSchema,
} from '../../services/photos/find-flaws';
import { keepBadgePicture, mostBadgeBytes } from '../../services/photos/keep-badge-picture';
import { beginLooking } from '../../services/photos/look-step';
import { makePhoto, makePhotoSchema } from '../../services/photos/make-photo';
import { closeDrop, moveDropped, moveDroppedSchema } from '../../services/photos/move-dropped';
import { dropFiles, dropFilesSchema } from '../../services/photos/open-drop';
import { photoHashSchema, photoMadeSchema, photoRecipe } from '../../services/photos/photo-recipe';
import { type DroppedBytes, receiveDropped } from '../../services/photos/receive-dropped';
import { saveBadge, saveBadgeSchema } from '../../services/photos/save-badge';
import { modelSchema, sharedPhotoSchema, sharedPhotos, sharedPhotosSchema } from '../../services/photos/shared-photos';
import { tieDrop, tieDropSchema } from '../../services/photos/tie-drop';
import { keepPhoto } from '../../services/records/photos/keep-photo';
import { removeKept } from '../../services/records/removed/remove-kept';
import { done, endpoint } from '../endpoint';
import { keepBody } from '../keep-body';
import { readLimited } from '../read-limited';

const mostZipBytes = 1_000_000_000;

const nameOf = (request: Request) => decodeURIComponent(request.headers.get('x-file-name') ?? '');

/** What a body holds: a picture in memory, or a ZIP of pictures that is written to the disk meanwhile. */
async function bytesOf(request: Request): Promise<{ given: DroppedBytes; done: () => Promise<void> }> {
  const nothing = async () => undefined;
  try {
    if (!/\.zip$/i.test(nameOf(request)))
      return { given: { picture: await readLimited(request, maxPhotoBytes) }, done: nothing };
    const { path, forget } = await keepBody(request, mostZipBytes);
    return { given: { zip: path }, done: forget };
  } catch (error) {
    // One that is too large is refused for itself; the others go on.
    if (error instanceof NettingError) return { given: { refused: error.message }, done: nothing };
    throw error;
  }
}

/** Photos by themselves: how they are made, what is put on them, what many items have in common. */
export const photosEndpoints = [
  endpoint({
    method: 'POST',
    path: '/photos',
    tag: 'Photos',
    role: 'packer',
    summary: 'Keep a picture that is put on many items later: the picture is the body, its name may be in X-File-Name',
    takesPicture: true,
    answer: z.object({ hash: z.string(), width: z.number(), height: z.number(), bytes: z.number() }),
    run: async ({ request }) => keepPhoto({ bytes: await readLimited(request, maxPhotoBytes), name: nameOf(request) }),
  }),
  endpoint({
    method: 'POST',
    path: '/photos/shared',
    tag: 'Photos',
    role: 'packer',
    summary: 'Pictures that stand on more than one of the chosen items, and items on which steps are tried',
    body: sharedPhotosSchema,
    answer: z.object({ photos: z.array(sharedPhotoSchema), models: z.array(modelSchema) }),
    run: ({ body }) => sharedPhotos(body),
  }),
  endpoint({
    method: 'GET',
    path: '/photos/recipe',
    tag: 'Photos',
    role: 'packer',
    summary: 'What a picture was made from, and how; what its original shows',
    query: photoHashSchema,
    answer: photoMadeSchema,
    run: ({ query }) => photoRecipe(query),
  }),
  endpoint({
    method: 'POST',
    path: '/items/{id}/photos/made',
    tag: 'Photos',
    role: 'packer',
    summary: 'Make a photo anew of its original, in its place',
    body: makePhotoSchema,
    answer: z.object({ hash: z.string(), photos: z.array(z.string()) }),
    run: ({ actor, params, body }) => makePhoto(actor, params.id, body),
  }),
  endpoint({
    method: 'GET',
    path: '/badges',
    tag: 'Photos',
    role: 'packer',
    summary: 'Badges that are put on photos',
    answer: z.object({ badges: z.array(badgeSchema) }),
    run: () => findBadges(),
  }),
  endpoint({
    method: 'PUT',
    path: '/badges',
    tag: 'Photos',
    role: 'seller',
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
    method: 'DELETE',
    path: '/badges/{id}',
    tag: 'Photos',
    role: 'seller',
    summary: 'Keep a badge no longer; photos that carry it stay as they are',
    answer: done,
    run: ({ actor, params }) => removeKept(actor, 'badge', params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/badges/picture',
    tag: 'Photos',
    role: 'seller',
    summary: 'Keep a picture for a badge, PNG or SVG: it is the body, its name may be in X-File-Name',
    takesPicture: true,
    answer: z.object({ hash: z.string(), ratio: z.number() }),
    run: async ({ request }) =>
      keepBadgePicture({ bytes: await readLimited(request, mostBadgeBytes), name: nameOf(request) }),
  }),
  endpoint({
    method: 'GET',
    path: '/photos/flaws',
    tag: 'Photos',
    role: 'packer',
    summary: 'How many items have which flaw in their photos, by account where an account asks for it',
    answer: flawCountsSchema,
    run: () => countFlaws(),
  }),
  endpoint({
    method: 'GET',
    path: '/photos/flawed',
    tag: 'Photos',
    role: 'packer',
    summary: 'Items with one flaw in their photos, a page at a time',
    query: findFlawedSchema,
    answer: z.object({ items: z.array(flawedItemSchema), next: z.number().nullable() }),
    run: ({ query }) => findFlawed(query),
  }),
  endpoint({
    method: 'POST',
    path: '/photos/look',
    tag: 'Photos',
    role: 'packer',
    summary: 'Look at photos that nobody has looked at yet, in the background',
    answer: z.object({ taskId: z.number().nullable() }),
    run: ({ actor }) => beginLooking(actor),
  }),
  endpoint({
    method: 'GET',
    path: '/photo-drops',
    tag: 'Photos',
    role: 'packer',
    summary: 'Files that were dropped and are not done with',
    answer: z.object({ drops: z.array(dropSchema) }),
    run: () => findDrops(),
  }),
  endpoint({
    method: 'POST',
    path: '/photo-drops',
    tag: 'Photos',
    role: 'packer',
    summary: 'Note files that were dropped; those of them whose bytes are wanted come back',
    body: dropFilesSchema,
    answer: z.object({
      drop: z.number(),
      wanted: z.array(z.object({ id: z.number(), path: z.string(), bytes: z.number() })),
    }),
    run: ({ actor, body }) => dropFiles(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/photo-drops/{id}',
    tag: 'Photos',
    role: 'packer',
    summary: 'One drop: what is tied to which item, and what to none',
    query: findDropSchema,
    answer: dropViewSchema,
    run: ({ params, query }) => findDrop(params.id, query),
  }),
  endpoint({
    method: 'PUT',
    path: '/photo-drops/{id}/files/{file}',
    tag: 'Photos',
    role: 'packer',
    summary: 'The bytes of a file that was dropped: a picture, or a ZIP of pictures as X-File-Name says',
    takesFile: true,
    answer: z.object({ state: droppedStateSchema, said: z.string().nullable() }),
    run: async ({ params, request }) => {
      const { given, done: forget } = await bytesOf(request);
      return receiveDropped(params.id, params.file, given).finally(forget);
    },
  }),
  endpoint({
    method: 'POST',
    path: '/photo-drops/{id}/tie',
    tag: 'Photos',
    role: 'packer',
    summary: 'Tie what was dropped to items by name, by barcode or by time; what was tied by hand stays',
    body: tieDropSchema,
    answer: done,
    run: ({ params, body }) => tieDrop(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/photo-drops/{id}/move',
    tag: 'Photos',
    role: 'packer',
    summary: 'Tie files to an item by hand, untie them, or put them aside',
    body: moveDroppedSchema,
    answer: done,
    run: ({ params, body }) => moveDropped(params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/photo-drops/{id}/add',
    tag: 'Photos',
    role: 'packer',
    summary: 'Put everything that is tied onto its items, as a change of many',
    body: addDroppedSchema,
    answer: z.object({ taskId: z.number(), runId: z.number(), files: z.number(), items: z.number() }),
    run: ({ actor, params, body }) => addDropped(actor, params.id, body),
  }),
  endpoint({
    method: 'POST',
    path: '/photo-drops/{id}/close',
    tag: 'Photos',
    role: 'packer',
    summary: 'Done with a drop: what is still in it is let go',
    answer: done,
    run: ({ params }) => closeDrop(params.id),
  }),
];

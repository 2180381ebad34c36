import { z } from 'zod';
import { beginGathering, beginGatheringSchema, begunGatheringSchema } from '../../services/gathering/begin-gathering';
import { beginSurvey, begunSurveySchema } from '../../services/gathering/begin-survey';
import { decideMatch, decideMatchSchema, goOnGathering } from '../../services/gathering/decide-match';
import { findFound, findFoundSchema, foundPageSchema } from '../../services/gathering/find-found';
import {
  findGathering,
  findGatherings,
  gatheringsSchema,
  gatheringViewSchema,
} from '../../services/gathering/find-gathering';
import { foundMatches, foundMatchesQuerySchema, foundMatchesSchema } from '../../services/gathering/found-matches';
import { findSitting, lookedThrough, sittingSchema } from '../../services/gathering/sitting';
import { done, endpoint } from '../endpoint';

/** Bringing in what is on the marketplaces: read, chosen, recognised, joined, looked through. */
export const gatheringEndpoints = [
  endpoint({
    method: 'POST',
    path: '/accounts/{id}/found',
    tag: 'Bringing in',
    role: 'seller',
    summary: 'Read what an account has listed, page by page, in the background where there is much',
    answer: begunSurveySchema,
    run: ({ actor, params }) => beginSurvey(actor, params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/found',
    tag: 'Bringing in',
    role: 'seller',
    summary: 'What was found on an account, newest first, with the item that each is in already',
    query: findFoundSchema,
    answer: foundPageSchema,
    run: ({ query }) => findFound(query),
  }),
  endpoint({
    method: 'GET',
    path: '/found/matches',
    tag: 'Bringing in',
    role: 'seller',
    summary: 'Which items of ours listings that were found probably are, with why',
    query: foundMatchesQuerySchema,
    answer: foundMatchesSchema,
    run: ({ query }) => foundMatches(query),
  }),
  endpoint({
    method: 'POST',
    path: '/gatherings',
    tag: 'Bringing in',
    role: 'seller',
    summary: 'Bring chosen listings in as items that are linked with them; nothing is sent',
    body: beginGatheringSchema,
    answer: begunGatheringSchema,
    run: ({ actor, body }) => beginGathering(actor, body),
  }),
  endpoint({
    method: 'GET',
    path: '/gatherings',
    tag: 'Bringing in',
    role: 'seller',
    summary: 'What was brought in lately',
    answer: gatheringsSchema,
    run: () => findGatherings(),
  }),
  endpoint({
    method: 'GET',
    path: '/gatherings/{id}',
    tag: 'Bringing in',
    role: 'seller',
    summary: 'What came of it, and which two things may be one',
    answer: gatheringViewSchema,
    run: ({ params }) => findGathering(params.id),
  }),
  endpoint({
    method: 'POST',
    path: '/gatherings/{id}/go-on',
    tag: 'Bringing in',
    role: 'seller',
    summary: 'Go on with what was decided',
    answer: z.object({ decided: z.number() }),
    run: ({ actor, params }) => goOnGathering(actor, params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/gatherings/{id}/sitting/{item}',
    tag: 'Bringing in',
    role: 'seller',
    summary: 'Where one is among those that are looked through one by one, and what is missing',
    answer: sittingSchema,
    run: ({ params }) => findSitting(params.id, params.item),
  }),
  endpoint({
    method: 'POST',
    path: '/gatherings/{id}/sitting/{item}',
    tag: 'Bringing in',
    role: 'seller',
    summary: 'It was looked through',
    answer: z.object({ next: z.number().nullable(), at: z.string().nullable() }),
    run: ({ params }) => lookedThrough(params.id, params.item),
  }),
  endpoint({
    method: 'PUT',
    path: '/match-questions/{id}',
    tag: 'Bringing in',
    role: 'packer',
    summary: 'Say whether two things are one',
    body: decideMatchSchema,
    answer: done,
    run: async ({ actor, params, body }) => {
      await decideMatch(actor, params.id, body);
      return { ok: true as const };
    },
  }),
];

import { z } from 'zod';
import { roleSchema } from '../../core/access';
import { NettingError } from '../../core/errors';
import type { Actor } from '../../services/access/actor';
import { createApiToken, endApiToken, newTokenSchema } from '../../services/access/api-tokens';
import {
  changeRole,
  endSessions,
  endSessionsSchema,
  newRoleSchema,
  removePerson,
} from '../../services/access/change-person';
import { accessSchema, findAccess } from '../../services/access/find-access';
import { findPeople, peopleSchema } from '../../services/access/find-people';
import type { Who } from '../../services/access/identify-actor';
import { invite, invitedSchema, inviteSchema, withdrawInvitation } from '../../services/access/invite';
import { done, endpoint } from '../endpoint';

const nothing = z.object({}).strict();

/** Who does something that a program must not do in a person's name. */
function inPerson({ actor, byToken }: Who): Actor {
  if (byToken)
    throw new NettingError('not-allowed', 'A program cannot do this', { fix: 'Sign in, and do it yourself' });
  return actor;
}

/** Who may come in, and as what. */
export const accessEndpoints = [
  endpoint({
    method: 'GET',
    path: '/me',
    tag: 'People',
    role: 'packer',
    summary: 'Who asks, and what that person or program may do',
    answer: z.object({ id: z.string(), name: z.string(), role: roleSchema }),
    run: async ({ who }) => ({ ...who.actor, role: who.role }),
  }),
  endpoint({
    method: 'POST',
    path: '/me/leave',
    tag: 'People',
    role: 'packer',
    summary: 'Leave the shop: sessions and tokens end at once; what was done stays in every history',
    body: nothing,
    answer: done,
    run: ({ who }) => removePerson(who.actor, inPerson(who).id),
  }),
  endpoint({
    method: 'GET',
    path: '/access',
    tag: 'People',
    role: 'packer',
    summary: 'Where one is signed in, and the programs that act in one’s name; for an owner those of everybody',
    answer: accessSchema,
    run: ({ who }) => findAccess(who),
  }),
  endpoint({
    method: 'POST',
    path: '/sessions/end',
    tag: 'People',
    role: 'packer',
    summary: 'End one place where one is signed in, or all but this one',
    body: endSessionsSchema,
    answer: z.object({ ended: z.number() }),
    run: ({ who, body }) => endSessions(inPerson(who), who.sessionId, body),
  }),
  endpoint({
    method: 'POST',
    path: '/tokens',
    tag: 'People',
    role: 'packer',
    isShownOnce: true,
    summary: 'Make a token for a program; it is shown once',
    body: newTokenSchema,
    answer: z.object({ token: z.string() }),
    run: ({ actor, who, body }) => createApiToken(actor, who.role, body),
  }),
  endpoint({
    method: 'DELETE',
    path: '/tokens/{id}',
    tag: 'People',
    role: 'packer',
    summary: 'End a token',
    answer: done,
    run: ({ who, params }) => endApiToken(who, params.id),
  }),
  endpoint({
    method: 'GET',
    path: '/people',
    tag: 'People',
    role: 'owner',
    summary: 'The people of the shop, who is invited, and what was done about them',
    answer: peopleSchema,
    run: () => findPeople(),
  }),
  endpoint({
    method: 'POST',
    path: '/people/invite',
    tag: 'People',
    role: 'owner',
    isShownOnce: true,
    summary: 'Make a link by which one person joins; good once, for a day',
    body: inviteSchema,
    answer: invitedSchema,
    run: ({ actor, body }) => invite(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/people/role',
    tag: 'People',
    role: 'owner',
    summary: 'Say what a person may do from now on',
    body: newRoleSchema,
    answer: done,
    run: ({ actor, body }) => changeRole(actor, body),
  }),
  endpoint({
    method: 'POST',
    path: '/people/remove',
    tag: 'People',
    role: 'owner',
    summary: 'Let a person go: sessions and tokens end at once',
    body: z.object({ id: z.string().max(36) }).strict(),
    answer: done,
    run: ({ actor, body }) => removePerson(actor, body.id),
  }),
  endpoint({
    method: 'DELETE',
    path: '/invitations/{id}',
    tag: 'People',
    role: 'owner',
    summary: 'Withdraw an invitation',
    answer: done,
    run: ({ actor, params }) => withdrawInvitation(actor, params.id),
  }),
];

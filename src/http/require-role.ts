import { covers, type Role, roleNames } from '../core/access';
import { NettingError } from '../core/errors';
import type { Who } from '../services/access/identify-actor';

/** What was paid for things is for those who buy and sell them. */
export const seesCosts = (role: Role): boolean => covers(role, 'seller');

export const notFor = (role: Role, what: string, field?: string) =>
  new NettingError('not-allowed', `A ${roleNames[role].toLowerCase()} cannot ${what}`, {
    field,
    fix: 'Ask an owner of the shop',
  });

/** Who asks, where that is somebody of at least this role. */
export function requireRole(who: Who | null, needed: Role): Who {
  if (!who) throw new NettingError('not-signed-in', 'Sign in, or send an API token', { fix: 'Sign in' });
  if (!covers(who.role, needed)) throw notFor(who.role, 'do this');
  return who;
}

import { z } from 'zod';

/**
 * What a person of the shop does, from the most to the least: an owner everything; a seller everything but the people
 * and what opens the accounts at the marketplaces; a packer taking in, photos, stock, labels and sending in, without
 * what was paid for anything.
 */
export const roles = ['owner', 'seller', 'packer'] as const;
export type Role = (typeof roles)[number];
export const roleSchema = z.enum(roles);

export const roleNames: Record<Role, string> = { owner: 'Owner', seller: 'Seller', packer: 'Packer' };

/** Whether somebody of one role may do what at least another role is needed for. */
export const covers = (has: Role, needed: Role): boolean => roles.indexOf(has) <= roles.indexOf(needed);

/** The lesser of two roles: what a person's token may do when the person's own role has changed since. */
export const lesser = (one: Role, other: Role): Role => (covers(one, other) ? other : one);

import { type Ground, groundsOffered, readColour } from '../../core/artwork';
import { database } from '../../db/client';
import { template } from '../../db/schema';
import { accountsAtHand } from '../records/accounts/accounts-at-hand';

/** Every ground that is offered anywhere, once each: those that marketplaces publish, and those of product templates. */
export async function allGrounds(): Promise<Ground[]> {
  const accounts = await accountsAtHand();
  const grounds = groundsOffered(accounts.map((one) => one.compiled));
  const known = new Set(grounds.map((one) => one.name.toLowerCase()));
  for (const { print } of await database().select({ print: template.print }).from(template))
    for (const { name, colour } of print?.pieces.flatMap((piece) => piece.grounds) ?? []) {
      const read = colour === null ? null : readColour(colour);
      if (!read || known.has(name.toLowerCase())) continue;
      known.add(name.toLowerCase());
      grounds.push({ name, colour: read });
    }
  return grounds;
}

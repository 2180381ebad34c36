import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** A token of each role, and somebody who signs in with a password. */
export async function tokensOf(settings, call) {
  const tokens = { owner: readFileSync(join(settings.dataFolder, 'demo-api-token'), 'utf8').trim() };
  for (const role of ['seller', 'packer'])
    tokens[role] = (await call('POST', '/tokens', { name: `as ${role}`, role })).body.token;
  return { tokens, email: 'owner@grainhouse.example', password: 'harbour-light-35' };
}

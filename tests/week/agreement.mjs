import { theirs } from '../support/drive.mjs';

const isThere = ({ state }) => state === 'live' || state === 'review';
/** States here of what may stand there. */
const mayStand = new Set(['live', 'changed', 'conflict', 'attention', 'waiting']);

/**
 * Every marketplace's own list against the house: each of our listings there is one that a sheet knows, none is there
 * twice, and what a sheet calls live is there.
 */
export async function agreement(settings, call) {
  const { accounts } = (await call('GET', '/accounts')).body;
  const lost = [];
  const doubled = [];
  const wrong = [];
  const links = new Map();
  for (let after = null; ; ) {
    const { body } = await call('GET', `/links?limit=200${after ? `&after=${after}` : ''}`);
    for (const link of body.links) links.set(`${link.accountId}/${link.remoteId}`, link);
    if (body.next === null) break;
    after = body.next;
  }
  let compared = 0;
  for (const account of accounts) {
    const list = (await theirs(settings, account.market)).filter((one) => one.seller === account.remoteName);
    const there = new Map(list.map((one) => [one.id, one]));
    const seen = new Set();
    for (const one of list.filter(isThere)) {
      compared++;
      const name = `${one.summary.reference} (${one.id}) on ${account.name}`;
      const link = links.get(`${account.id}/${one.id}`);
      if (!link) doubled.push(`${name} is known to no item`);
      const reference = `${link?.itemId ?? one.summary.reference}`;
      if (seen.has(reference)) doubled.push(`${name} is there twice`);
      seen.add(reference);
      if (link && !mayStand.has(link.state)) wrong.push(`${name} is there, and stands here as ${link.state}`);
    }
    for (const link of links.values()) {
      if (link.accountId !== account.id || !['live', 'changed'].includes(link.state)) continue;
      const one = there.get(link.remoteId);
      if (!one || !isThere(one)) lost.push(`${link.sku} on ${account.name} is ${one?.state ?? 'not there'}`);
    }
  }
  return { lost, doubled, wrong, compared };
}

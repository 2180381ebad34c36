import { hallowick as stranger } from '../../marketplaces/hallowick/market';
import { rulesFor } from '../core/rules';
import { hallowick } from './hallowick/connector';
import type { Session } from './session';

/** A session in which the account is allowed these things. */
const sessionWith = (exceptions: Record<string, unknown>, more = {}) =>
  ({
    send: async ({ path }: { path: string }) =>
      path === '/me' ? { name: 'shop', exceptions, ...more } : structuredClone(stranger.firstRules),
  }) as unknown as Session; // what is not asked for is not there

test('whatever limit an account has of its own holds for it, and nothing else becomes another', async () => {
  const session = sessionWith({ title: 90, photos: 4, note: 300, newPerDay: 7, perMinute: 60 });
  const usual = await hallowick.readRules(session);
  const { exceptions } = await hallowick.readAccount(session);
  const own = rulesFor(usual, exceptions);
  expect(own.title?.max).toBe(90);
  expect(own.photos).toEqual({ ...usual.photos, max: 4 });
  expect(own.conditionNote?.max).toBe(300);
  expect(own.pacing).toEqual({ perMinute: 60, newPerDay: 7 });
  expect(own.description).toEqual(usual.description);
  expect(Object.keys(exceptions.parts ?? {}).sort()).toEqual(['conditionNote', 'photos', 'title']);
});

test('the sections named in an account’s shop are what one chooses from there', async () => {
  const sections = [{ id: 'glass', label: 'Glass' }];
  const session = sessionWith({ lists: { sections } });
  const usual = await hallowick.readRules(session);
  const { exceptions } = await hallowick.readAccount(session);
  const own = rulesFor(usual, exceptions).extras.find((one) => one.id === 'section');
  expect(usual.extras.find((one) => one.id === 'section')).toMatchObject({ type: 'text', values: null });
  expect(own).toMatchObject({ type: 'choice', values: sections });
  expect(Object.keys(exceptions.parts ?? {})).toEqual(['extras']);
});

test('an account without limits of its own has the marketplace’s, and says how it stands', async () => {
  const until = Date.now() + 60_000;
  const told = await hallowick.readAccount(sessionWith({}, { lockedUntil: until, warned: true }));
  expect(told).toEqual({ remoteName: 'shop', exceptions: {}, lockedUntil: new Date(until), warned: true });
});

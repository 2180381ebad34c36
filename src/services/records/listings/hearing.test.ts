import { unheardSince } from './hearing';

const now = new Date('2026-11-26T12:00:00Z');
const before = (seconds: number) => new Date(now.getTime() - seconds * 1_000);
const row = (part: Partial<Parameters<typeof unheardSince>[0]> = {}) => ({
  market: 'hallowick',
  state: 'connected' as const,
  pausedAt: null,
  lockedUntil: null,
  heardAt: before(30),
  createdAt: before(90_000),
  ...part,
});

test('an account that has not been heard for three of its intervals is told, one that a person knows of is not', () => {
  expect(unheardSince(row(), now)).toBeNull();
  expect(unheardSince(row({ heardAt: before(179) }), now)).toBeNull();
  expect(unheardSince(row({ heardAt: before(181) }), now)).toEqual(before(181));
  // Without events it is asked every five seconds.
  expect(unheardSince(row({ market: 'lotbarn', heardAt: before(16) }), now)).toEqual(before(16));
  expect(unheardSince(row({ heardAt: null, createdAt: before(10) }), now)).toBeNull();
  expect(unheardSince(row({ heardAt: null }), now)).toEqual(before(90_000));
  for (const known of [{ pausedAt: before(600) }, { lockedUntil: before(-60) }, { state: 'reconnect' as const }])
    expect(unheardSince(row({ heardAt: before(9_999), ...known }), now)).toBeNull();
});

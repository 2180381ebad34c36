import { mkdirSync } from 'node:fs';
import { killer, trouble } from '../faults/weather.mjs';
import { client, control, drained, moveClock, pause, seeded } from '../support/drive.mjs';
import { agreement } from './agreement.mjs';
import { buyers } from './buyers.mjs';
import { daysOf } from './days.mjs';
import { Seller } from './seller.mjs';
import { memory, onDisk, programs } from './sizes.mjs';

const victims = ['worker', 'tasks', 'web', 'worker', 'database'];
const hoursMs = 3_600_000;
const partsOfDay = 6;
/** Trouble is left alone for so long that a marketplace is away for the whole of a day. */
const away = { kind: 'drop-before', times: 1_000_000 };

/** Every account is compared, everything that waits is sent, and nobody is held up any more. */
async function settle({ call, drive, markets, accounts }) {
  for (const market of markets) await drive(market, 'calm');
  for (const { market, remoteName } of accounts) await drive(market, 'lock', { seller: remoteName, minutes: 0 });
  await drained(call, 600_000);
  for (const { id } of accounts) await call('POST', `/accounts/${id}/compare`, {});
  await drained(call, 600_000);
}

/** A seller's week at the screen, while buyers buy, marketplaces misbehave and programs are killed. */
export async function week({ processes, settings, seed, minutes, from, say }) {
  const random = seeded(seed);
  const call = client(settings);
  const drive = control(settings);
  const folder = `${settings.dataFolder}/week`;
  mkdirSync(folder, { recursive: true });
  const { accounts } = (await call('GET', '/accounts')).body;
  const markets = [...new Set(accounts.map((one) => one.market))];
  const seller = new Seller({ base: `http://127.0.0.1:${settings.port}`, folder, say });
  const whole = daysOf({ seller, settings, call, drive, run: String(seed) });
  const dayMs = (minutes * 60_000) / whole.length;
  const days = whole.slice(from - 1);
  const told = { days: [], bought: 0, calledOff: 0, sentBack: 0, faults: 0, kills: 0 };
  const first = { memory: memory(processes), disk: onDisk(settings.dataFolder) };
  await seller.begin();
  try {
    for (const day of days) {
      const began = Date.now();
      say(`  ${day.name}`);
      if (day.away) await drive(day.away, 'fault', away);
      const others = markets.filter((one) => one !== day.away);
      const endBuyers = buyers({
        settings,
        drive,
        markets: others,
        random,
        everyMs: 5_000,
        isAway: (market) => market === day.away,
      });
      const endTrouble = trouble(drive, others, random, 1_500);
      const endKilling = killer(processes, random, victims, 40_000);
      // The clock of the marketplaces goes on with the day, between the chores.
      const steps = Math.max(partsOfDay, day.chores.length);
      for (let at = 0; at < steps; at++) {
        await day.chores[at]?.();
        await moveClock(settings, (24 / steps) * hoursMs);
        const rest = began + ((at + 1) * dayMs) / steps - Date.now();
        if (rest > 0) await pause(rest);
      }
      told.kills += await endKilling();
      told.faults += await endTrouble();
      const counted = await endBuyers();
      for (const name of ['bought', 'calledOff', 'sentBack']) told[name] += counted[name];
      if (day.away) await drive(day.away, 'calm');
      await settle({ call, drive, markets, accounts });
      const now = { memory: memory(processes), disk: onDisk(settings.dataFolder) };
      const agreed = await agreement(settings, call);
      told.days.push({ name: day.name, ...now, ...agreed });
      say(
        `    in the evening: ${programs.map((name) => `${name} ${now.memory[name]} MB`).join(', ')}; tables ${now.disk.tables} MB, photos ${now.disk.photos} MB; ${agreed.compared} listings compared, ${agreed.lost.length} lost, ${agreed.doubled.length} doubled, ${agreed.wrong.length} wrong`,
      );
      for (const one of [...agreed.lost, ...agreed.doubled, ...agreed.wrong].slice(0, 8)) say(`      ${one}`);
    }
  } finally {
    await seller.end();
  }
  const last = told.days.at(-1);
  const undone = seller.chores.filter((one) => one.problem !== null);
  const again = seller.chores.filter((one) => one.problem === null && one.tries > 1);
  const broken = told.days.reduce((sum, day) => sum + day.lost.length + day.doubled.length + day.wrong.length, 0);
  const pair = (from, to) => `${from} and ${to} MB`;
  return {
    id: 'a week',
    ok:
      undone.length === 0 &&
      broken === 0 &&
      // An evening on which nothing was compared has shown nothing.
      told.days.every((day) => day.compared > 0) &&
      told.kills > 0 &&
      told.faults > 0 &&
      told.bought > 0,
    text: [
      `${minutes} minutes, ${seller.chores.length} chores at the screen, ${again.length} begun anew, ${undone.length} not done`,
      `${told.bought} bought, ${told.calledOff} called off, ${told.sentBack} sent back, ${told.faults} faults, ${told.kills} × kill -9`,
      `before and after: ${programs.map((name) => `${name} ${pair(first.memory[name], last.memory[name])}`).join(', ')}`,
      `tables ${pair(first.disk.tables, last.disk.tables)}, photos ${pair(first.disk.photos, last.disk.photos)}`,
      ...undone.map((one) => `not done: ${one.name}: ${one.problem}`),
    ].join('; '),
  };
}

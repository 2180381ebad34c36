import { readFileSync } from 'node:fs';
import { type House, perMinute, secondsToSend } from './simulate';

/** What was measured on this machine: milliseconds of a core for one change that is sent, by who spent them. */
const measured = JSON.parse(readFileSync(0, 'utf8')) as {
  changes: number;
  seconds: number;
  lanes: { perMinute: number; waiting: number }[];
  ms: { sender: number; database: number; other: number };
};
const { changes, seconds, lanes, ms } = measured;
const here: House = {
  senders: 1,
  coresEach: 2,
  senderMs: ms.sender,
  databaseCores: 2,
  databaseMs: ms.database,
  shared: { cores: 2, otherMs: ms.other },
};
const foretold = secondsToSend(lanes, here);
console.log(
  JSON.stringify({
    id: `growth: ${changes} changes foretold against measured`,
    value: foretold,
    unit: 's',
    baseline: seconds,
    ratio: foretold / seconds,
    goal: '0.75 to 1.25',
    ok: foretold / seconds > 0.75 && foretold / seconds < 1.25,
  }),
);
/** Accounts with the paces of the eleven, over and over. */
const paces = [1_200, 1_200, 600, 1_200, 900, 900, 600, 300, 300, 600, 300, 120];
const accounts = (count: number) =>
  Array.from({ length: count }, (_, at) => ({ perMinute: paces[at % paces.length] ?? 300, waiting: 0 }));
const cores = 8;
for (const machines of [1, 3, 9])
  for (const count of [12, 60, 240]) {
    // One machine is all in one; of three and nine each has a node, a sender and a web process, and one node is written to.
    const house: House =
      machines === 1
        ? { ...here, coresEach: cores, databaseCores: cores, shared: { cores, otherMs: 0 } }
        : {
            senders: machines,
            coresEach: cores / 2,
            senderMs: ms.sender,
            databaseCores: cores / 2,
            databaseMs: ms.database,
          };
    const rate = perMinute(accounts(count), house);
    const allowed = accounts(count).reduce((sum, one) => sum + one.perMinute, 0);
    console.log(
      JSON.stringify({
        id: `growth: ${machines} × ${cores} cores, ${count} accounts`,
        value: rate,
        unit: 'changes a minute',
        baseline: allowed,
        ratio: rate / allowed,
        goal: 'what the marketplaces allow',
        ok: true,
      }),
    );
  }

import { closeDatabase } from '../db/client';
import { audit } from '../services/audit/audit';

/** Says what does not add up, and changes nothing. The exit code is 0 only when nothing was found. */
const { found } = await audit({ mend: false });
if (process.argv.includes('--json')) console.log(JSON.stringify(found));
else {
  for (const { says, count, named } of found) {
    console.log(`${count} × ${says}`);
    for (const { text } of named) console.log(`    ${text}`);
  }
  if (found.length === 0) console.log('Everything adds up.');
}
await closeDatabase();
process.exit(found.length === 0 ? 0 : 1);

import { closeDatabase } from '../db/client';
import { sealAnew } from '../services/audit/seal-anew';
import { sealedSettings } from '../services/summaries/summary-settings';

console.log(`${await sealAnew(sealedSettings)} secrets are sealed with the new key. Everybody has to sign in again.`);
await closeDatabase();

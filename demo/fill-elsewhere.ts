import { config } from '../src/config';
import { elsewhere } from './elsewhere';
import { listElsewhere } from './list-elsewhere';

// What a seller has listed before coming here: the marketplaces know it, Netting does not.
const listed = elsewhere(120, { seed: 21 });
console.log(`Putting ${listed.length} listings of a seller on four marketplaces …`);
await listElsewhere(config.marketsUrl, 'grainhouse', listed);

import { elsewhere } from '../../demo/elsewhere';
import { listElsewhere } from '../../demo/list-elsewhere';
import { config } from '../../src/config';

// What the demo's seller has listed by other means, so that there is something to bring in.
await listElsewhere(config.marketsUrl, 'grainhouse', elsewhere(22, { markets: ['hallowick', 'shopfront'], seed: 8 }));

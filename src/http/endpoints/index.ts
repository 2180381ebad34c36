import type { Endpoint } from '../endpoint';
import { changeEndpoints } from './changes';
import { itemEndpoints } from './items';
import { recordingEndpoints } from './recording';
import { shopEndpoints } from './shops';
import { syncEndpoints } from './sync';
import { tellingEndpoints } from './telling';
import { workEndpoints } from './work';

export const endpoints: Endpoint[] = [
  ...recordingEndpoints,
  ...itemEndpoints,
  ...changeEndpoints,
  ...workEndpoints,
  ...shopEndpoints,
  ...syncEndpoints,
  ...tellingEndpoints,
];

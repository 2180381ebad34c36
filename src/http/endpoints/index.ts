import { accessEndpoints } from './access';
import { accountsEndpoints } from './accounts';
import { artworkEndpoints } from './artwork';
import { changesEndpoints } from './changes';
import { consignmentsEndpoints } from './consignments';
import { exportingEndpoints } from './exporting';
import { gatheringEndpoints } from './gathering';
import { importingEndpoints } from './importing';
import { insightsEndpoints } from './insights';
import { intakeEndpoints } from './intake';
import { itemsEndpoints } from './items';
import { kitsEndpoints } from './kits';
import { labelsEndpoints } from './labels';
import { listingsEndpoints } from './listings';
import { listsEndpoints } from './lists';
import { outboxEndpoints } from './outbox';
import { photosEndpoints } from './photos';
import { postageEndpoints } from './postage';
import { recordsEndpoints } from './records';
import { routinesEndpoints } from './routines';
import { stockEndpoints } from './stock';
import { summariesEndpoints } from './summaries';
import { syncEndpoints } from './sync';
import { tasksEndpoints } from './tasks';
import { templatesEndpoints } from './templates';

// In this order addresses are looked for: fixed words before numbers.
export const endpoints = [
  ...listsEndpoints,
  ...recordsEndpoints,
  ...itemsEndpoints,
  ...photosEndpoints,
  ...changesEndpoints,
  ...routinesEndpoints,
  ...accountsEndpoints,
  ...postageEndpoints,
  ...listingsEndpoints,
  ...templatesEndpoints,
  ...stockEndpoints,
  ...syncEndpoints,
  ...outboxEndpoints,
  ...labelsEndpoints,
  ...intakeEndpoints,
  ...consignmentsEndpoints,
  ...kitsEndpoints,
  ...artworkEndpoints,
  ...insightsEndpoints,
  ...summariesEndpoints,
  ...exportingEndpoints,
  ...importingEndpoints,
  ...gatheringEndpoints,
  ...tasksEndpoints,
  ...accessEndpoints,
];

export { restConnector } from './connector';
export { listingReader } from './listing';
export { aboutAttribute, withOurField } from './our-field';

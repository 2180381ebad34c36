export { whichLabels } from './entries';
export * from './make';
export * from './order';

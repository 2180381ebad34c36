export * from './backdrop';
export * from './recipe';
export * from './tone';

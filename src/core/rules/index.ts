export * from './carrier';
export * from './compare';
export * from './compiled';
export * from './rules';

export * from './difference';
export * from './plan';
export * from './priority';
export * from './retry';
export * from './snapshot';
export * from './state';

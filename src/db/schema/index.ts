export * from './auth';
export * from './item';
export * from './knowledge';
export * from './market';
export * from './work';

export * from './auth';
export * from './file';
export * from './gather';
export * from './item';
export * from './mapping';
export * from './market';
export * from './photos';
export * from './work';

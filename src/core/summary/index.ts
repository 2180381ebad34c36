export * from './atom';
export * from './summary';

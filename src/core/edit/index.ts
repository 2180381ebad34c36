export * from './operation';
export * from './outcome';

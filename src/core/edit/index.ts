export * from './operation';
export * from './outcome';
export * from './portions';

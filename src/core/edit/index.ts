export * from './inverse';
export * from './operation';
export * from './outcome';

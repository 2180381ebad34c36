export * from './command';
export * from './note';
export * from './place';
export * from './settings';
export * from './share-cost';
export * from './worth';

export * from './brief';
export * from './catalogue';
export * from './combination-fields';
export * from './field';
export * from './item-fields';
export * from './item-values';
export * from './kind';
export * from './listing-fields';

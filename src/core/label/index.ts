export * from './box-label';
export * from './commands';
export * from './label';
export * from './mark';
export * from './packing-list';
export * from './request';
export * from './size';

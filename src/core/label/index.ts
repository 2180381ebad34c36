export * from './label';
export * from './mark';
export * from './size';

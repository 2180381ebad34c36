export * from './commands';
export * from './label';
export * from './mark';
export * from './request';
export * from './size';

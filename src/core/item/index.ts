export * from './condition';
export * from './copy';
export * from './item';
export * from './own-fields';
export * from './sku';
export * from './sku-pattern';
export * from './variation-table';
export * from './variations';

export * from './effect';
export * from './facts';
export * from './groups';
export * from './layers';
export * from './period';
export * from './sums';
export * from './survival';
export * from './table';

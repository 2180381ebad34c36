export * from './comparables';
export * from './fee-table';
export * from './fees';
export * from './listing-price';
export * from './net';
export * from './postage';
export * from './solve';

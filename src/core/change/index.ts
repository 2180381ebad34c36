export * from './apply';
export * from './change';
export * from './invert';
export * from './keys';
export * from './movements';
export * from './own-faults';
export * from './returnable';

export * from './apply';
export * from './change';
export * from './invert';
export * from './keys';
export * from './movements';

export * from './length';
export * from './money';
export * from './number';
export * from './parcel';
export * from './rate';
export * from './rounding';
export * from './weight';

export * from './candidates';
export * from './compare';
export * from './join';
export * from './nearest';
export * from './photos';
export * from './thing';
export * from './words';

export * from './computed';
export * from './maker';

export * from './computed';
export * from './glossary';
export * from './maker';
export * from './term';

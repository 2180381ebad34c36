export * from './gtin';
export * from './read-scan';

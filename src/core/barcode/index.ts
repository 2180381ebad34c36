export * from './gtin';

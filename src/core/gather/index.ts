export * from './kept-as-shown';
export * from './richest';
export * from './told';

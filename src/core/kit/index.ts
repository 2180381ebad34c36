export * from './contents';
export * from './expand';
export * from './join';
export * from './read-contents';
export * from './totals';

export * from './contrast';
export * from './details';
export * from './ground-score';
export * from './place';
export * from './products';
export * from './reads-on';
export * from './visible';

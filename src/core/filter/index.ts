export * from './address';
export * from './compared';
export * from './filter';
export * from './matches';
export * from './mentions';
export * from './say';
export * from './sorting';
export * from './stages';

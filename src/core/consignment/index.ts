export * from './box';
export * from './contents-rows';
export * from './cost';
export * from './missing';
export * from './pack';

export * from './apply-steps';
export * from './apply-to-numbers';
export * from './formula';
export * from './older';
export * from './portions';
export * from './routine';
export * from './step';
export * from './verbs';

export * from './role';
export * from './withheld';

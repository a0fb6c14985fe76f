export * from './book';
export * from './fields';
export * from './fleet';
export * from './level';
export * from './people';
export * from './rounds';
export * from './settings';
export * from './surfaces';
export { validate, type Validated } from './validate';

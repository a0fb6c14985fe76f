export * from './book';
export * from './fields';
export * from './fleet';
export * from './level';
export * from './rounds';
export { validate, type Validated } from './validate';

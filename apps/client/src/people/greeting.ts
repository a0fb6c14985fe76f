// What only somebody sees who is not signed in. One piece of code: what two pieces share would be fetched with every page.
export { Welcome } from '../ui/Welcome';
export { FirstStart } from './FirstStart';
export { DemoAccounts } from './DemoAccounts';

export { MeScreen as default } from '../src/people/MeScreen';

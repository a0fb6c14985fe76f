export { InspectScreen as default } from '../src/care/InspectScreen';

export { ProceduresScreen as default } from '../../src/care/ProceduresScreen';

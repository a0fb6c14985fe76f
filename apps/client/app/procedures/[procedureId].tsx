export { ProcedureScreen as default } from '../../src/care/ProcedureScreen';

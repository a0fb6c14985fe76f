import { fromForms } from '../../../src/shell/fromRoom';

export default fromForms('EditMachineScreen');

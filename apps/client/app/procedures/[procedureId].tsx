import { fromHands } from '../../src/shell/fromRoom';

export default fromHands('ProcedureScreen');

// What areas keep on this device, before the first view.
import '../care/jobsArea';
import '../level/levelArea';

export { openDevice, store } from '../state/store';

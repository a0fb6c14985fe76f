export { MachineScreen as default } from '../../../src/fleet/MachineScreen';

export { NewMachineScreen as default } from '../../src/fleet/NewMachineScreen';

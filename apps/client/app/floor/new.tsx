export { NewMachineScreen as default } from '../../src/floor/NewMachineScreen';

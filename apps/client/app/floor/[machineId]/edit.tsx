export { EditMachineScreen as default } from '../../../src/fleet/EditMachineScreen';

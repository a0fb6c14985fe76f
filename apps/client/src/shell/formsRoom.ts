// Views with the large forms. One piece of code: the kit of forms that they share would otherwise be fetched with every page.
export { EditMachineScreen } from '../fleet/EditMachineScreen';
export { NewMachineScreen } from '../floor/NewMachineScreen';
export { KindsScreen } from '../surfaces/KindsScreen';

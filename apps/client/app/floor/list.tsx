export { default } from '../../src/fleet/FleetListScreen';

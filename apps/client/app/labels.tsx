export { LabelsScreen as default } from '../src/surfaces/LabelsScreen';

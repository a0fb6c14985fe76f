import type { MachineForm } from './machineForm';

export interface CommonPlate {
  label: string;
  family: 'filament' | 'resin';
  plate: [number, number];
  print: [number, number];
}

/** Plates that are often met, by their print area, mm. Common practice: the real plate is measured all the same. */
export const COMMON_PLATES: readonly CommonPlate[] = [
  { label: '180 × 180, small', family: 'filament', plate: [190, 190], print: [180, 180] },
  { label: '220 × 220', family: 'filament', plate: [235, 235], print: [220, 220] },
  { label: '250 × 210', family: 'filament', plate: [254, 235], print: [250, 210] },
  { label: '256 × 256', family: 'filament', plate: [262, 262], print: [256, 256] },
  { label: '300 × 300', family: 'filament', plate: [310, 310], print: [300, 300] },
  { label: '350 × 350', family: 'filament', plate: [365, 360], print: [350, 350] },
  { label: '143 × 89, resin', family: 'resin', plate: [150, 95], print: [143, 89] },
  { label: '192 × 120, resin', family: 'resin', plate: [202, 130], print: [192, 120] },
  { label: '218 × 123, resin', family: 'resin', plate: [228, 132], print: [218, 123] },
];

/** What a plate says of a form. */
export const PLATE_FIELDS = ['family', 'plateWidth', 'plateDepth', 'printWidth', 'printDepth'] as const;

/** A form with this plate in it. */
export const withPlate = (form: MachineForm, { family, plate, print }: CommonPlate): MachineForm => ({
  ...form,
  family,
  plateWidth: String(plate[0]),
  plateDepth: String(plate[1]),
  printWidth: String(print[0]),
  printDepth: String(print[1]),
});

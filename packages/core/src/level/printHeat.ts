import { PRINTED, type Printed } from '../fit/compatibility';

/** Nozzle and bed for the first layer of a material, °C. Common practice; the spool's label says better. */
export const PRINT_HEAT: Record<Exclude<Printed, 'resin'>, { nozzle: number; bed: number }> = {
  pla: { nozzle: 210, bed: 60 },
  petg: { nozzle: 240, bed: 80 },
  abs: { nozzle: 245, bed: 100 },
  tpu: { nozzle: 225, bed: 45 },
  nylon: { nozzle: 255, bed: 80 },
  pc: { nozzle: 270, bed: 105 },
  pp: { nozzle: 230, bed: 85 },
};

/** Materials that the test print knows. */
export const PRINT_MATERIALS = PRINTED.filter((one): one is Exclude<Printed, 'resin'> => one !== 'resin');

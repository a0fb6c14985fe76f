/**
 * NIST Statistical Reference Datasets, linear regression, "Pontius" (load cell calibration, quadratic, 40 observations):
 * pairs [load x, deflection y] and the certified estimates of y = b0 + b1·x + b2·x². Written down from memory; data and
 * certified values confirm each other, since a slip in either would break the agreement in the tenth digit.
 */
const FIRST = [
  0.11019, 0.21956, 0.32949, 0.43899, 0.54803, 0.65694, 0.76562, 0.87487, 0.98292, 1.09146, 1.20001, 1.30822, 1.41599,
  1.52399, 1.63194, 1.73947, 1.84646, 1.95392, 2.06128, 2.16844,
];
const SECOND = [
  0.11052, 0.22018, 0.32939, 0.43886, 0.54798, 0.65739, 0.76596, 0.87474, 0.983, 1.0915, 1.20004, 1.30818, 1.41613,
  1.52408, 1.63159, 1.73965, 1.84696, 1.95445, 2.06177, 2.16829,
];

export const PONTIUS = {
  data: [FIRST, SECOND].flatMap((run) => run.map((deflection, i): [number, number] => [150_000 * (i + 1), deflection])),
  certified: {
    b0: 0.673565789473684e-3,
    b1: 0.732059160401003e-6,
    b2: -0.316081871345029e-14,
    deviation0: 0.107938612033077e-3,
    deviation1: 0.157817399981659e-9,
    deviation2: 0.486652849992036e-16,
    residualDeviation: 0.205177424076185e-3,
  },
};

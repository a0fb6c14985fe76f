/** Lists that can be had as CSV. */
export const CSV_LISTS = [
  'machines',
  'surfaces',
  'kinds',
  'prints',
  'offsets',
  'inspections',
  'checks',
  'jobs',
  'mounts',
  'people',
  'book',
] as const;
export type CsvList = (typeof CSV_LISTS)[number];

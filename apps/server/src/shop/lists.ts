import type {
  BookEntry,
  CsvList,
  Inspection,
  JobEntry,
  KeptOffset,
  LevelCheckSummary,
  MachineOverview,
  Page,
  Person,
  Print,
  Surface,
} from '@even-bed/contract';
import { surfaceCondition } from '@even-bed/core';
import { placesInWords } from '@even-bed/core/wear/platePlaces';
import { adjustersCell, listNumber } from '@even-bed/core/fleet/listCells';
import type { Knex } from 'knex';
import { listEntries } from '../book/store';
import { listJobs } from '../care/jobStore';
import { listInspections } from '../care/store';
import { listMachines } from '../fleet/store';
import { csv } from '../kernel/csv';
import { breathe } from '../db/breathe';
import { LIMITS } from '../kernel/limits';
import { listChecks } from '../level/store';
import { listPeople } from '../people/store';
import { listOffsets } from '../surfaces/offsetStore';
import { listSpans, type MountSpan } from '../surfaces/spanStore';
import { listKinds, listSurfaces } from '../surfaces/store';
import { listPrints } from '../wear/store';

const day = (at: number | null) => (at === null ? '' : new Date(at).toISOString());

interface Column<T> {
  head: string;
  of: (item: T) => unknown;
}
const column = <T>(head: string, of: (item: T) => unknown): Column<T> => ({ head, of });
const number = <T>(head: string, of: (item: T) => number | null | undefined): Column<T> =>
  column(head, (item) => {
    const value = of(item);
    return value === null || value === undefined ? '' : listNumber(value);
  });

/** All facts but the console, so that the list can be read in again. */
const MACHINES: Column<MachineOverview>[] = [
  column('tag', ({ tag }) => tag),
  column('name', ({ name }) => name),
  column('area', ({ areaName }) => areaName),
  column('shelf', ({ shelf }) => shelf),
  column('model', ({ model }) => model),
  column('family', ({ family }) => family),
  number('plate width mm', ({ plateWidth }) => plateWidth),
  number('plate depth mm', ({ plateDepth }) => plateDepth),
  number('print width mm', ({ printWidth }) => printWidth),
  number('print depth mm', ({ printDepth }) => printDepth),
  number('left margin mm', ({ originX }) => originX),
  number('front margin mm', ({ originY }) => originY),
  column('adjusters', ({ adjusters }) => adjustersCell(adjusters)),
  column('seen from', ({ seenFrom }) => seenFrom),
  column('compensation', ({ compensation }) => compensation),
  number('first layer mm', ({ firstLayer }) => firstLayer),
  number('aim mm', ({ aim }) => aim),
  column('finds z', ({ finding }) => finding),
  column('plus means', ({ plus }) => plus),
  number('map first x mm', ({ mapExtent }) => mapExtent?.x0),
  number('map last x mm', ({ mapExtent }) => mapExtent?.x1),
  number('map first y mm', ({ mapExtent }) => mapExtent?.y0),
  number('map last y mm', ({ mapExtent }) => mapExtent?.y1),
  column('map first row', ({ mapFirstRow }) => mapFirstRow),
  number('hottest bed C', ({ hottest }) => hottest),
  number('key of the platform mm', ({ platformKey }) => platformKey),
  column('last level check', ({ lastCheck }) => day(lastCheck?.endedAt ?? null)),
  number('range mm', ({ lastCheck }) => lastCheck?.after),
  column('next due', ({ rule }) => day(rule?.nextDueAt ?? null)),
  column('note', ({ note }) => note),
];
const surfaces = (now: number): Column<Surface>[] => [
  column('tag', ({ tag }) => tag),
  column('kind', ({ kind }) => kind.name),
  column('state', ({ state }) => surfaceCondition(state, now)),
  column('where', ({ state, machineName }) => machineName ?? (state.where.kind === 'rack' ? state.where.place : '')),
  column('side up', ({ state }) => (state.where.kind === 'machine' ? state.where.sideUp : '')),
  column('hold until', ({ state }) => day(state.hold?.until ?? null)),
  number('width mm', ({ width }) => width),
  number('depth mm', ({ depth }) => depth),
  number('thickness mm', ({ thickness, kind }) => thickness ?? kind.thickness),
  column('prints', ({ prints }) => prints),
  column('failures since renewed', ({ failures }) => failures),
  column('bought', ({ boughtAt }) => day(boughtAt)),
  column('price', ({ price }) => price),
  column('note', ({ note }) => note),
];
const PRINTS: Column<Print>[] = [
  column('ended', ({ endedAt }) => day(endedAt)),
  column('machine', ({ machineName }) => machineName),
  column('surface', ({ surfaceTag }) => surfaceTag),
  column('side', ({ side }) => side),
  column('material', ({ material }) => material),
  column('held', ({ held }) => held),
  column('failure', ({ failure }) => failure),
  column('release', ({ release }) => release),
  column('places', ({ places }) => placesInWords(places)),
  column('duration s', ({ duration }) => duration),
  column('grams', ({ grams }) => grams),
  column('person', ({ personName }) => personName),
  column('note', ({ note }) => note),
];
const OFFSETS: Column<KeptOffset>[] = [
  column('at', ({ at }) => day(at)),
  column('machine', ({ machineName }) => machineName),
  column('surface', ({ surfaceTag }) => surfaceTag),
  number('offset mm', ({ offset }) => offset),
  column('weight', ({ weight }) => weight),
  column('person', ({ personName }) => personName),
  column('note', ({ note }) => note),
];
const PEOPLE: Column<Person>[] = [
  column('name', ({ name }) => name),
  column('role', ({ role }) => role),
  column('here', ({ active }) => active),
];
const INSPECTIONS: Column<Inspection>[] = [
  column('at', ({ at }) => day(at)),
  column('card', ({ card }) => card),
  column('code', ({ code }) => code),
  column('numbers', ({ numbers }) => numbers),
  column('note', ({ note }) => note),
  column('person', ({ personName }) => personName),
  column('surface id', ({ surfaceId }) => surfaceId),
  column('machine id', ({ machineId }) => machineId),
];
const CHECKS: Column<LevelCheckSummary>[] = [
  column('begun', ({ startedAt }) => day(startedAt)),
  column('machine', ({ machineName }) => machineName),
  column('ended', ({ endedAt }) => day(endedAt)),
  column('outcome', ({ outcome }) => outcome),
  column('readings', ({ rounds }) => rounds),
  number('range before mm', ({ before }) => before),
  number('range after mm', ({ after }) => after),
  number('aim mm', ({ aim }) => aim),
];
const JOBS: Column<JobEntry>[] = [
  column('begun', ({ startedAt }) => day(startedAt)),
  column('machine', ({ machineName }) => machineName),
  column('job', ({ title }) => title),
  column('in hand of', ({ holderName }) => holderName),
  column('step', ({ stepTitle }) => stepTitle),
  column('waits until', ({ waitUntil }) => day(waitUntil)),
  column('ended', ({ endedAt }) => day(endedAt)),
  column('how it ended', ({ ended }) => ended),
];
const MOUNTS: Column<MountSpan>[] = [
  column('surface', ({ surfaceTag }) => surfaceTag),
  column('machine', ({ machineName }) => machineName),
  column('place', ({ slot }) => slot),
  column('side up', ({ sideUp }) => sideUp),
  column('from', ({ from }) => day(from)),
  column('until', ({ until }) => day(until)),
  column('put on by', ({ personName }) => personName),
];
const BOOK: Column<BookEntry>[] = [
  column('line', ({ seq }) => seq),
  column('at', ({ at }) => day(at)),
  column('written', ({ writtenAt }) => day(writtenAt)),
  column('kind', ({ kind }) => kind),
  column('machine', ({ machineName }) => machineName),
  column('surface', ({ surfaceTag }) => surfaceTag),
  column('person', ({ personName }) => personName),
  column('text', ({ text }) => text),
  column('corrects', ({ corrects }) => corrects),
];

function* table<T>(columns: readonly Column<T>[], items: readonly T[], first: boolean): Generator<string> {
  const rows = items.map((item) => columns.map(({ of }) => of(item)));
  // Only the first part carries the byte order mark and the heads.
  yield first ? csv([columns.map(({ head }) => head), ...rows]) : csv(rows).slice(1);
}

async function* paged<T>(
  columns: readonly Column<T>[],
  page: (after: string | undefined) => Promise<Page<T>>,
): AsyncGenerator<string> {
  for (let after: string | undefined, first = true; ; first = false) {
    const { items, next }: Page<T> = await page(after);
    if (first || items.length > 0) yield* table(columns, items, first);
    if (next === null) return;
    after = next;
    // SQLite answers at once: without this nobody else would get a turn until the list ends.
    await breathe();
  }
}

const PAGE = LIMITS.linesAtOnce;

/** A whole list as CSV, part by part, however long it is. */
export async function* csvOf(db: Knex, list: CsvList, now: number): AsyncGenerator<string> {
  switch (list) {
    case 'machines':
      return yield* table(MACHINES, await listMachines(db, now), true);
    case 'people':
      return yield* table(PEOPLE, await listPeople(db), true);
    case 'offsets':
      return yield* paged(OFFSETS, (after) => listOffsets(db, { limit: PAGE, after }));
    case 'kinds': {
      const kinds = await listKinds(db);
      const heads = ['name', 'group', 'thickness mm', 'limit C', 'sides', 'note'];
      yield csv([
        heads,
        ...kinds.map(({ name, group, thickness, limit, sides, note }) => [
          name,
          group,
          thickness,
          limit,
          sides.join(' / '),
          note,
        ]),
      ]);
      return;
    }
    case 'inspections':
      return yield* paged(INSPECTIONS, (after) => listInspections(db, { limit: PAGE, after }));
    case 'surfaces':
      return yield* paged(surfaces(now), (after) => listSurfaces(db, { search: '', limit: PAGE, after }, now));
    case 'prints':
      return yield* paged(PRINTS, (after) => listPrints(db, { search: '', limit: PAGE, after }));
    case 'checks':
      return yield* paged(CHECKS, (after) => listChecks(db, { limit: PAGE, after }));
    case 'jobs':
      return yield* paged(JOBS, (after) => listJobs(db, { open: false, limit: PAGE, after }));
    case 'mounts':
      return yield* paged(MOUNTS, (after) => listSpans(db, { limit: PAGE, after }));
    case 'book':
      return yield* paged(BOOK, (after) => listEntries(db, { search: '', limit: PAGE, after }));
  }
}

import type { Knex } from 'knex';
import * as fleet from './20261125_01_fleet';
import * as level from './20261125_02_level';
import * as book from './20261125_03_book';
import * as writes from './20261125_04_writes';
import * as people from './20261125_05_people';
import * as surfaces from './20261125_06_surfaces';
import * as bookChain from './20261125_07_book_chain';
import * as prints from './20261125_08_prints';
import * as plans from './20261125_09_plans';
import * as jobs from './20261125_10_jobs';
import * as devices from './20261126_12_devices';
import * as materials from './20261126_11_materials';
import * as smallMaps from './20261126_13_small_maps';
import * as writtenAt from './20261126_14_written_at';
import * as programTokens from './20261126_15_program_tokens';
import * as bookWords from './20261126_16_book_words';
import * as stepRecords from './20261127_17_step_records';
import * as jobsTogether from './20261127_18_jobs_together';
import * as levelsByHand from './20261127_19_levels_by_hand';
import * as shapes from './20261127_20_shapes';
import * as notedPrints from './20261201_21_noted_prints';
import * as printPlaces from './20261202_22_print_places';

/** All migrations by name; the date in the name is their order. */
export const migrations: Record<string, Knex.Migration> = {
  '20261125_01_fleet': fleet,
  '20261125_02_level': level,
  '20261125_03_book': book,
  '20261125_04_writes': writes,
  '20261125_05_people': people,
  '20261125_06_surfaces': surfaces,
  '20261125_07_book_chain': bookChain,
  '20261125_08_prints': prints,
  '20261125_09_plans': plans,
  '20261125_10_jobs': jobs,
  '20261126_11_materials': materials,
  '20261126_12_devices': devices,
  '20261126_13_small_maps': smallMaps,
  '20261126_14_written_at': writtenAt,
  '20261126_15_program_tokens': programTokens,
  '20261126_16_book_words': bookWords,
  '20261127_17_step_records': stepRecords,
  '20261127_18_jobs_together': jobsTogether,
  '20261127_19_levels_by_hand': levelsByHand,
  '20261127_20_shapes': shapes,
  '20261201_21_noted_prints': notedPrints,
  '20261202_22_print_places': printPlaces,
};

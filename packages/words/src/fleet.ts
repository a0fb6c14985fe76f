import type {
  FleetEvents,
  MachineFacts,
  PeopleEvents,
  RoundsEvents,
  ShopEvents,
  ShopSettings,
} from '@even-bed/contract';
import { counted } from './figures';
import type { Sentences } from './sentence';

const FACT_NAMES: Partial<Record<keyof MachineFacts, string>> = {
  areaId: 'area',
  plateWidth: 'plate width',
  plateDepth: 'plate depth',
  printWidth: 'print width',
  printDepth: 'print depth',
  originX: 'left margin',
  originY: 'front margin',
  seenFrom: 'where its knobs are seen from',
  firstLayer: 'first layer',
  finding: 'what finds Z',
  plus: 'what + means in its heights',
  mapExtent: 'where its height maps lie',
  mapFirstRow: 'first row of its height maps',
  hottest: 'hottest bed',
  platformKey: 'key of the platform',
};

function changesInWords(changed: FleetEvents['machine-changed']['changed']): string {
  const names = Object.keys(changed).map((key) => FACT_NAMES[key as keyof MachineFacts] ?? key);
  return names.length === 0 ? 'saved without a change' : `changed ${names.join(', ')}`;
}

export const fleetSentences: Sentences<FleetEvents> = {
  'area-added': ({ name }) => `Area ${name} added.`,
  'area-changed': ({ name, was }) => `Area ${was} is now ${name}.`,
  'machine-added': ({ areaName }, { machine }) => `${machine} added in ${areaName}.`,
  'machine-changed': ({ changed }, { machine }) => `${machine}: ${changesInWords(changed)}.`,
};

export const roundsSentences: Sentences<RoundsEvents> = {
  'rule-set': ({ everyDays: { to } }, { machine }) => `${machine}: level check every ${counted(to, 'day', 'days')}.`,
};

const SETTING_NAMES: Record<Exclude<keyof ShopSettings, 'version'>, string> = {
  name: 'name of the shop',
  units: 'lengths and temperatures in',
  turns: 'turns in',
  zone: 'time zone',
  numbers: 'numbers with a decimal',
  lockMinutes: 'minutes until a shared device locks',
  address: 'address for labels',
};

const UNIT_NAMES: Record<ShopSettings['units'], string> = { mm: 'millimetres and °C', in: 'inches and °F' };

export const shopSentences: Sentences<ShopEvents> = {
  'settings-changed': ({ changed }) => {
    const said = Object.entries(changed).map(
      ([key, { to }]) =>
        `${SETTING_NAMES[key as keyof typeof SETTING_NAMES]} ${key === 'units' ? UNIT_NAMES[to as ShopSettings['units']] : to || 'none'}`,
    );
    return said.length === 0 ? 'Settings saved without a change.' : `Settings: ${said.join(', ')}.`;
  },
};

function personChange({ name, role, active, newSecret, was }: PeopleEvents['person-changed']): string {
  const said = [
    was.name === name ? null : `now named ${name}`,
    was.role === role ? null : `${was.role} before, ${role} now`,
    was.active === active ? null : active ? 'is back' : 'no longer works here',
    newSecret ? 'new passphrase or PIN' : null,
  ].filter((part) => part !== null);
  return said.length > 0 ? said.join(', ') : 'saved without a change';
}

export const peopleSentences: Sentences<PeopleEvents> = {
  'person-added': ({ name, role, secretKind }) =>
    `${name} added as ${role}${secretKind === 'pin' ? ', with a PIN' : ''}.`,
  'person-changed': (change) => `${change.was.name}: ${personChange(change)}.`,
  'token-made': ({ name }, { machine }) =>
    machine === ''
      ? `Token “${name}” made for another program; it may read and nothing else.`
      : `${machine}: token “${name}” made; it may post prints and readings of this machine.`,
  'token-revoked': ({ name }) => `Token “${name}” revoked.`,
};

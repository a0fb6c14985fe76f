import Joi from 'joi';
import { nameField, record, toldTime } from '../kit/fields';

/** How the shop reads and works. */
export interface ShopSettings {
  name: string;
  units: 'mm' | 'in';
  /** IANA name of the shop's time zone. */
  zone: string;
  /** Which mark parts whole and fraction on screen. Both are understood when typed. */
  numbers: 'point' | 'comma';
  /** How turns of a screw are said: in parts of a turn, or in degrees. */
  turns: 'parts' | 'degrees';
  /** A shared device locks after this many minutes without a touch. */
  lockMinutes: number;
  /** Address under which phones reach the shop, for codes on labels; empty: the one that is used now. */
  address: string;
  version: number;
}

/** How numbers, lengths and times are shown. */
export type Manner = Pick<ShopSettings, 'units' | 'zone' | 'numbers' | 'turns'>;

export const DEFAULT_SETTINGS: ShopSettings = {
  name: 'My shop',
  units: 'mm',
  zone: 'UTC',
  numbers: 'point',
  turns: 'parts',
  lockMinutes: 5,
  address: '',
  version: 0,
};

function knownZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/** The name of a time zone that this computer knows. */
export const zoneField = () =>
  Joi.string()
    .max(60)
    .custom((value: string, helpers) => (knownZone(value) ? value : helpers.error('zone.unknown')))
    .messages({ 'zone.unknown': '{#label} is not known here. Use a name such as Europe/Lisbon.' })
    .label('Time zone');

export const settingsWriteSchema = record<SettingsWrite>({
  name: nameField('Name of the shop').required(),
  units: Joi.string().valid('mm', 'in').required().label('Units'),
  zone: zoneField().required(),
  numbers: Joi.string().valid('point', 'comma').required().label('Numbers'),
  turns: Joi.string().valid('parts', 'degrees').default('parts').label('Turns'),
  lockMinutes: Joi.number().integer().min(1).max(240).required().label('Minutes until a shared device locks'),
  address: Joi.string()
    .trim()
    .uri({ scheme: ['http', 'https'] })
    .max(200)
    .allow('')
    .required()
    .messages({ 'string.uriCustomScheme': '{#label} must begin with http:// or https://.' })
    .label('Address for labels'),
  version: Joi.number().integer().min(0).required().label('Version'),
  at: toldTime('Time').required(),
});
export type SettingsWrite = ShopSettings & { at: number };

/** What reading an export in asks: the code of the terminal, where one is asked. */
export interface ImportAsk {
  code?: string;
}
export const importAskSchema = record<ImportAsk>({ code: Joi.string().replace(/\s/g, '').max(20).label('Code') });

/** How other devices reach the shop. */
export interface Reach {
  /** Addresses in the shop's network, the best first; none: this host alone reaches it. */
  addresses: string[];
  /** What makes the way secure: the shop's own authority, a certificate that the shop has, its proxy, or nothing. */
  by: 'authority' | 'certificate' | 'proxy' | 'none';
  /** Where a device comes to trust the authority, and what its certificate is told by; null: nothing has to be trusted. */
  trust: { address: string; fingerprint: string } | null;
}

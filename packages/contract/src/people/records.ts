import { zoneField, type Manner } from '../shop/records';
import Joi from 'joi';
import { ROLES, type Role } from '../kit/operation';
import { COMMON_SECRETS } from './commonSecrets';
import { idField, nameField, record, toldTime } from '../kit/fields';

export type SecretKind = 'passphrase' | 'pin';

export interface Person {
  id: string;
  name: string;
  role: Role;
  secretKind: SecretKind;
  /** False for somebody who has left; the book keeps the name. */
  active: boolean;
  /** Until when sign-in is refused after too many wrong tries, epoch ms; null when it isn't. */
  lockedUntil: number | null;
  version: number;
}

/** An account of the demo, as its sign-in page names it. */
export interface DemoAccount {
  name: string;
  secret: string;
  role: Role;
}

/** Where this device stands: before the first account, signed out, locked with its person known, or signed in. */
export interface SessionState {
  state: 'first-start' | 'signed-out' | 'locked' | 'signed-in';
  person: Person | null;
  /** A workshop device that several people use: it locks by itself. */
  shared: boolean;
  sessionId: string | null;
  /** How the shop reads; null until somebody is signed in. */
  manner: Manner | null;
  demo: DemoAccount[] | null;
}

export interface SessionInfo {
  id: string;
  personId: string;
  personName: string;
  device: string;
  shared: boolean;
  createdAt: number;
  lastSeenAt: number;
  /** The one that asks. */
  current: boolean;
}

/** A token of a machine, or of another program (no machine), which may only read. */
export interface AccessToken {
  id: string;
  machineId: string | null;
  name: string;
  createdAt: number;
  lastUsedAt: number | null;
}

export const PIN_LEAST = 6;
export const PASSPHRASE_LEAST = 8;

/** A PIN that anybody would try first: one digit again and again, or digits in a row. */
function isPlain(pin: string): boolean {
  const steps = new Set([...pin].slice(1).map((digit, i) => Number(digit) - Number(pin[i])));
  return steps.size === 1 && Math.abs([...steps][0]!) <= 1;
}

/** A passphrase of at least 8 characters, or a PIN of at least 6 digits. Source of the lengths: NIST SP 800-63B §5.1.1. */
export const secretField = (label = 'Passphrase or PIN') =>
  Joi.string()
    .max(200)
    .custom((value: string, helpers) => {
      if (/^\d+$/.test(value)) {
        if (value.length < PIN_LEAST) return helpers.error('secret.pin');
        return isPlain(value) ? helpers.error('secret.plain') : value;
      }
      if (value.trim().length < PASSPHRASE_LEAST) return helpers.error('secret.passphrase');
      return isCommon(value) ? helpers.error('secret.common') : value;
    })
    .messages({
      'secret.pin': `{#label}: a PIN needs at least ${PIN_LEAST} digits.`,
      'secret.plain': '{#label}: this PIN is the first that anybody would try. Take another one.',
      'secret.common': '{#label}: this is one of the first that anybody would try. Take another one.',
      'secret.passphrase': `{#label}: a passphrase needs at least ${PASSPHRASE_LEAST} characters.`,
    })
    .label(label);

/** One that stands in lists, or one letter over and over. */
const isCommon = (value: string) => {
  const plain = value.trim().toLowerCase();
  return COMMON_SECRETS.has(plain) || new Set(plain).size < 3;
};

const personName = () => nameField('Name', 40);

export const firstPersonSchema = record<FirstPerson>({
  id: idField().required(),
  name: personName().required(),
  secret: secretField().required(),
  shared: Joi.boolean().default(false).label('Shared device'),
  /** Where the shop is, as the device says; left out: UTC. */
  zone: zoneField(),
  /** As it stands on the server's terminal. */
  code: Joi.string().replace(/\s/g, '').max(20).allow('').label('Code'),
  at: toldTime('Time').required(),
});
export interface FirstPerson {
  id: string;
  name: string;
  secret: string;
  shared: boolean;
  zone?: string;
  code?: string;
  at: number;
}

export const signInSchema = record<SignIn>({
  name: Joi.string().trim().min(1).max(40).required().label('Name'),
  secret: Joi.string().min(1).max(200).required().label('Passphrase or PIN'),
  shared: Joi.boolean().default(false).label('Shared device'),
});
export interface SignIn {
  name: string;
  secret: string;
  shared: boolean;
}

export const personWriteSchema = record<PersonWrite>({
  name: personName().required(),
  role: Joi.string()
    .valid(...ROLES)
    .required()
    .label('Role'),
  active: Joi.boolean().required().label('Active'),
  /** Left out: it stays as it is. */
  secret: secretField(),
  version: Joi.number().integer().min(0).required().label('Version'),
  at: toldTime('Time').required(),
});
export interface PersonWrite {
  name: string;
  role: Role;
  active: boolean;
  secret?: string;
  version: number;
  at: number;
}

export const ownSecretSchema = record<OwnSecret>({
  current: Joi.string().min(1).max(200).required().label('Present passphrase or PIN'),
  secret: secretField('New passphrase or PIN').required(),
});
export interface OwnSecret {
  current: string;
  secret: string;
}

export const tokenWriteSchema = record<TokenWrite>({
  name: nameField('Name of the token').required(),
  at: toldTime('Time').required(),
});
export interface TokenWrite {
  name: string;
  at: number;
}

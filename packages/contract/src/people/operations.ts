import type { AccessToken, Person, SessionInfo, SessionState } from './records';
import type { Page } from '../kit/fields';
import { operations } from '../kit/operation';

export interface PeopleAnswers {
  session: SessionState;
  makeFirstPerson: SessionState;
  signIn: SessionState;
  lock: { locked: boolean };
  signOut: { ended: boolean };
  sessions: Page<SessionInfo>;
  endSession: { ended: boolean };
  changeSecret: { changed: boolean };
  people: Page<Person>;
  savePerson: Person;
  unlockPerson: { unlocked: boolean };
  machineTokens: Page<AccessToken>;
  programTokens: Page<AccessToken>;
  makeProgramToken: AccessToken & { token: string };
  makeMachineToken: AccessToken & { token: string };
  revokeToken: { revoked: boolean };
}

export const peopleOperations = operations<typeof import('./records'), PeopleAnswers>()('people', {
  session: {
    method: 'get',
    path: '/session',
    access: 'anyone',
    fresh: true,
    summary: 'Who is signed in on this device',
    answers: 'The state of this device.',
    shows: ['Session'],
  },
  makeFirstPerson: {
    method: 'post',
    path: '/people/first',
    access: 'anyone',
    summary: 'Make the first account, a lead; only while there is none',
    answers: 'The state of this device, signed in.',
    body: 'firstPersonSchema',
    alone: true,
    touches: ['Session', 'Person'],
    refuses: [409],
  },
  signIn: {
    method: 'post',
    path: '/session',
    access: 'anyone',
    summary: 'Sign in, or switch to another person',
    answers: 'The state of this device, signed in. 429 while a name is slowed after wrong tries.',
    body: 'signInSchema',
    alone: true,
    touches: ['Session'],
  },
  lock: {
    method: 'post',
    path: '/session/lock',
    access: 'looker',
    summary: 'Lock this device; its person signs in again or another one does',
    answers: 'locked.',
    touches: ['Session'],
  },
  signOut: {
    method: 'post',
    path: '/session/end',
    access: 'anyone',
    summary: 'Sign out on this device',
    answers: 'ended.',
    touches: ['Session'],
  },
  sessions: {
    method: 'get',
    path: '/sessions',
    personal: true,
    access: 'looker',
    fresh: true,
    summary: 'Devices that are signed in: one’s own, or everybody’s for a lead',
    answers: 'items: the sessions, the last used first.',
    list: { usual: 200, most: 500 },
    shows: ['Session'],
  },
  endSession: {
    method: 'post',
    path: '/sessions/:id/end',
    access: 'looker',
    summary: 'Sign a device out: one’s own, or any for a lead',
    answers: 'ended.',
    touches: ['Session'],
  },
  changeSecret: {
    method: 'post',
    path: '/session/secret',
    access: 'looker',
    summary: 'Change one’s own passphrase or PIN; other devices are signed out',
    answers: 'changed.',
    body: 'ownSecretSchema',
    alone: true,
    touches: ['Session'],
  },
  people: {
    method: 'get',
    path: '/people',
    access: 'looker',
    summary: 'Everybody who works here, and who did',
    answers: 'items: the people, by name.',
    list: { usual: 200, most: 500 },
    shows: ['Person'],
  },
  savePerson: {
    method: 'put',
    path: '/people/:id',
    access: 'lead',
    summary: 'Add a person (version 0) or change one',
    answers: 'The person.',
    body: 'personWriteSchema',
    alone: true,
    touches: ['Person', 'Session', 'Book'],
  },
  unlockPerson: {
    method: 'post',
    path: '/people/:id/unlock',
    access: 'lead',
    summary: 'Let somebody sign in again at once after too many wrong tries',
    answers: 'unlocked.',
    touches: ['Person'],
  },
  machineTokens: {
    method: 'get',
    path: '/machines/:machineId/tokens',
    access: 'lead',
    summary: 'Tokens with which a machine posts prints and readings',
    answers: 'items: the tokens in force, without their secret.',
    list: { usual: 200, most: 500 },
    shows: ['Token'],
  },
  makeMachineToken: {
    method: 'put',
    path: '/machines/:machineId/tokens/:id',
    access: 'lead',
    summary: 'Make a token for a machine; it is shown this once',
    answers: 'The token, with its secret.',
    body: 'tokenWriteSchema',
    alone: true,
    status: 201,
    touches: ['Token', 'Book'],
  },
  programTokens: {
    method: 'get',
    path: '/program-tokens',
    access: 'lead',
    summary: 'Tokens with which other programs read the shop',
    answers: 'A page of the tokens in force, without their secret.',
    list: { usual: 200, most: 500 },
    shows: ['Token'],
  },
  makeProgramToken: {
    method: 'put',
    path: '/program-tokens/:id',
    access: 'lead',
    alone: true,
    summary: 'Make a token with which another program may read, and nothing else; it is shown this once',
    answers: 'The token, with its secret.',
    body: 'tokenWriteSchema',
    status: 201,
    touches: ['Token', 'Book'],
  },
  revokeToken: {
    method: 'post',
    path: '/tokens/:id/revoke',
    access: 'lead',
    summary: 'Take a token out of force',
    answers: 'revoked.',
    touches: ['Token', 'Book'],
  },
});

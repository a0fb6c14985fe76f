import { eventsOf } from '../kit/event';
import type { Role } from '../kit/operation';
import type { SecretKind } from './records';

export interface PeopleEvents {
  'person-added': { personId: string; name: string; role: Role; active: boolean; secretKind: SecretKind };
  'person-changed': {
    personId: string;
    name: string;
    role: Role;
    active: boolean;
    newSecret: boolean;
    was: { name: string; role: Role; active: boolean };
  };
  /** Of a machine, whose line it is, or of another program. */
  'token-made': { tokenId: string; name: string };
  'token-revoked': { tokenId: string; name: string };
}

export const peopleEvents = eventsOf<PeopleEvents>()({
  'person-added': { touches: ['Person'] },
  'person-changed': { touches: ['Person', 'Session'] },
  'token-made': { touches: ['Token'] },
  'token-revoked': { touches: ['Token'] },
});

import { peopleOperations } from '@even-bed/contract/people/operations';
import { endpointsOf } from '../api/endpoints';

export const peopleApi = endpointsOf(peopleOperations);

export const {
  useSessionQuery,
  useSignInMutation,
  useMakeFirstPersonMutation,
  useLockMutation,
  useSignOutMutation,
  useChangeSecretMutation,
  useSessionsQuery,
  useEndSessionMutation,
  usePeopleQuery,
  useSavePersonMutation,
  useUnlockPersonMutation,
  useMachineTokensQuery,
  useMakeMachineTokenMutation,
  useProgramTokensQuery,
  useMakeProgramTokenMutation,
  useRevokeTokenMutation,
} = peopleApi;

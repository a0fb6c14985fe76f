import { v7 as uuid } from 'uuid';
import { useMachineTokensQuery, useMakeMachineTokenMutation } from './peopleApi';
import { TokenList } from './TokenList';

/** Tokens with which a machine posts its own prints and readings. */
export function MachineTokens({ machineId }: { machineId: string }) {
  const { data: tokens = [] } = useMachineTokensQuery({ machineId });
  const [make, { data: made, error, isLoading }] = useMakeMachineTokenMutation();
  return (
    <TokenList
      title="TOKENS FOR THE MACHINE ITSELF"
      about="With it a machine may post its prints and readings, and nothing else. How: /api/docs."
      testID="tokens"
      tokens={tokens}
      made={made}
      making={isLoading}
      error={error}
      onMake={async (name) =>
        !(await make({ machineId, id: uuid(), key: uuid(), body: { name, at: Date.now() } })).error
      }
    />
  );
}

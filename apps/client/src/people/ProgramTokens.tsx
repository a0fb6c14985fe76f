import { v7 as uuid } from 'uuid';
import { useMakeProgramTokenMutation, useProgramTokensQuery } from './peopleApi';
import { TokenList } from './TokenList';

/** Tokens with which other programs read the shop: a display at the wall, a sheet of figures. */
export function ProgramTokens() {
  const { data: tokens = [] } = useProgramTokensQuery();
  const [make, { data: made, error, isLoading }] = useMakeProgramTokenMutation();
  return (
    <TokenList
      title="TOKENS FOR OTHER PROGRAMS"
      about="With it another program may read what a looker sees, and follow what happens; it can change nothing. How: /api/docs."
      testID="program-tokens"
      tokens={tokens}
      made={made}
      making={isLoading}
      error={error}
      onMake={async (name) => !(await make({ id: uuid(), key: uuid(), body: { name, at: Date.now() } })).error}
    />
  );
}

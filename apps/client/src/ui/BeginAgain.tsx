import { useState } from 'react';
import { ActionButton } from './ActionButton';
import { Prompt } from './Prompt';

/** Clears what was entered in a tool, once it is said again that this is meant. */
export function BeginAgain({ what, onBegin, testID }: { what: string; onBegin: () => void; testID: string }) {
  const [asking, setAsking] = useState(false);
  return (
    <>
      <ActionButton label="Begin again" kind="quiet" onPress={() => setAsking(true)} testID={testID} />
      <Prompt
        open={asking}
        title="Begin again?"
        text={`${what} on this page will be cleared. What was saved stays in the records.`}
        confirm="Clear"
        cancel="Keep"
        onCancel={() => setAsking(false)}
        onConfirm={() => {
          setAsking(false);
          onBegin();
        }}
      />
    </>
  );
}

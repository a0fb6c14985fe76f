import { useState } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { DialogFrame } from '../ui/DialogFrame';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { useLazyCheckBookQuery } from './bookApi';

/** Goes through the chain of the whole book and says whether it holds. */
export function CheckTheBook() {
  const [open, setOpen] = useState(false);
  const [check, { data, isLoading, isError }] = useLazyCheckBookQuery();
  const start = () => {
    setOpen(true);
    void check();
  };
  return (
    <>
      <ActionButton label="Check the book" onPress={start} testID="check-book" />
      <DialogFrame open={open} title="The chain of the book" onClose={() => setOpen(false)} testID="book-check">
        {isLoading ? <Words>Going through every line …</Words> : null}
        {isError ? <Words>The server does not answer. Try again.</Words> : null}
        {data ? (
          <View style={{ gap: 12 }}>
            <Signal
              kind={data.sound ? 'ready' : 'stop'}
              word={
                data.sound
                  ? `${data.entries} lines, each follows from the one before`
                  : `Broken at line ${data.fault!.seq}`
              }
            />
            <Words>
              {data.sound
                ? 'Nothing was changed, taken out or slipped in.'
                : `${data.fault!.reason}. Restore a backup from before, and look for who had the file in hand.`}
            </Words>
            <Words size="small" tone="steel">
              {`Mark of the last line: ${data.lastHash.slice(0, 16)}. Written down elsewhere, it also shows lines missing at the end.`}
            </Words>
          </View>
        ) : null}
        <ActionButton label="Close" onPress={() => setOpen(false)} />
      </DialogFrame>
    </>
  );
}

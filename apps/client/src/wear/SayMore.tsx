import { wearOperations } from '@even-bed/contract/wear/operations';
import type { Print, PrintWords } from '@even-bed/contract';
import type { PlatePlace } from '@even-bed/core/wear/platePlaces';
import { FAILURE_WORDS, FAILURES, RELEASE_WORDS, RELEASES } from '@even-bed/core/wear/printWords';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { later } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { NinePlaces } from '../ui/NinePlaces';
import { rightNow } from '../ui/useNow';
import { useSteadyTap } from '../ui/useSteadyTap';
import { Words } from '../ui/Words';

type Said = Pick<Print, 'failure' | 'release' | 'places' | 'note'>;

interface Props {
  print: Pick<Print, 'id' | 'machineId' | 'held'> & Said;
  machine: { name: string; plateWidth: number; plateDepth: number };
  /** How it failed was said just now. */
  failureSaid?: boolean;
}

/** What a person can say of a print once it is written down: how it failed, where, how it came off, a note. */
export function SayMore({ print, machine, failureSaid }: Props) {
  const steady = useSteadyTap();
  const [kept, setKept] = useState<Said>(print);
  const [said, setSaid] = useState<Said>(kept);
  const [saved, setSaved] = useState(false);
  const changed: Omit<PrintWords, 'at'> = {
    ...(said.failure === kept.failure ? null : { failure: said.failure }),
    ...(said.release === kept.release ? null : { release: said.release }),
    ...(said.places.join() === kept.places.join() ? null : { places: said.places }),
    ...(said.note.trim() === kept.note ? null : { note: said.note.trim() }),
  };
  const isChanged = Object.keys(changed).length > 0;
  const say = (more: Partial<Said>) => setSaid({ ...said, ...more });
  const toggle = (place: PlatePlace) =>
    say({ places: said.places.includes(place) ? said.places.filter((p) => p !== place) : [...said.places, place] });
  const save = () => {
    later(wearOperations.describePrint, {
      params: { id: print.id },
      body: { ...changed, at: rightNow() },
      key: uuid(),
      what: `${machine.name}: details of a print`,
      at: `/prints/${print.id}`,
    });
    setKept({ ...said, note: said.note.trim() });
    setSaved(true);
  };
  return (
    <View style={{ gap: 16 }} testID="say-more">
      {print.held ? null : (
        <>
          {failureSaid ? null : (
            <Choice
              label="How did it fail?"
              options={FAILURES.map((value) => ({ value, label: FAILURE_WORDS[value] }))}
              value={said.failure}
              onChange={(failure) => say({ failure })}
              testID="more-failure"
            />
          )}
          <Words size="small" tone="steel">
            Where on the plate? Tap each place, seen from the front of the machine.
          </Words>
          <NinePlaces
            plate={{ width: machine.plateWidth, depth: machine.plateDepth }}
            taken={said.places}
            onToggle={toggle}
          />
        </>
      )}
      <Choice
        label="How did it come off?"
        options={RELEASES.map((value) => ({ value, label: RELEASE_WORDS[value] }))}
        value={said.release}
        onChange={(release) => say({ release })}
        testID="more-release"
      />
      <Field
        label="Note"
        value={said.note}
        onChange={(note) => say({ note: note.slice(0, 200) })}
        lines={2}
        testID="more-note"
      />
      {isChanged ? (
        <ActionButton label="Save" kind="main" onPress={steady(save)} testID="more-save" />
      ) : (
        <Words size="small" tone="steel" live testID="more-kept">
          {saved ? 'Saved.' : 'Nothing to save yet.'}
        </Words>
      )}
    </View>
  );
}

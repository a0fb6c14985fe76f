import type { MachineOverview, ZMarkKind } from '@even-bed/contract';
import { noteOperations } from '@even-bed/contract/level/noteOperations';
import { zeroExpiredWords } from '@even-bed/words/tugs';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { later } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { shortDate } from '../ui/formatTime';
import { HomeZero } from '../ui/HomeZero';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { Words } from '../ui/Words';
import { rightNow } from '../ui/useNow';
import { useZeroQuery } from './noteApi';

interface Props {
  machine: MachineOverview;
  mayDo: boolean;
  now: number;
}

/** Home and zero of a resin machine, two facts: when each was set, and whether zero still holds. */
export function ZeroPart({ machine, mayDo, now }: Props) {
  const router = useRouter();
  const { data } = useZeroQuery({ id: machine.id });
  const [told, setTold] = useState<{ id: string; kind: ZMarkKind } | null>(null);
  if (!data) return null;
  const { home, zero, stands } = data;
  const tell = (kind: ZMarkKind) => {
    const id = uuid();
    const at = rightNow();
    later(noteOperations.keepZMark, {
      params: { id },
      body: { machineId: machine.id, kind, at },
      key: id,
      what: `${machine.name}: ${kind === 'zero' ? 'zero was set' : 'home was moved'}`,
      at: `/floor/${machine.id}`,
    });
    setTold({ id, kind });
  };
  const takeBack = () => {
    if (!told) return;
    later(noteOperations.withdrawZMark, {
      params: { id: told.id },
      body: { at: rightNow() },
      key: uuid(),
      what: `${machine.name}: taken back`,
      at: `/floor/${machine.id}`,
    });
    setTold(null);
  };
  const first = stands.since[0];
  const zeroWords =
    stands.state === 'never'
      ? 'zero: never written down'
      : stands.state === 'stands'
        ? `zero, where a print starts: set ${shortDate(zero!.at, now)}`
        : `zero, set ${shortDate(zero!.at, now)}: no longer holds`;
  const homeWords = home
    ? `home, where the switch trips: moved ${shortDate(home.at, now)}`
    : 'home, where the switch trips';
  return (
    <Section
      title="HOME AND ZERO ARE TWO THINGS"
      testID="zero"
      folded={stands.state === 'stands' ? 'zero stands' : stands.state === 'never' ? 'zero not known' : 'zero expired'}
      open={stands.state !== 'stands'}
    >
      <HomeZero home={homeWords} zero={zeroWords} state={stands.state} label={`${homeWords}; ${zeroWords}`} />
      {stands.since.map(({ why, at }) => (
        <View key={why} style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
          <Signal kind="stop" />
          <View style={{ flex: 1 }}>
            <Words
              bold={why === first?.why}
              testID={`zero-${why}`}
            >{`${zeroExpiredWords(why)}, ${shortDate(at, now)}.`}</Words>
          </View>
        </View>
      ))}
      {stands.state === 'stands' ? (
        <Words size="small" tone="steel">
          It holds until film, screws, platform or stack change, or home is moved.
        </Words>
      ) : null}
      {mayDo ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <ActionButton
            label="Level it, then zero"
            icon="measure"
            onPress={() => router.push(`/jobs/new?procedure=level-resin&machine=${machine.id}`)}
            testID="level-resin"
          />
          <ActionButton label="Zero was set" kind="quiet" onPress={() => tell('zero')} testID="zero-set" />
          <ActionButton label="Home was moved" kind="quiet" onPress={() => tell('home')} testID="home-moved" />
          {told ? (
            <ActionButton label="Take it back" kind="quiet" icon="back" onPress={takeBack} testID="z-back" />
          ) : null}
        </View>
      ) : null}
    </Section>
  );
}

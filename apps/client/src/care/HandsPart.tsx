import { useState } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { useSwitch } from '../ui/deviceSwitch';
import { isSecurePage, whyNot } from '../ui/secure';
import { canSpeak } from '../ui/speak';
import { askToListen, canKnock } from './useKnock';

/** What goes on without a hand on the screen: reading aloud, a double knock. Off until somebody wants it. */
export function HandsPart({ onSay }: { onSay: () => void }) {
  const [aloud, setAloud] = useSwitch('read-aloud');
  const [knock, setKnock] = useSwitch('knock');
  const [refused, setRefused] = useState(false);
  if (!canSpeak() && !canKnock() && isSecurePage()) return null;
  const toggleKnock = async () => {
    if (knock) return setKnock(false);
    const may = await askToListen();
    setRefused(!may);
    setKnock(may);
  };
  return (
    <Section title="HANDS FULL">
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}>
        {canSpeak() ? (
          <ActionButton
            label={aloud ? 'Don’t read aloud' : 'Read aloud'}
            kind="quiet"
            icon={aloud ? 'check' : 'next'}
            onPress={() => setAloud(!aloud)}
            testID="read-aloud"
          />
        ) : null}
        {canSpeak() && aloud ? (
          <ActionButton label="Say it again" kind="quiet" onPress={onSay} testID="say-again" />
        ) : null}
        {canKnock() ? (
          <ActionButton
            label={knock ? 'Don’t listen for a knock' : 'Go on by a double knock'}
            kind="quiet"
            icon={knock ? 'check' : 'next'}
            onPress={() => void toggleKnock()}
            testID="listen-knock"
          />
        ) : null}
      </View>
      <Words size="small" tone="steel">
        {canKnock() ? null : `${whyNot('A knock') ?? ''} `}
        {refused
          ? 'This device does not let its motion be read.'
          : 'A double knock on the device, a right arrow or page-down key, or a pedal that types one, goes on. None of them passes a gate.'}
      </Words>
    </Section>
  );
}

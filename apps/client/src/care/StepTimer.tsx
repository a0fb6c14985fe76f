import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { dayAndTime } from '../ui/formatTime';
import { rightNow } from '../ui/useNow';
import { usePalette } from '../ui/theme';
import { isSecurePage, whyNot } from '../ui/secure';
import { Words } from '../ui/Words';
import { countdown } from './jobWords';
import { canAskToNotify } from './ringOut';
import type { JobInHand } from './useJob';

/** The timer of the step in hand: how long still, or how long it may take at most. */
export function StepTimer({ inHand }: { inHand: JobInHand }) {
  const palette = usePalette();
  const { timer } = inHand;
  const [now, setNow] = useState(rightNow);
  const [askable, setAskable] = useState(canAskToNotify);
  useEffect(() => {
    const clock = setInterval(() => setNow(rightNow()), 1000);
    return () => clearInterval(clock);
  }, []);
  if (!timer) return null;
  const { name, from, until, late } = timer;
  const waits = until !== null && now < until;
  const end = waits ? until : late;
  const share = end === null ? 1 : Math.min(1, Math.max(0, (now - from) / Math.max(1, end - from)));
  return (
    <View style={{ gap: 6 }} testID="step-timer">
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', alignItems: 'baseline', gap: 12 }}>
        <Words bold>{name}</Words>
        <Words
          size="reading"
          bold
          figures
          tone={!waits && late !== null && now > late ? 'stop' : 'ink'}
          testID="timer-left"
        >
          {end === null ? 'Time is up' : now > end ? 'Too late' : countdown(end - now)}
        </Words>
      </View>
      <View style={{ height: 6, backgroundColor: palette.hairline }}>
        <View style={{ height: 6, width: `${share * 100}%`, backgroundColor: waits ? palette.hold : palette.accent }} />
      </View>
      <Words size="small" tone="steel">
        {waits
          ? `Not before ${dayAndTime(until)}. The job may be left; it waits here and on every other device.`
          : late === null
            ? `Its time was up ${dayAndTime(until!)}.`
            : `At most until ${dayAndTime(late)}.`}
      </Words>
      {waits && whyNot('An alarm') !== null ? (
        <Words size="small" tone="steel" testID="no-alarm">
          {whyNot('An alarm while another page is in front')}
        </Words>
      ) : null}
      {waits && askable && isSecurePage() ? (
        <View style={{ alignSelf: 'flex-start' }}>
          <ActionButton
            label="Tell me when it is over"
            kind="quiet"
            icon="hold"
            onPress={() => void Notification.requestPermission().then(() => setAskable(canAskToNotify()))}
            testID="ask-notify"
          />
        </View>
      ) : null}
    </View>
  );
}

import type { LapSchool } from '@even-bed/core/level/shapeRecord';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { canSpeak, hush, speak } from '../ui/speak';
import { Words } from '../ui/Words';

/** A stroke and its lift-back, ms. Our own pace. */
const STROKE_MS = 2_200;
const STROKES = 5;
const TURNS = 4;

/** Strokes of a round counted on the screen and aloud: five, a quarter turn, four times. */
export function StrokeCount({ school }: { school: LapSchool }) {
  const [count, setCount] = useState(0);
  const [running, setRunning] = useState(false);
  const all = STROKES * TURNS;
  useEffect(() => {
    if (!running) return undefined;
    const timer = setTimeout(() => {
      const next = count + 1;
      setCount(next);
      const language = document.documentElement.lang || 'en';
      const turn = next % STROKES === 0;
      const said =
        next === all ? 'Round done. Wipe, and look.' : turn ? `${STROKES}. Quarter turn.` : String(next % STROKES);
      if (canSpeak()) speak([said], language);
      if (next === all) setRunning(false);
    }, STROKE_MS);
    return () => clearTimeout(timer);
  }, [running, count, all]);
  useEffect(() => hush, []);
  const inTurn = count === 0 ? 0 : ((count - 1) % STROKES) + 1;
  return (
    <View style={{ gap: 6 }}>
      <Words size="reading" bold live testID="stroke-count">
        {`${inTurn} of ${STROKES}, ${Math.min(TURNS, Math.floor(Math.max(0, count - 1) / STROKES) + 1)} of ${TURNS} ways`}
      </Words>
      <Words size="small" tone="steel">
        {school === 'dry'
          ? 'Straight, no harder than its own weight and your palm; lift back; never rock at the ends.'
          : 'Water or spirit on the sheet, figures of eight over all of it, a quarter turn after each five.'}
      </Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <ActionButton
          label={running ? 'Stop counting' : count > 0 && count < all ? 'Go on counting' : 'Count the strokes aloud'}
          onPress={() => {
            if (!running && count >= all) setCount(0);
            setRunning(!running);
          }}
          testID="count-strokes"
        />
      </View>
    </View>
  );
}

import type { ParsedHeights, ParseOptions, ReadingQuestion, ReadingWay } from '@even-bed/core';
import { Pressable, View } from 'react-native';
import { BedPlan, type PlanPlate } from '../ui/BedPlan';
import { Choice } from '../ui/Choice';
import { Notice } from '../ui/Notice';
import { RADIUS, SPACE, usePalette } from '../ui/theme';
import { withType } from '../ui/typeScale';
import { Words } from '../ui/Words';
import { answerWords, QUESTION_WORDS } from './questionWords';

/** One way in which a text can be read, with what would follow from it in words; null: nothing does. */
export type WayShown = Omit<ReadingWay, 'plan'> & { follows: string | null };

interface Props {
  reading: ParseOptions;
  parsed: Pick<ParsedHeights, 'questions'>;
  ways: WayShown[] | null;
  plate: PlanPlate;
  aim: number;
  onChange: (reading: ParseOptions) => void;
}

/** What a text leaves open: the open question as maps beside each other with what would follow, the answered ones below. */
export function ReadingQuestions({ reading, parsed, ways, plate, aim, onChange }: Props) {
  const answer = (code: ReadingQuestion['code'], option: string) =>
    onChange({ ...reading, answers: { ...reading.answers, [code]: option } });
  const open = parsed.questions.find(({ taken }) => taken === null);
  const settled = parsed.questions.filter(({ taken }) => taken !== null);
  if (!open && settled.length === 0) return null;
  return (
    <View style={{ gap: SPACE.m }} testID="reading-questions">
      {open ? (
        <Notice kind="due" title={QUESTION_WORDS[open.code]} testID={`question-${open.code}`}>
          {ways ? (
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: SPACE.m }}>
              {ways.map((way) => (
                <Way key={way.option} way={way} plate={plate} aim={aim} onPress={() => answer(open.code, way.option)} />
              ))}
            </View>
          ) : (
            <Choice
              label={QUESTION_WORDS[open.code]}
              hideLabel
              options={open.options.map((value) => ({ value, label: answerWords(open.code, value) }))}
              value={null}
              onChange={(option) => answer(open.code, option)}
            />
          )}
        </Notice>
      ) : null}
      {settled.map(({ code, options, taken }) => (
        <Choice
          key={code}
          label={QUESTION_WORDS[code]}
          options={options.map((value) => ({ value, label: answerWords(code, value) }))}
          value={taken}
          onChange={(option) => answer(code, option)}
          testID={`answered-${code}`}
        />
      ))}
    </View>
  );
}

function Way({ way, plate, aim, onPress }: { way: WayShown; plate: PlanPlate; aim: number; onPress: () => void }) {
  const palette = usePalette();
  const label = answerWords(way.code, way.option);
  const follows = way.follows ?? 'nothing follows from it';
  return (
    <Pressable
      role="button"
      aria-label={`${label}: ${follows}`}
      onPress={onPress}
      testID={`way-${way.option}`}
      style={{
        flexBasis: withType(132),
        flexGrow: 1,
        maxWidth: withType(220),
        gap: 4,
        padding: SPACE.s,
        borderWidth: 1,
        borderColor: palette.edge,
        borderRadius: RADIUS,
      }}
    >
      <Words bold>{label}</Words>
      {way.points.length > 0 ? (
        <BedPlan
          plate={plate}
          points={way.points}
          contours={way.contours}
          aim={aim}
          maxHeight={130}
          small
          label={`The heights, read as ${label}`}
        />
      ) : null}
      <Words size="small">{follows}</Words>
    </Pressable>
  );
}

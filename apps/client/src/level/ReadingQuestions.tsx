import type { ParsedHeights, ParseOptions, ReadingQuestion, ReadingWay, TurnPlan } from '@even-bed/core';
import { Pressable, View } from 'react-native';
import { BedPlan } from '../ui/BedPlan';
import { Choice } from '../ui/Choice';
import { lengthFigure, lengthUnit } from '../ui/formatHeight';
import { Notice } from '../ui/Notice';
import { RADIUS, SPACE, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import type { CheckDraft } from './levelSlice';
import { answerWords, QUESTION_WORDS } from './questionWords';

interface Props {
  draft: CheckDraft;
  parsed: ParsedHeights;
  ways: ReadingWay[] | null;
  onChange: (reading: ParseOptions) => void;
}

/** What a text leaves open: the open question as maps beside each other with what would follow, the answered ones below. */
export function ReadingQuestions({ draft, parsed, ways, onChange }: Props) {
  const { reading } = draft.entry;
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
                <Way key={way.option} way={way} draft={draft} onPress={() => answer(open.code, way.option)} />
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

function Way({ way, draft, onPress }: { way: ReadingWay; draft: CheckDraft; onPress: () => void }) {
  const palette = usePalette();
  const label = answerWords(way.code, way.option);
  const follows = way.plan ? consequence(way.plan) : 'nothing follows from it';
  return (
    <Pressable
      role="button"
      aria-label={`${label}: ${follows}`}
      onPress={onPress}
      testID={`way-${way.option}`}
      style={{ width: 156, gap: 4, padding: SPACE.s, borderWidth: 1, borderColor: palette.edge, borderRadius: RADIUS }}
    >
      <Words bold>{label}</Words>
      {way.points.length > 0 ? (
        <BedPlan
          plate={draft.plate}
          points={way.points}
          contours={way.contours}
          aim={draft.setup.aim}
          maxHeight={130}
          small
          label={`The heights, read as ${label}`}
        />
      ) : null}
      <Words size="small">{follows}</Words>
    </Pressable>
  );
}

/** What a way of reading would lead to. */
function consequence({ verdict, before, turns }: TurnPlan): string {
  const count = turns.filter(({ said }) => said !== 0).length;
  const range = `range ${lengthFigure(before.range)} ${lengthUnit()}`;
  if (verdict === 'within') return `${range}: within, nothing to turn`;
  return `${range}: ${count} ${count === 1 ? 'turn' : 'turns'}`;
}

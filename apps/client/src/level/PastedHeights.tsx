import type { ParseOptions } from '@even-bed/core';
import { extentOf } from '@even-bed/core/level/HeightPoint';
import { View } from 'react-native';
import type { Worked } from '../fit/useWorked';
import type { PlanPlate } from '../ui/BedPlan';
import { Field } from '../ui/Field';
import { length } from '../ui/formatHeight';
import { Words } from '../ui/Words';
import type { PastedRead } from '../workers/shapes.worker';
import { PlusChoice } from './PlusChoice';
import { ReadingPlace } from './ReadingPlace';
import { ReadingQuestions } from './ReadingQuestions';
import { ReadingWarnings } from './ReadingWarnings';

/** Tints of what belongs to no machine go by so many mm. */
const PLAIN_AIM = 0.1;

/** Whether all is said that what was pasted leaves open: a dome and a dish differ by what + means alone. */
export const isSaid = ({ parsed }: PastedRead, { plus }: ParseOptions): boolean =>
  plus !== undefined && parsed.needs.length === 0 && parsed.questions.every(({ taken }) => taken !== null);

/** Heights pasted in that belong to no machine: what the text leaves open is asked here too. */
export function PastedHeights({
  text,
  reading,
  worked,
  onText,
  onReading,
}: {
  text: string;
  reading: ParseOptions;
  worked: Worked<PastedRead>;
  onText: (text: string) => void;
  onReading: (reading: ParseOptions) => void;
}) {
  const found = worked.kind === 'done' ? worked.result : null;
  return (
    <View style={{ gap: 12 }}>
      <Field
        label="Heights, as a console says them"
        value={text}
        lines={4}
        onChange={onText}
        {...(worked.kind === 'failed' ? { error: worked.message } : {})}
        testID="shape-paste"
      />
      {found ? (
        <>
          {found.parsed.matrix && (found.parsed.needs.length > 0 || reading.extent || reading.firstRow) ? (
            <ReadingPlace reading={reading} matrix={found.parsed.matrix} onChange={onReading} />
          ) : null}
          <PlusChoice value={reading.plus ?? null} onChange={(plus) => onReading({ ...reading, plus })} />
          {reading.plus === undefined ? (
            <Words bold testID="still-to-say">
              Still to say: what + means. A dome read the wrong way round is a dish.
            </Words>
          ) : null}
          <ReadingQuestions
            reading={reading}
            parsed={found.parsed}
            ways={
              found.ways &&
              found.ways.map((way) => ({
                ...way,
                follows: way.flatness === null ? null : `${length(way.flatness)} between two planes`,
              }))
            }
            plate={plateOf(found)}
            aim={PLAIN_AIM}
            onChange={onReading}
          />
          <ReadingWarnings parsed={found.parsed} doubts={[]} />
        </>
      ) : null}
    </View>
  );
}

/** A plate as large as the readings of the widest way. */
function plateOf({ ways }: PastedRead): PlanPlate {
  const points = (ways ?? []).flatMap((way) => way.points);
  const { x1, y1 } = points.length > 0 ? extentOf(points) : { x1: 0, y1: 0 };
  const [width, depth] = [Math.max(50, x1), Math.max(50, y1)];
  return { width, depth, originX: 0, originY: 0, printWidth: width, printDepth: depth };
}

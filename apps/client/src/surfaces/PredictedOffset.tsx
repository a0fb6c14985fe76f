import { View } from 'react-native';
import { length, lengthFigure, lengthUnit } from '../ui/formatHeight';
import { Figure } from '../ui/Figure';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { useOffsetPredictionQuery } from './surfacesApi';

/** The Z offset to expect of a machine with a surface, with what it rests on. */
export function PredictedOffset({ machineId, surfaceId }: { machineId: string; surfaceId: string }) {
  const { data } = useOffsetPredictionQuery({ machineId, surfaceId });
  if (!data) return null;
  const { prediction } = data;
  return (
    <Section title="Z OFFSET" testID="predicted-offset">
      {prediction ? (
        <View style={{ gap: 4 }}>
          <Figure
            label="Try first"
            value={`${prediction.offset > 0 ? '+' : ''}${lengthFigure(prediction.offset, 3)}`}
            unit={lengthUnit()}
            testID="predicted-value"
          />
          <Words size="small" tone="steel">
            {`${prediction.likely === null ? 'As many offsets as unknowns: nothing to judge it by yet' : likelyWords(prediction.likely, prediction.nearlySure!)}; from ${prediction.support.offsets} ${prediction.support.offsets === 1 ? 'offset' : 'offsets'}, ${prediction.support.sameSurface} with this sheet, ${prediction.support.sameMachine} on this machine. Check it by a first layer.`}
          </Words>
          {data.odd.map(({ machineName, tag, off }) => (
            <Words key={`${machineName} ${tag}`} size="small" tone="due" testID="odd-offset">
              {`One offset was left out: it lies ${length(Math.abs(off))} off what the others say. Look at it: ${tag} on ${machineName}.`}
            </Words>
          ))}
        </View>
      ) : (
        <Words tone="steel">
          No offset is known yet that links this machine and this surface. Find it by hand, and keep it on the machine’s
          page.
        </Words>
      )}
    </Section>
  );
}

/** A few offsets that happen to agree know no better than the hand that set them. Rounded up: no surer than it is. */
const KNOWN_TO = 0.01;
const atLeast = (half: number) => Math.ceil(Math.max(KNOWN_TO, half) * 1000 - 1e-6) / 1000;
function likelyWords(likely: number, nearlySure: number): string {
  const [inner, outer] = [atLeast(likely), atLeast(nearlySure)];
  return inner === outer
    ? `In nineteen of twenty cases within ${length(outer, 3)}`
    : `In two of three cases within ${length(inner, 3)}, in nineteen of twenty within ${length(outer, 3)}`;
}

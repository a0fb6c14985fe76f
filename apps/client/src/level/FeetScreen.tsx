import { evenFeet } from '@even-bed/core/level/evenFeet';
import { readLength } from '@even-bed/core/fleet/readLength';
import { useState } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { Figure } from '../ui/Figure';
import { decimal, length } from '../ui/formatHeight';
import { Notice } from '../ui/Notice';
import { numberIn } from '../ui/numberIn';
import { Page } from '../ui/Page';
import { Section } from '../ui/Section';
import { Words } from '../ui/Words';
import { useBench } from './useBench';
import { useTiltNow } from './useTiltNow';

type Way = 'across' | 'along';
interface Bench {
  across: { first: string; turned: string; span: string };
  along: { first: string; turned: string; span: string };
}

const EMPTY = { first: '', turned: '', span: '' };
const BEGUN: Bench = { across: { ...EMPTY, span: '220' }, along: { ...EMPTY, span: '220' } };
const TITLES: Record<Way, [title: string, lower: string, other: string]> = {
  across: ['ACROSS, LEFT TO RIGHT', 'right', 'left'],
  along: ['ALONG, FRONT TO REAR', 'rear', 'front'],
};

/** A printer's own feet, so that resin lies even: two readings, the level turned by 180° between them. */
export function FeetScreen() {
  const [bench, change, ready] = useBench<Bench>('feet', BEGUN);
  return (
    <Page
      title="The printer’s feet"
      crumbs={[{ label: 'Tools', href: '/tools' }]}
      state={
        <Words size="small" tone="steel">
          not recorded
        </Words>
      }
      testID="feet"
    >
      <Notice kind="due" title="This can’t tram a bed">
        A spirit level says how resin lies in the vat. Whether a platform is parallel to its screen, or a bed to its
        nozzle, only the gap says.
      </Notice>
      {ready
        ? (['across', 'along'] as const).map((way) => (
            <Direction key={way} way={way} typed={bench[way]} onChange={(next) => change({ ...bench, [way]: next })} />
          ))
        : null}
    </Page>
  );
}

function Direction({ way, typed, onChange }: { way: Way; typed: Bench[Way]; onChange: (next: Bench[Way]) => void }) {
  const [title, lower, other] = TITLES[way];
  const [problem, setProblem] = useState<string | null>(null);
  const tilt = useTiltNow();
  const [first, turned] = [numberIn(typed.first), numberIn(typed.turned)];
  const span = readLength(typed.span) ?? NaN;
  const whole = Math.abs(first) < 45 && Math.abs(turned) < 45 && span > 0;
  const read = whole ? evenFeet({ first, turned }, span) : null;
  const fault = (text: string) =>
    text.trim() !== '' && !(Math.abs(numberIn(text)) < 45) ? 'Degrees, such as 0.4 or -0,2.' : undefined;
  const take = async (key: 'first' | 'turned') => {
    const now = await tilt();
    setProblem(now === null ? 'This device does not say how it lies: type what a level shows.' : null);
    if (now !== null)
      onChange({ ...typed, [key]: String(Math.round((way === 'across' ? now.across : now.along) * 100) / 100) });
  };
  return (
    <Section title={title} testID={`feet-${way}`}>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'flex-start' }}>
        {(['first', 'turned'] as const).map((key) => (
          <View key={key} style={{ flexGrow: 1, flexShrink: 1, gap: 6 }}>
            <Field
              label={key === 'first' ? `Reading, + ${lower} lower` : 'Turned by 180°'}
              unit="°"
              value={typed[key]}
              onChange={(text) => onChange({ ...typed, [key]: text })}
              keyboard="decimal"
              {...(fault(typed[key]) ? { error: fault(typed[key])! } : {})}
              testID={`feet-${way}-${key}`}
            />
            <ActionButton
              label="From this phone"
              kind="quiet"
              onPress={() => void take(key)}
              testID={`feet-${way}-${key}-phone`}
            />
          </View>
        ))}
      </View>
      <Field
        label="Distance of the feet"
        unit="mm"
        value={typed.span}
        onChange={(text) => onChange({ ...typed, span: text })}
        keyboard="decimal"
        {...(typed.span.trim() !== '' && !(span > 0) ? { error: 'A length, such as 220.' } : {})}
        testID={`feet-${way}-span`}
      />
      {problem ? <Words tone="stop">{problem}</Words> : null}
      {read ? (
        <>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 24 }}>
            <Figure
              label="The printer leans"
              value={`${decimal(Math.abs(read.tilt), 2)}°`}
              testID={`feet-${way}-tilt`}
            />
            <Figure
              label="The level itself is off"
              value={`${decimal(Math.abs(read.bias), 2)}°`}
              testID={`feet-${way}-bias`}
            />
          </View>
          <Words bold live testID={`feet-${way}-do`}>
            {read.verdict === 'even'
              ? 'Level enough for resin.'
              : `Raise the ${read.lower > 0 ? lower : other} feet by ${length(Math.abs(read.lower), 1)}.`}
          </Words>
        </>
      ) : null}
    </Section>
  );
}

import type { BedMap, MachineOverview } from '@even-bed/contract';
import { contourBed } from '@even-bed/core/level/contourBed';
import type { Known, MapOfBoth, OneShape, ShapeSplit } from '@even-bed/core/level/splitShape';
import { nextMapWords } from '@even-bed/words/shape';
import { skipToken } from '@reduxjs/toolkit/query';
import { useState } from 'react';
import { View } from 'react-native';
import { useWorked } from '../fit/useWorked';
import { useMachinesQuery } from '../fleet/fleetApi';
import { BedPlan } from '../ui/BedPlan';
import { length } from '../ui/formatHeight';
import { Loading } from '../ui/Loading';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { TickRow } from '../ui/TickRow';
import { useIsWide } from '../ui/theme';
import { Words } from '../ui/Words';
import { shaper } from '../workers/shaper';
import { useMapsQuery } from './shapeApi';

const work = (input: Parameters<ReturnType<typeof shaper>['split']>[0]) => shaper().split(input);
const NONE = '';

/** The latest map of each way that a sheet lay: what a split goes by. */
function latestOfEach(items: readonly BedMap[], machine: string): (MapOfBoth & { tag: string | null })[] {
  const seen = new Set<string>();
  return items.flatMap((map) => {
    const key = map.sheet ? `${map.sheet.id} ${map.sheet.turned} ${map.sheet.side}` : 'bare';
    if (seen.has(key)) return [];
    seen.add(key);
    return [
      {
        machine,
        sheet: map.sheet?.id ?? null,
        tag: map.sheet?.tag ?? null,
        turned: (((map.sheet?.turned ?? 0) / 90) % 4) as 0 | 1 | 2 | 3,
        flipped: map.sheet?.side === 'B',
        points: map.points,
      },
    ];
  });
}

/** Bed or sheet: their shapes told apart from the maps of this machine and another, as far as these can. */
export function WhoseShape({ machine }: { machine: MachineOverview }) {
  const { data: machines = [] } = useMachinesQuery();
  const [otherId, setOther] = useState(NONE);
  const [flat, setFlat] = useState<string[]>([]);
  const [bare, setBare] = useState(false);
  const own = useMapsQuery({ id: machine.id });
  const others = useMapsQuery(otherId === NONE ? skipToken : { id: otherId });
  const other = machines.find(({ id }) => id === otherId) ?? null;
  // A map without a sheet on record says nothing of whether one lay there: it counts as bare only where somebody says so.
  const all = [
    ...latestOfEach(own.data?.items ?? [], machine.id),
    ...(other ? latestOfEach(others.data?.items ?? [], other.id) : []),
  ].filter(({ sheet }) => sheet !== null || bare);
  const maps = all.slice(0, 24);
  const tags = new Map(maps.flatMap(({ sheet, tag }) => (sheet && tag ? [[sheet, tag] as const] : [])));
  const hasBare = [...(own.data?.items ?? []), ...(others.data?.items ?? [])].some(({ sheet }) => sheet === null);
  const worked = useWorked(
    maps.length > 0
      ? {
          maps: maps.map(({ tag: _, ...map }) => map),
          flat: flat.filter((id) => tags.has(id)),
          square: machine.printWidth === machine.printDepth,
          plate: { width: machine.printWidth, depth: machine.printDepth },
        }
      : null,
    work,
  );
  const nameOf = (id: string) => machines.find((one) => one.id === id)?.name ?? machine.name;
  return (
    <Section title="WHOSE SHAPE IS IT?" testID="whose">
      <Words tone="steel">
        Each map is the bed’s shape and the sheet’s together. Sheets swapped between machines, turned, or off tell them
        apart.
      </Words>
      <View style={{ maxWidth: 420 }}>
        <Pick
          label="With the maps of"
          options={[
            { value: NONE, label: 'no other machine' },
            ...machines
              .filter(
                ({ id, family, printWidth, printDepth }) =>
                  id !== machine.id &&
                  family === 'filament' &&
                  printWidth === machine.printWidth &&
                  printDepth === machine.printDepth,
              )
              .map(({ id, name }) => ({ value: id, label: name })),
          ]}
          value={otherId}
          onChange={setOther}
          testID="whose-other"
        />
      </View>
      {[...tags].map(([id, tag]) => (
        <TickRow
          key={id}
          words={`${tag} is known to be flat, by light`}
          ticked={flat.includes(id)}
          onPress={() => setFlat(flat.includes(id) ? flat.filter((one) => one !== id) : [...flat, id])}
          testID={`flat-${tag}`}
        />
      ))}
      {hasBare ? (
        <TickRow
          words="Maps without a sheet on record were read bare"
          ticked={bare}
          onPress={() => setBare(!bare)}
          testID="whose-bare"
        />
      ) : null}
      {maps.length === 0 ? <Words tone="steel">No map has a sheet on record: mount one, and read a map.</Words> : null}
      {worked.kind === 'failed' ? <Words tone="stop">{worked.message}</Words> : null}
      {worked.kind === 'busy' ? <Loading what="whose shape it is" /> : null}
      {worked.kind === 'done' ? (
        <Split
          split={worked.result}
          machine={machine}
          nameOf={nameOf}
          tagOf={(id) => tags.get(id) ?? id}
          count={maps.length}
        />
      ) : null}
    </Section>
  );
}

interface SplitProps {
  split: ShapeSplit;
  machine: MachineOverview;
  nameOf: (id: string) => string;
  tagOf: (id: string) => string;
  count: number;
}

function Split({ split, machine, nameOf, tagOf, count }: SplitProps) {
  const wide = useIsWide();
  const name = ({ kind, id }: { kind: 'bed' | 'sheet'; id: string }) =>
    kind === 'bed' ? `${nameOf(id)}’s bed` : tagOf(id);
  const whole = split.shapes.filter(({ told }) => told === 'all');
  const open = split.shapes.filter(({ told }) => told !== 'all');
  return (
    <View style={{ gap: 12 }} testID="split">
      <Words size="small" tone="steel">
        {`${count} maps${split.noise ? `; one reading scatters by ${length(split.noise.sd, 3)}` : '; nothing is left over to tell the scatter'}.`}
      </Words>
      <View style={{ flexDirection: wide ? 'row' : 'column', flexWrap: 'wrap', gap: 16 }}>
        {whole.map((one) => (
          <View key={`${one.kind} ${one.id}`} style={{ minWidth: 240, gap: 4 }} testID={`split-${one.kind}`}>
            <Words bold>{`${name(one)}: ${length(rangeOf(one.heights), 3)}`}</Words>
            <SmallShape heights={one.heights as number[]} side={split.side} machine={machine} label={name(one)} />
            {one.sd[0] === null ? null : (
              <Words size="small" tone="steel">{`each place ± ${length(Math.max(...(one.sd as number[])), 3)}`}</Words>
            )}
          </View>
        ))}
      </View>
      {split.differences.map(({ kind, first, second, heights, sd }) => (
        <View key={`${first} ${second}`} style={{ gap: 4 }} testID="split-difference">
          <Words
            bold
          >{`${name({ kind, id: first })} against ${name({ kind, id: second })}: differ by ${length(rangeOf(heights), 3)}${sd === null ? '' : ` ± ${length(sd, 3)}`}`}</Words>
          <SmallShape
            heights={heights}
            side={split.side}
            machine={machine}
            label={`${name({ kind, id: first })} less ${name({ kind, id: second })}`}
          />
        </View>
      ))}
      {open.length > 0 ? (
        <View style={{ gap: 4 }} testID="split-open">
          <Words bold>{`Not told apart by these: ${open.map(name).join(', ')}.`}</Words>
          {open.flatMap((one) => [
            ...(seen(one.twist)
              ? [
                  <Words
                    key={`${one.id} t`}
                    size="small"
                  >{`· ${name(one)}: its twist, ${length(Math.abs(one.twist!.value), 3)}, is its own.`}</Words>,
                ]
              : []),
            ...(seen(one.bow.difference) && !one.bow.x
              ? [
                  <Words
                    key={`${one.id} d`}
                    size="small"
                  >{`· ${name(one)}: bowed ${length(Math.abs(one.bow.difference!.value), 3)} more ${one.bow.difference!.value > 0 ? 'from left to right' : 'from front to rear'} than the other way.`}</Words>,
                ]
              : []),
          ])}
          {split.next.length > 0 ? (
            <>
              <Words tone="steel">What would tell most:</Words>
              {split.next.map((next, i) => (
                <Words
                  key={i}
                  testID="split-next"
                >{`· ${nextMapWords(next, nameOf(next.machine), next.sheet === null ? '' : tagOf(next.sheet))}`}</Words>
              ))}
            </>
          ) : null}
        </View>
      ) : null}
    </View>
  );
}

/** Beyond twice what it scatters by. */
const seen = (known: Known) => known !== null && Math.abs(known.value) > 2 * (known.sd ?? 0);

const rangeOf = (heights: OneShape['heights']) =>
  Math.max(...(heights as number[])) - Math.min(...(heights as number[]));

function SmallShape({
  heights,
  side,
  machine,
  label,
}: {
  heights: readonly number[];
  side: number;
  machine: MachineOverview;
  label: string;
}) {
  const { printWidth, printDepth } = machine;
  const points = heights.map((z, i) => ({
    x: (printWidth * (i % side)) / (side - 1),
    y: (printDepth * Math.floor(i / side)) / (side - 1),
    z,
  }));
  return (
    <BedPlan
      plate={{ width: printWidth + 24, depth: printDepth + 24, originX: 12, originY: 12, printWidth, printDepth }}
      contours={contourBed({ points, finest: 0.01 })}
      points={points}
      maxHeight={240}
      label={label}
    />
  );
}

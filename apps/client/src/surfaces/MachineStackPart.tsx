import type { MachineOverview, MachineStack, PlainLayer } from '@even-bed/contract';
import { stackHeight } from '@even-bed/core/surfaces/stackHeight';
import { useRouter } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useAppSelector } from '../state/store';
import { length, size, temperature } from '../ui/formatHeight';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { DialogFrame } from '../ui/DialogFrame';
import { Field } from '../ui/Field';
import { shortDate } from '../ui/formatTime';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { StackSection } from '../ui/StackSection';
import { Tag } from '../ui/Tag';
import { Words } from '../ui/Words';
import { MachineOffsets } from './MachineOffsets';
import { SurfaceActions } from './SurfaceActions';
import { useSaveStackMutation, useStackQuery, useSurfaceQuery } from './surfacesApi';

/** What a machine carries, in section: mount, swap, turn over, plain layers; and the offsets that worked. */
export function MachineStackPart({ machine, now }: { machine: MachineOverview; now: number }) {
  const router = useRouter();
  const mayDo = useAppSelector((state) => state.people.person?.role !== 'looker');
  const [editing, setEditing] = useState(false);
  const { data: stack } = useStackQuery({ id: machine.id });
  if (!stack) return null;
  const inVat = stack.layers.filter(({ slot }) => slot === 'film');
  const layers = stack.layers.filter(({ slot }) => slot !== 'film');
  const { height, measured, limit } = stackHeight(layers);
  const top = [...layers].reverse().find(({ surfaceId }) => surfaceId !== null);
  const below = [...layers, ...inVat].filter((layer) => layer.surfaceId !== null && layer !== top).reverse();
  return (
    <>
      <Section title="LIES ON IT" testID="lies-on-it">
        {top ? <MountedRow layer={top} now={now} /> : null}
        {layers.length === 0 ? (
          <Words tone="steel">
            Nothing is written down of what lies here. Begin with the plate, or put a surface on.
          </Words>
        ) : null}
        {mayDo ? (
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            <ActionButton
              label={top ? 'Put on or swap' : 'Put a surface on'}
              icon="mount"
              grow
              onPress={() => router.push(`/mount?machine=${machine.id}`)}
              testID="mount-here"
            />
            {layers.length === 0 ? (
              <ActionButton label="Plain layers" kind="quiet" onPress={() => setEditing(true)} testID="edit-stack" />
            ) : null}
          </View>
        ) : null}
        {mayDo && top ? <TopActions surfaceId={top.surfaceId!} now={now} /> : null}
      </Section>
      {top ? (
        <MachineOffsets machine={machine} surfaceId={top.surfaceId!} tag={top.tag!} now={now} mayDo={mayDo} />
      ) : null}
      {layers.length > 0 ? (
        <Section title="STACK" testID="stack" folded={`${size(height, 3)}${measured ? '' : ', partly nominal'}`}>
          <StackSection
            layers={layers.map((layer) => ({
              ...layer,
              name: layer.tag ? `${layer.tag} ${layer.name}` : layer.name,
              loose: !layer.fixed,
            }))}
            width={machine.plateWidth}
            label={`Stack of ${machine.name}, ${length(height)}: ${layers.map(({ name, thickness }) => `${name} ${size(thickness)}`).join(', ')}`}
          />
          <Words bold testID="stack-height">{`${size(height, 3)}${measured ? '' : ', partly nominal'}`}</Words>
          {limit ? (
            <Words
              size="small"
              tone="steel"
            >{`For hours up to ${temperature(limit.temperature)}: ${limit.layer} sets it.`}</Words>
          ) : null}
          {below.map((layer) => (
            <MountedRow key={layer.surfaceId} layer={layer} now={now} />
          ))}
          {mayDo ? (
            <View style={{ alignSelf: 'flex-start' }}>
              <ActionButton label="Plain layers" kind="quiet" onPress={() => setEditing(true)} testID="edit-stack" />
            </View>
          ) : null}
        </Section>
      ) : null}
      {editing ? <LayersDialog stack={stack} machine={machine} now={now} onClose={() => setEditing(false)} /> : null}
    </>
  );
}

/** A surface that lies here: which side, how it is turned, since when and by whom. */
function MountedRow({ layer, now }: { layer: MachineStack['layers'][number]; now: number }) {
  return (
    <Row
      href={`/rack/${layer.surfaceId!}`}
      testID={`mounted-${layer.tag}`}
      end={
        <Words size="small" tone="steel">
          {shortDate(layer.fittedAt, now)}
        </Words>
      }
    >
      <View style={{ flexDirection: 'row', gap: 8, alignItems: 'center' }}>
        <Tag>{layer.tag!}</Tag>
        <Words bold>{layer.name}</Words>
      </View>
      <Words size="small" tone="steel">
        {[
          layer.sideUp ? `side ${layer.sideUp} up` : null,
          layer.turned ? `turned ${layer.turned}°` : null,
          layer.fittedBy ? `put on by ${layer.fittedBy}` : null,
        ]
          .filter(Boolean)
          .join(', ')}
      </Words>
    </Row>
  );
}

/** Turning over, taking off and the rest, for what lies on top. */
function TopActions({ surfaceId, now }: { surfaceId: string; now: number }) {
  const { data: surface } = useSurfaceQuery({ id: surfaceId });
  return surface ? <SurfaceActions surface={surface} now={now} brief /> : null;
}

interface TypedLayer {
  name: string;
  under: PlainLayer['under'];
  thickness: string;
  measured: boolean;
  limit: number | null;
  /** Since when and by whom, in words; empty for a new one. */
  since: string;
}

interface DialogProps {
  stack: MachineStack;
  machine: MachineOverview;
  now: number;
  onClose: () => void;
}

function LayersDialog({ stack, machine, now, onClose }: DialogProps) {
  const resin = machine.family === 'resin';
  const [layers, setLayers] = useState<TypedLayer[]>(() => {
    const plain: TypedLayer[] = [];
    // A plain layer lies under the next slot above it.
    stack.layers.forEach((layer, i) => {
      if (layer.surfaceId !== null) return;
      const above = stack.layers
        .slice(i)
        .find(({ slot }) => slot === 'base' || slot === 'top' || slot === 'platform')?.slot;
      plain.push({
        name: layer.name,
        under: (above as PlainLayer['under'] | undefined) ?? (resin ? 'platform' : 'base'),
        thickness: String(layer.thickness),
        measured: layer.measured,
        limit: layer.limit,
        since: `Since ${shortDate(layer.fittedAt, now)}${layer.fittedBy ? `, by ${layer.fittedBy}` : ''}`,
      });
    });
    return plain.length > 0
      ? plain
      : [
          {
            name: resin ? 'arm' : 'plate',
            under: resin ? 'platform' : 'base',
            thickness: '3',
            measured: false,
            limit: null,
            since: '',
          },
        ];
  });
  const [save, { isLoading, error }] = useSaveStackMutation();
  const failure = errorOf(error);
  const change = (i: number, part: Partial<TypedLayer>) =>
    setLayers(layers.map((layer, j) => (j === i ? { ...layer, ...part } : layer)));
  const submit = async () => {
    const body = {
      layers: layers.map(({ since: _, ...layer }) => ({ ...layer, thickness: layer.thickness as unknown as number })),
      version: stack.version,
      at: Date.now(),
    };
    const result = await save({ id: machine.id, key: uuid(), body });
    if (!result.error) onClose();
  };
  return (
    <DialogFrame open title="Plain layers, bottom first" onClose={onClose} testID="layers-dialog">
      {layers.map((layer, i) => (
        <View key={i} style={{ gap: 8 }}>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
            <Field
              label="Layer"
              value={layer.name}
              onChange={(name) => change(i, { name })}
              error={failure?.fields[`layers.${i}.name`]}
              testID={`layer-name-${i}`}
            />
            <Field
              label="Thickness"
              unit="mm"
              value={layer.thickness}
              onChange={(thickness) => change(i, { thickness, measured: true })}
              error={failure?.fields[`layers.${i}.thickness`]}
              testID={`layer-thickness-${i}`}
            />
          </View>
          <Choice
            label={`Where ${layer.name || 'it'} lies`}
            hideLabel
            options={
              resin
                ? [
                    { value: 'platform', label: 'under the platform' },
                    { value: 'base', label: 'under the magnet' },
                    { value: 'top', label: 'under the top' },
                  ]
                : [
                    { value: 'base', label: 'under the base' },
                    { value: 'top', label: 'under the top' },
                  ]
            }
            value={layer.under}
            onChange={(under) => change(i, { under })}
          />
          {layer.since ? (
            <Words size="small" tone="steel">
              {layer.since}
            </Words>
          ) : null}
        </View>
      ))}
      {failure && Object.keys(failure.fields).length === 0 ? <Words tone="stop">{failure.message}</Words> : null}
      <View style={{ flexDirection: 'row', gap: 8, flexWrap: 'wrap' }}>
        <ActionButton
          label="Another layer"
          icon="add"
          onPress={() =>
            setLayers([
              ...layers,
              {
                name: 'adhesive',
                under: resin ? 'base' : 'top',
                thickness: '0.2',
                measured: false,
                limit: null,
                since: '',
              },
            ])
          }
        />
        {layers.length > 0 ? (
          <ActionButton label="Take the last away" icon="remove" onPress={() => setLayers(layers.slice(0, -1))} />
        ) : null}
      </View>
      <View style={{ flexDirection: 'row', gap: 12 }}>
        <ActionButton label="Leave it" onPress={onClose} grow />
        <ActionButton
          label="Save"
          kind="main"
          busy={isLoading}
          onPress={() => void submit()}
          grow
          testID="layers-save"
        />
      </View>
    </DialogFrame>
  );
}

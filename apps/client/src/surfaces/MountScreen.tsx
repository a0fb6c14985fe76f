import type { MachineOverview, MountAnswer, Surface } from '@even-bed/contract';
import type { MountAsk, QuarterTurn, Side } from '@even-bed/core';
import { mountAskWords, mountCautionWords, mountRefusalWords } from '@even-bed/words/mount';
import { useLocalSearchParams, useRouter } from 'expo-router';
import { useState } from 'react';
import { Pressable, View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useMachineQuery, useMachinesQuery } from '../fleet/fleetApi';
import { ActionButton } from '../ui/ActionButton';
import { Choice } from '../ui/Choice';
import { Failed, Loading } from '../ui/Loading';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { Pick } from '../ui/Pick';
import { Section } from '../ui/Section';
import { Icon } from '../ui/Icon';
import { currentManner } from '../ui/manner';
import { RADIUS, SPACE, TOUCH, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import { FindSurface } from './FindSurface';
import { PredictedOffset } from './PredictedOffset';
import { useMountCheckQuery, useMountMutation, usePlacesQuery, useSurfaceQuery } from './surfacesApi';
import { sideWords, whereWords } from './surfaceWords';

/** Putting a surface on a machine: which, where, which side up, and what has to be looked at first. */
export function MountScreen() {
  const router = useRouter();
  const params = useLocalSearchParams<{ surface?: string; machine?: string }>();
  const surface = useSurfaceQuery({ id: params.surface ?? '' }, { skip: !params.surface });
  const machine = useMachineQuery({ id: params.machine ?? '' }, { skip: !params.machine });
  const { data: machines = [] } = useMachinesQuery();
  const failure = errorOf(surface.error ?? machine.error);
  const chosenSurface = params.surface ? surface.data : undefined;
  const chosenMachine = params.machine ? machine.data : undefined;
  const crumbs = params.machine
    ? [{ label: chosenMachine?.name ?? 'Machine', href: `/floor/${params.machine}` as const }]
    : [
        {
          label: chosenSurface?.tag ?? 'Rack',
          href: params.surface ? (`/rack/${params.surface}` as const) : ('/rack' as const),
        },
      ];
  if (chosenSurface && chosenMachine)
    return (
      <MountPage
        key={`${chosenSurface.id} ${chosenMachine.id}`}
        surface={chosenSurface}
        machine={chosenMachine}
        crumbs={crumbs}
      />
    );
  return (
    <Page title="Put a surface on" testID="mount" crumbs={crumbs}>
      {failure ? <Failed message={failure.message} onRetry={surface.refetch} /> : null}
      {!params.surface ? (
        <FindSurface machineId={params.machine} onFound={({ id }) => router.setParams({ surface: id })} />
      ) : !params.machine ? (
        <View style={{ maxWidth: 420 }}>
          <Pick
            label="On which machine?"
            value={null}
            placeholder="Choose a machine"
            options={machines.map(({ id, name, areaName }) => ({ value: id, label: `${name} · ${areaName}` }))}
            onChange={(value) => router.setParams({ machine: value })}
            testID="mount-machine"
          />
        </View>
      ) : failure ? null : (
        <Loading what="both" />
      )}
    </Page>
  );
}

interface PageProps {
  surface: Surface;
  machine: MachineOverview;
  crumbs: { label: string; href: `/floor/${string}` | `/rack/${string}` | '/rack' }[];
}

function MountPage({ surface, machine, crumbs }: PageProps) {
  const router = useRouter();
  const { where } = surface.state;
  const [sideUp, setSideUp] = useState<Side>(where.kind === 'machine' ? where.sideUp : 'A');
  const [turned, setTurned] = useState<QuarterTurn>(0);
  const [answers, setAnswers] = useState<MountAsk['code'][]>([]);
  const [place, setPlace] = useState<string | null>(null);
  const {
    data: asked,
    error,
    refetch,
  } = useMountCheckQuery(
    { id: machine.id, surfaceId: surface.id, sideUp, turned },
    { refetchOnMountOrArgChange: true },
  );
  const [mount, mounting] = useMountMutation();
  const failure = errorOf(mounting.error ?? error);
  const open = asked?.asks.filter(({ code }) => !answers.includes(code)) ?? [];
  const refused = (asked?.refusals.length ?? 0) > 0;
  const ready = asked !== undefined && !refused && open.length === 0 && (!asked.replaces || place !== null);
  const toggle = (code: MountAsk['code']) =>
    setAnswers(answers.includes(code) ? answers.filter((known) => known !== code) : [...answers, code]);
  const submit = async () => {
    const body = {
      surfaceId: surface.id,
      sideUp,
      turned,
      answers,
      from: asked!.from?.machineId ?? null,
      replaces: asked!.replaces ? { surfaceId: asked!.replaces.surfaceId, place: place! } : null,
      at: Date.now(),
    };
    const result = await mount({ id: machine.id, key: uuid(), body });
    if (!result.error) router.replace(`/floor/${machine.id}`);
    else void refetch();
  };
  return (
    <Page
      title={`${surface.tag} on ${machine.name}`}
      testID="mount"
      crumbs={crumbs}
      actions={
        <ActionButton
          label={asked?.replaces ? `Swap for ${asked.replaces.tag}` : 'Put it on'}
          kind="main"
          grow
          disabled={!ready}
          busy={mounting.isLoading}
          onPress={() => void submit()}
          testID="mount-go"
        />
      }
    >
      <Words tone="steel">{`${surface.kind.name}, now ${whereWords(surface)}`}</Words>
      {failure ? (
        <Notice kind="stop" title="Not put on" testID="mount-failure">
          {failure.message}
        </Notice>
      ) : null}
      {asked?.refusals.map((refusal) => (
        <Notice key={refusal.code} kind="stop" title="It can’t be done like this" testID={`refused-${refusal.code}`}>
          {mountRefusalWords(refusal)}
        </Notice>
      ))}
      {asked?.from ? (
        <Notice kind="due" title={`It lies on ${asked.from.machineName} now`} testID="mount-from">
          {`Putting it here takes it off ${asked.from.machineName}, which is then without one.`}
        </Notice>
      ) : null}
      <View style={{ gap: SPACE.m, maxWidth: 520 }}>
        {surface.kind.sides.length > 1 ? (
          <Choice
            label="Side up"
            options={[
              { value: 'A', label: sideWords('A', surface.kind) },
              { value: 'B', label: sideWords('B', surface.kind) },
            ]}
            value={sideUp}
            onChange={setSideUp}
            testID="mount-side"
          />
        ) : null}
        {asked?.slot === 'film' ? null : (
          <Choice
            label="Front mark points to the"
            options={[
              { value: '0', label: 'front' },
              { value: '90', label: 'right' },
              { value: '180', label: 'rear' },
              { value: '270', label: 'left' },
            ]}
            value={String(turned) as '0' | '90' | '180' | '270'}
            onChange={(value) => setTurned(Number(value) as QuarterTurn)}
            testID="mount-turned"
          />
        )}
        {asked?.replaces && !refused ? <Replaced asked={asked} place={place} onPlace={setPlace} /> : null}
        {asked && !refused && asked.asks.length > 0 ? (
          <Section title="LOOK FIRST">
            {asked.asks.map((ask) => (
              <Ask
                key={ask.code}
                text={mountAskWords(ask, currentManner())}
                yes={answers.includes(ask.code)}
                onToggle={() => toggle(ask.code)}
                testID={`ask-${ask.code}`}
              />
            ))}
          </Section>
        ) : null}
        {asked && !refused
          ? asked.cautions.map(mountCautionWords).map((text) => (
              <View key={text} style={{ flexDirection: 'row', gap: 10 }}>
                <Icon name="warning" size={22} />
                <View style={{ flex: 1 }}>
                  <Words>{text}</Words>
                </View>
              </View>
            ))
          : null}
        <PredictedOffset machineId={machine.id} surfaceId={surface.id} />
      </View>
    </Page>
  );
}

function Ask({ text, yes, onToggle, testID }: { text: string; yes: boolean; onToggle: () => void; testID: string }) {
  const palette = usePalette();
  return (
    <Pressable
      role="checkbox"
      aria-checked={yes}
      onPress={onToggle}
      testID={testID}
      style={{
        flexDirection: 'row',
        gap: 12,
        alignItems: 'center',
        minHeight: TOUCH + 8,
        padding: 10,
        borderWidth: yes ? 2 : 1,
        borderColor: yes ? palette.ready : palette.edge,
        borderRadius: RADIUS,
        backgroundColor: palette.raised,
      }}
    >
      <View style={{ width: 30, alignItems: 'center' }}>
        {yes ? <Icon name="check" color={palette.ready} /> : null}
      </View>
      <View style={{ flex: 1 }}>
        <Words>{text}</Words>
      </View>
      <Words bold={yes} tone={yes ? 'ready' : 'steel'}>
        {yes ? 'yes' : 'yes?'}
      </Words>
    </Pressable>
  );
}

function Replaced({
  asked,
  place,
  onPlace,
}: {
  asked: MountAnswer;
  place: string | null;
  onPlace: (place: string) => void;
}) {
  const { data: places = [] } = usePlacesQuery();
  const options = [...new Set([...places, 'Rack'])].slice(0, 12);
  return (
    <Pick
      label={`${asked.replaces!.tag} lies there now. It goes to`}
      value={place}
      placeholder="Choose a place"
      options={options.map((value) => ({ value, label: value }))}
      onChange={onPlace}
      testID="mount-old-to"
    />
  );
}

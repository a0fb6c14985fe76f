import { careOperations } from '@even-bed/contract/care/operations';
import { INSPECTION_CARDS, type InspectionCard } from '@even-bed/core/care/inspectionCards';
import { readLength } from '@even-bed/core/fleet/readLength';
import { groupFacts } from '@even-bed/core/surfaces/groups';
import { useLocalSearchParams, useRouter, type Href } from 'expo-router';
import { useState } from 'react';
import { Image, Pressable, View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { useMachineQuery } from '../fleet/fleetApi';
import { recordOf } from '../offline/waiting';
import { allSent, later } from '../state/store';
import { useSurfaceQuery } from '../surfaces/surfacesApi';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { Icon } from '../ui/Icon';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { pickFile } from '../ui/pickFile';
import { Row } from '../ui/Row';
import { Signal } from '../ui/Signal';
import { RADIUS, TOUCH, usePalette } from '../ui/theme';
import { Words } from '../ui/Words';
import { useSendPhotoMutation, type Subject } from './careApi';
import { proseOf } from '../ui/prose';

/** Looking at a surface or a machine: a card, one tap for what is seen, numbers where there are numbers, photos. */
export function InspectScreen() {
  const params = useLocalSearchParams<{ surface?: string; machine?: string; card?: string }>();
  const surface = useSurfaceQuery({ id: params.surface ?? '' }, { skip: !params.surface });
  const machine = useMachineQuery({ id: params.machine ?? '' }, { skip: !params.machine });
  const name = surface.data?.tag ?? machine.data?.name ?? '';
  const back: Href = params.surface ? `/rack/${params.surface}` : `/floor/${params.machine ?? ''}`;
  const looked = surface.data ? groupFacts(surface.data.kind.group).cards : 'surface';
  const cards = proseOf(INSPECTION_CARDS).filter(({ about }) => about === (params.surface ? looked : 'machine'));
  const card = cards.find(({ id }) => id === params.card);
  const crumbs = [{ label: name || 'Back', href: back }];
  if (card && (params.surface || params.machine)) {
    const subject: Subject = params.surface ? { surfaceId: params.surface } : { machineId: params.machine! };
    return <CardView key={card.id} card={card} subject={subject} name={name} back={back} crumbs={crumbs} />;
  }
  return (
    <Page title={`Look at ${name}`} testID="inspect-cards" crumbs={crumbs}>
      <View>
        {cards.map(({ id, title, how }) => (
          <Row
            key={id}
            href={`/inspect?${params.surface ? `surface=${params.surface}` : `machine=${params.machine ?? ''}`}&card=${id}`}
            testID={`card-${id}`}
          >
            <Words bold>{title}</Words>
            <Words size="small" tone="steel">
              {how}
            </Words>
          </Row>
        ))}
      </View>
    </Page>
  );
}

interface CardProps {
  card: InspectionCard;
  subject: Subject;
  name: string;
  back: Href;
  crumbs: { label: string; href: Href }[];
}

function CardView({ card, subject, name, back, crumbs }: CardProps) {
  const router = useRouter();
  const palette = usePalette();
  const [id] = useState(() => uuid());
  const [code, setCode] = useState<string | null>(null);
  const [numbers, setNumbers] = useState<Record<string, string>>({});
  const [note, setNote] = useState('');
  const [photos, setPhotos] = useState<{ id: string; file: File; preview: string }[]>([]);
  const [faults, setFaults] = useState<Record<string, string>>({});
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const [sendPhoto] = useSendPhotoMutation();
  const stop = card.codes.find((known) => known.code === code)?.weight === 'stop';
  const add = async (camera: boolean) => {
    const file = await pickFile('image/jpeg,image/png,image/webp', { camera });
    if (file) setPhotos([...photos, { id: uuid(), file, preview: URL.createObjectURL(file) }]);
  };
  /** What is typed anew is judged anew: what was said of it before goes. */
  const putRight = (key: string) => setFaults(({ [key]: _, ...others }) => others);
  const submit = async () => {
    const values: Record<string, number> = {};
    const found: Record<string, string> = {};
    for (const { name: key, label, min, max, unit } of card.numbers) {
      const text = (numbers[key] ?? '').trim();
      if (text === '') continue;
      const value = unit === 'mm' ? readLength(text) : Number(text.replace(',', '.'));
      if (value === null || !(value >= min && value <= max)) found[key] = `${label}: a number from ${min} to ${max}.`;
      else values[key] = value;
    }
    if (code === null) found['code'] = 'Tap what you see.';
    setFaults(found);
    if (code === null || Object.keys(found).length > 0) return;
    setBusy(true);
    const at = Date.now();
    const body = {
      surfaceId: 'surfaceId' in subject ? subject.surfaceId : null,
      machineId: 'machineId' in subject ? subject.machineId : null,
      card: card.id,
      code,
      numbers: values,
      note,
      at,
    };
    later(careOperations.inspect, {
      params: { id },
      body,
      key: id,
      what: `${name}: ${card.title.toLowerCase()}`,
      at: back as string,
    });
    if (photos.length > 0) {
      const sent = await allSent(recordOf('care', id), 10_000);
      for (const photo of photos) {
        const result = sent
          ? await sendPhoto({ id: photo.id, file: photo.file, ...subject, inspectionId: id, at, note: card.title })
          : { error: { status: 'FETCH_ERROR' } };
        if (result.error) {
          setProblem(`${errorOf(result.error)?.message ?? ''} What you saw is kept; the photo is not sent yet.`);
          setBusy(false);
          return;
        }
        setPhotos((left) => left.filter((known) => known.id !== photo.id));
      }
    }
    router.replace(back);
  };
  return (
    <Page
      title={card.title}
      testID="inspect-card"
      crumbs={crumbs}
      actions={
        <ActionButton
          label={problem ? 'Send the photos again' : 'Write it down'}
          kind="main"
          grow
          busy={busy}
          onPress={() => void submit()}
          testID="inspect-save"
        />
      }
    >
      <Words tone="steel">{`${name} · ${card.how}`}</Words>
      {problem ? (
        <Notice kind="stop" title="The photo was not taken">
          {problem}
        </Notice>
      ) : null}
      <View role="radiogroup" aria-label={card.title} style={{ gap: 10 }}>
        {card.codes.map((known) => {
          const taken = known.code === code;
          return (
            <Pressable
              key={known.code}
              role="radio"
              aria-checked={taken}
              onPress={() => {
                setCode(known.code);
                putRight('code');
              }}
              testID={`code-${known.code}`}
              style={{
                minHeight: TOUCH + 16,
                paddingHorizontal: 16,
                flexDirection: 'row',
                alignItems: 'center',
                gap: 14,
                borderWidth: taken ? 3 : 1,
                borderColor: taken ? palette.accent : palette.edge,
                borderRadius: RADIUS,
                backgroundColor: palette.raised,
              }}
            >
              <Signal kind={known.weight} size={24} />
              <View style={{ flex: 1 }}>
                <Words size="turn" bold={taken}>
                  {known.label}
                </Words>
              </View>
              {taken ? <Icon name="check" /> : null}
            </Pressable>
          );
        })}
      </View>
      {faults['code'] ? (
        <Words tone="stop" live>
          {faults['code']}
        </Words>
      ) : null}
      {stop && card.id === 'sound' ? (
        <Notice kind="stop" title="Stop at once">
          Cut the power before it homes again; add up the stack and look under the bed.
        </Notice>
      ) : null}
      {card.numbers.length > 0 ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12 }}>
          {card.numbers.map(({ name: key, label, unit }) => (
            <View key={key} style={{ minWidth: 150, flexGrow: 1, flexBasis: 150 }}>
              <Field
                label={label}
                unit={unit}
                keyboard="decimal"
                value={numbers[key] ?? ''}
                onChange={(text) => {
                  setNumbers({ ...numbers, [key]: text });
                  putRight(key);
                }}
                error={faults[key]}
                testID={`number-${key}`}
              />
            </View>
          ))}
        </View>
      ) : null}
      <Field label="Note" value={note} onChange={setNote} lines={2} testID="inspect-note" />
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        <ActionButton label="Take a photo" icon="camera" onPress={() => void add(true)} testID="photo-camera" />
        <ActionButton label="Photo from a file" icon="photo" onPress={() => void add(false)} testID="photo-file" />
      </View>
      {photos.length > 0 ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }} testID="photos-chosen">
          {photos.map((photo) => (
            <Image
              key={photo.id}
              source={{ uri: photo.preview }}
              alt="A photo to be sent"
              style={{ width: 96, height: 96, borderRadius: RADIUS }}
            />
          ))}
        </View>
      ) : null}
    </Page>
  );
}

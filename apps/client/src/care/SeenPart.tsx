import type { Inspection, Photo } from '@even-bed/contract';
import { INSPECTION_CARDS } from '@even-bed/core/care/inspectionCards';
import { useState } from 'react';
import { Image, Pressable, View } from 'react-native';
import { v7 as uuid } from 'uuid';
import { errorOf } from '../api/errorOf';
import { ActionButton } from '../ui/ActionButton';
import { clockTime, dayAndTime, shortDate } from '../ui/formatTime';
import { Notice } from '../ui/Notice';
import { Pick } from '../ui/Pick';
import { pickFile } from '../ui/pickFile';
import { Row } from '../ui/Row';
import { Section } from '../ui/Section';
import { Signal } from '../ui/Signal';
import { RADIUS, useIsWide, usePalette } from '../ui/theme';
import { usePrinting } from '../ui/usePrinting';
import { Words } from '../ui/Words';
import { photoAddress, useInspectionsQuery, usePhotosQuery, useSendPhotoMutation, type Subject } from './careApi';

const SHOWN = 5;

/** What was seen of a surface or a machine, and its photos, two of them side by side when wanted. */
export function SeenPart({ subject, mayDo, now }: { subject: Subject; mayDo: boolean; now: number }) {
  const { data: seen = [] } = useInspectionsQuery({ ...subject, limit: 50 });
  const [all, setAll] = useState(false);
  return (
    <>
      {seen.length > 0 ? (
        <Section title="SEEN" testID="seen" folded={`${seen.length}, last ${shortDate(seen[0]!.at, now)}`}>
          {seen.slice(0, all ? undefined : SHOWN).map((inspection) => (
            <SeenLine key={inspection.id} inspection={inspection} now={now} />
          ))}
          {seen.length > SHOWN && !all ? (
            <View style={{ alignSelf: 'flex-start' }}>
              <ActionButton label={`All ${seen.length}`} kind="quiet" onPress={() => setAll(true)} />
            </View>
          ) : null}
        </Section>
      ) : null}
      <PhotosPart of={subject} mayDo={mayDo} now={now} />
    </>
  );
}

function SeenLine({ inspection, now }: { inspection: Inspection; now: number }) {
  const card = INSPECTION_CARDS.find(({ id }) => id === inspection.card);
  const code = card?.codes.find((known) => known.code === inspection.code);
  const numbers = (card?.numbers ?? []).flatMap(({ name, label, unit }) =>
    inspection.numbers[name] === undefined ? [] : [`${label.toLowerCase()} ${inspection.numbers[name]} ${unit}`],
  );
  return (
    <Row
      lead={<Signal kind={code?.weight ?? 'ready'} />}
      testID={`seen-${inspection.card}`}
      end={
        <Words size="small" tone="steel">
          {shortDate(inspection.at, now)}
        </Words>
      }
    >
      <Words bold>{`${card?.title ?? inspection.card}: ${code?.label ?? inspection.code}`}</Words>
      <Words size="small" tone="steel">
        {[
          ...numbers,
          inspection.note || null,
          inspection.photoIds.length > 0 ? `${inspection.photoIds.length} photo` : null,
          inspection.personName,
        ]
          .filter(Boolean)
          .join(' · ')}
      </Words>
    </Row>
  );
}

/** Photos of a surface, a machine or a print, and the way to take another. */
export function PhotosPart({ of, mayDo, now }: { of: Subject | { printId: string }; mayDo: boolean; now: number }) {
  const { data: photos = [] } = usePhotosQuery({ ...of, limit: 50 });
  const palette = usePalette();
  const [open, setOpen] = useState<string | null>(null);
  const [beside, setBeside] = useState<string | null>(null);
  const [send, { isLoading, error }] = useSendPhotoMutation();
  const failure = errorOf(error);
  const printing = usePrinting();
  if (photos.length === 0 && (printing || !mayDo)) return null;
  const add = async (camera: boolean) => {
    const file = await pickFile('image/jpeg,image/png,image/webp', { camera });
    if (file) await send({ id: uuid(), file, ...of, at: Date.now(), note: '' });
  };
  const shown = photos.find(({ id }) => id === open);
  const other = photos.find(({ id }) => id === beside);
  const rest = photos.filter(({ id }) => id !== open);
  return (
    <Section title="PHOTOS" testID="photos" folded={photos.length === 0 ? 'none' : String(photos.length)}>
      {failure ? (
        <Notice kind="stop" title="The photo was not taken" testID="photo-refused">
          {failure.message}
        </Notice>
      ) : null}
      {shown ? <Compared photos={other ? [shown, other] : [shown]} /> : null}
      {shown && rest.length > 0 ? (
        <Pick
          label="Beside it"
          value={beside}
          placeholder="Choose another photo by its date"
          options={rest.map(({ id, at, note }) => ({
            value: id,
            label: `${dayAndTime(at)}${note ? ` · ${note}` : ''}`,
          }))}
          onChange={setBeside}
          testID="photo-beside"
        />
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {photos.map((photo) => (
          <Pressable
            key={photo.id}
            role="button"
            aria-label={`Photo of ${shortDate(photo.at, now)}, ${clockTime(photo.at)}`}
            onPress={() => {
              setOpen(photo.id === open ? null : photo.id);
              setBeside(null);
            }}
            testID={`photo-${photo.id}`}
          >
            <Image
              source={{ uri: photoAddress(photo.id, 'small') }}
              alt=""
              style={{
                width: 104,
                height: 104,
                borderRadius: RADIUS,
                borderWidth: photo.id === open ? 3 : 1,
                borderColor: photo.id === open ? palette.accent : palette.hairline,
              }}
            />
            <Words size="small" tone="steel" align="center">
              {shortDate(photo.at, now)}
            </Words>
          </Pressable>
        ))}
      </View>
      {mayDo ? (
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
          <ActionButton label="Take a photo" icon="camera" busy={isLoading} onPress={() => void add(true)} />
          <ActionButton
            label="From a file"
            icon="photo"
            disabled={isLoading}
            onPress={() => void add(false)}
            testID="add-photo"
          />
        </View>
      ) : null}
    </Section>
  );
}

/** One photo large, or two side by side, the older one first. */
function Compared({ photos }: { photos: readonly Photo[] }) {
  const wide = useIsWide();
  const sorted = [...photos].sort((p, q) => p.at - q.at);
  return (
    <View style={{ flexDirection: wide || sorted.length > 1 ? 'row' : 'column', gap: 8 }} testID="compared">
      {sorted.map((photo) => (
        <View key={photo.id} style={{ flex: 1, gap: 4 }}>
          <Image
            source={{ uri: photoAddress(photo.id, 'full') }}
            alt={`Photo of ${dayAndTime(photo.at)}`}
            resizeMode="contain"
            style={{ width: '100%', aspectRatio: photo.width / photo.height, maxHeight: 480, borderRadius: RADIUS }}
          />
          <Words size="small" bold>
            {dayAndTime(photo.at)}
          </Words>
          {photo.note ? <Words size="small">{photo.note}</Words> : null}
        </View>
      ))}
    </View>
  );
}

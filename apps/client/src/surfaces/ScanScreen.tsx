import { useRouter } from 'expo-router';
import { createElement, useEffect, useRef, useState } from 'react';
import { View } from 'react-native';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { Page } from '../ui/Page';
import { pickFile } from '../ui/pickFile';
import { whyNot } from '../ui/secure';
import { RADIUS, SPACE } from '../ui/theme';
import { Words } from '../ui/Words';
import { readCode } from './readCode';
import { tagIn } from './tagIn';

const LOOK_EVERY_MS = 250;

/** From a tag to its page: by the camera, by a picture of the code, or typed. */
export function ScanScreen() {
  const router = useRouter();
  const [typed, setTyped] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [filming, setFilming] = useState(false);
  const video = useRef<HTMLVideoElement | null>(null);
  const stream = useRef<MediaStream | null>(null);

  const found = (text: string): boolean => {
    const tag = tagIn(text);
    if (tag === null) {
      setProblem('This holds no tag of the shop. Tags look like S-014.');
      return false;
    }
    router.replace(`/t/${tag}`);
    return true;
  };
  const end = () => {
    stream.current?.getTracks().forEach((track) => track.stop());
    stream.current = null;
    setFilming(false);
  };
  const film = async () => {
    setProblem(null);
    try {
      stream.current = await navigator.mediaDevices.getUserMedia({
        video: { facingMode: 'environment' },
        audio: false,
      });
      setFilming(true);
    } catch {
      setProblem(
        `${whyNot('The camera') ?? 'The camera can’t be used here: there is none, or it was not allowed.'} Take a picture of the code, or type the tag.`,
      );
    }
  };
  useEffect(() => {
    if (!filming || !video.current || !stream.current) return undefined;
    const canvas = document.createElement('canvas');
    video.current.srcObject = stream.current;
    void video.current.play();
    const timer = setInterval(() => {
      if (!video.current || video.current.readyState < 2) return;
      const text = readCode(video.current, canvas);
      if (text !== null && found(text)) end();
    }, LOOK_EVERY_MS);
    return () => clearInterval(timer);
    // Begins anew only with the film itself.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [filming]);
  useEffect(() => () => stream.current?.getTracks().forEach((track) => track.stop()), []);

  const picture = async () => {
    setProblem(null);
    const file = await pickFile('image/*');
    if (!file) return;
    try {
      const text = readCode(await createImageBitmap(file), document.createElement('canvas'));
      if (text === null)
        setProblem('No code was found in this picture. Hold the label straight and close, and take it again.');
      else found(text);
    } catch {
      setProblem('This picture can’t be read. Take JPEG or PNG.');
    }
  };
  return (
    <Page title="Scan a tag" testID="scan-tag" crumbs={[{ label: 'Rack', href: '/rack' }]}>
      {problem ? (
        <Notice kind="due" title="Not found" testID="scan-problem">
          {problem}
        </Notice>
      ) : null}
      <View style={{ maxWidth: 480, gap: SPACE.m }}>
        {filming ? (
          <>
            {createElement('video', {
              ref: video,
              playsInline: true,
              muted: true,
              'aria-label': 'What the camera sees',
              style: { width: '100%', borderRadius: RADIUS, aspectRatio: '1 / 1', objectFit: 'cover' },
            })}
            <Words tone="steel">Hold the code in the middle.</Words>
            <ActionButton label="Camera off" onPress={end} />
          </>
        ) : (
          <ActionButton
            label="With the camera"
            icon="camera"
            kind="main"
            onPress={() => void film()}
            testID="scan-camera"
          />
        )}
        <ActionButton label="From a picture" icon="photo" onPress={() => void picture()} testID="scan-picture" />
        <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 12, alignItems: 'flex-start' }}>
          <Field
            label="Or type the tag"
            value={typed}
            onChange={setTyped}
            onSubmit={() => found(typed)}
            placeholder="S-014"
            testID="scan-typed"
          />
          <View style={{ paddingTop: 23 }}>
            <ActionButton label="Open" onPress={() => found(typed)} disabled={typed.trim() === ''} testID="scan-open" />
          </View>
        </View>
      </View>
    </Page>
  );
}

import { decodeText } from '@even-bed/core/fleet/decodeText';
import { createElement, useRef, useState } from 'react';
import { View } from 'react-native';
import { LONGEST_TEXT } from '@even-bed/core/level/longestText';
import { useAppDispatch } from '../state/store';
import { ActionButton } from '../ui/ActionButton';
import { Field } from '../ui/Field';
import { Words } from '../ui/Words';
import { entryChanged, type CheckDraft } from './levelSlice';

/** Heights as text: pasted from a console, or read from a file and shown for correction. */
export function PasteHeights({ draft }: { draft: CheckDraft }) {
  const dispatch = useAppDispatch();
  const [fault, setFault] = useState<string | null>(null);
  const { id, entry } = draft;
  const set = (text: string, fileName: string) => {
    const long = text.length > LONGEST_TEXT;
    setFault(
      long ? `That is ${text.length} characters; at most ${LONGEST_TEXT} are read. Was it the right file?` : null,
    );
    if (!long) dispatch(entryChanged({ id, change: { text, fileName } }));
  };
  return (
    <View style={{ gap: 12 }}>
      {entry.way === 'file' ? (
        <FileButton name={entry.fileName} onText={set} onFault={setFault} />
      ) : (
        <Words size="small" tone="steel">
          Copy what the console printed, all of it. Tables, lines with X, Y and Z, and bare height maps are understood;
          a comma is as good as a point.
        </Words>
      )}
      <Field
        label={entry.way === 'file' ? 'What the file holds' : 'What the console printed'}
        value={entry.text}
        onChange={(text) => set(text, entry.fileName)}
        lines={7}
        error={fault ?? undefined}
        testID="heights-text"
      />
    </View>
  );
}

function FileButton({
  name,
  onText,
  onFault,
}: {
  name: string;
  onText: (text: string, name: string) => void;
  onFault: (fault: string) => void;
}) {
  const input = useRef<HTMLInputElement>(null);
  const read = async (file: File | undefined) => {
    if (!file) return;
    if (file.size > 4 * LONGEST_TEXT) return onFault(`${file.name} is too large for a height map.`);
    onText(decodeText(new Uint8Array(await file.arrayBuffer())), file.name);
  };
  return (
    <View style={{ flexDirection: 'row', gap: 12, alignItems: 'center' }}>
      {createElement('input', {
        ref: input,
        type: 'file',
        accept: '.csv,.tsv,.txt,.json,.log,.gcode,text/*,application/json',
        'aria-label': 'File with heights',
        'data-testid': 'file-input',
        style: { display: 'none' },
        onChange: (event: { target: HTMLInputElement }) => {
          void read(event.target.files?.[0]);
          event.target.value = '';
        },
      })}
      <ActionButton label="Choose a file" icon="file" onPress={() => input.current?.click()} testID="choose-file" />
      <View style={{ flexShrink: 1 }}>
        <Words size="small" tone="steel">
          {name || 'CSV, text or JSON'}
        </Words>
      </View>
    </View>
  );
}

import type { ReactNode } from 'react';
import { View } from 'react-native';
import { Dialog, Portal } from 'react-native-paper';
import { RADIUS, SPACE, usePalette } from './theme';
import { useKeys } from './useKeys';
import { Words } from './Words';

interface Props {
  open: boolean;
  title: string;
  onClose: () => void;
  children: ReactNode;
  testID?: string;
}

/** A sheet over the page, with a title; Escape and a tap beside it close it. */
export function DialogFrame({ open, title, onClose, children, testID }: Props) {
  const palette = usePalette();
  useKeys(open ? { Escape: onClose } : {});
  // Taken away whole: a sheet that is still fading out swallows the first tap when it is opened again.
  if (!open) return null;
  return (
    <Portal>
      <Dialog
        visible
        onDismiss={onClose}
        style={{
          backgroundColor: palette.raised,
          borderRadius: RADIUS,
          width: '90%',
          maxWidth: 480,
          alignSelf: 'center',
        }}
      >
        <View style={{ padding: SPACE.l, paddingTop: 0, gap: SPACE.m }} testID={testID}>
          <Words size="lead" bold heading={2}>
            {title}
          </Words>
          {children}
        </View>
      </Dialog>
    </Portal>
  );
}

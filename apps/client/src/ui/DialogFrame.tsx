import { useEffect, useRef, type ReactNode } from 'react';
import { Pressable, View } from 'react-native';
import { Dialog, Portal } from 'react-native-paper';
import { Icon } from './Icon';
import { RADIUS, SPACE, TOUCH, usePalette } from './theme';
import { useOver } from './useOver';
import { Words } from './Words';

interface Props {
  open: boolean;
  title: string;
  onClose: () => void;
  children: ReactNode;
  testID?: string;
}

/** What Tab stops at. */
const STOPS = 'a[href], button, input, textarea, select, [role="button"], [role="radio"], [tabindex="0"]';

/** A sheet over the page, with a title; Escape, Back, its cross and a tap beside it close it. */
export function DialogFrame({ open, title, onClose, children, testID }: Props) {
  const palette = usePalette();
  useOver(open, onClose);
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
        <View>
          <Sheet title={title} onClose={onClose} testID={testID}>
            {children}
          </Sheet>
        </View>
      </Dialog>
    </Portal>
  );
}

/** What the sheet holds. It takes the focus when it comes, keeps Tab within, and gives the focus back when it goes. */
function Sheet({ title, onClose, testID, children }: Pick<Props, 'title' | 'onClose' | 'testID' | 'children'>) {
  const sheet = useRef<View>(null);
  useEffect(() => {
    if (typeof document === 'undefined') return undefined;
    const before = document.activeElement as HTMLElement | null;
    const frame = sheet.current as unknown as HTMLElement | null;
    frame?.focus();
    const keep = (event: KeyboardEvent) => {
      if (event.key === 'Tab' && frame) keepWithin(frame, event);
    };
    document.addEventListener('keydown', keep, true);
    return () => {
      document.removeEventListener('keydown', keep, true);
      before?.focus?.();
    };
  }, []);
  return (
    <View
      ref={sheet}
      role="dialog"
      aria-modal
      aria-label={title}
      tabIndex={-1}
      style={{ padding: SPACE.l, paddingTop: 0, gap: SPACE.m }}
      testID={testID}
    >
      <View style={{ flexDirection: 'row', alignItems: 'flex-start', justifyContent: 'space-between', gap: 8 }}>
        <View style={{ flex: 1 }}>
          <Words size="lead" bold heading={2}>
            {title}
          </Words>
        </View>
        <Pressable
          role="button"
          aria-label="Close"
          onPress={onClose}
          testID="dialog-close"
          style={{
            width: TOUCH,
            height: TOUCH,
            marginTop: -12,
            marginRight: -12,
            alignItems: 'center',
            justifyContent: 'center',
          }}
        >
          <Icon name="close" />
        </Pressable>
      </View>
      {children}
    </View>
  );
}

/** Tab goes round in the sheet: what lies behind it is out of reach. */
function keepWithin(frame: HTMLElement, event: KeyboardEvent): void {
  const stops = [...frame.querySelectorAll<HTMLElement>(STOPS)].filter(
    (one) => one.offsetParent !== null && one.tabIndex >= 0,
  );
  const [first, last] = [stops[0], stops.at(-1)];
  if (!first || !last) return;
  const { activeElement } = document;
  const outside = !frame.contains(activeElement) || activeElement === frame;
  if (!outside && activeElement !== (event.shiftKey ? first : last)) return;
  event.preventDefault();
  (event.shiftKey ? last : first).focus();
}

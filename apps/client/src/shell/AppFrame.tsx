import { AtkinsonHyperlegibleNext_400Regular } from '@expo-google-fonts/atkinson-hyperlegible-next/400Regular';
import { AtkinsonHyperlegibleNext_700Bold } from '@expo-google-fonts/atkinson-hyperlegible-next/700Bold';
import { useFonts } from 'expo-font';
import { Slot, usePathname } from 'expo-router';
import Head from 'expo-router/head';
import { StatusBar } from 'expo-status-bar';
import { useEffect, useMemo, useState } from 'react';
import { useColorScheme } from 'react-native';
import { PaperProvider } from 'react-native-paper';
import { Provider } from 'react-redux';
import { Gate } from '../people/Gate';
import { openDevice, store } from './areas';
import { BrokenView, CrashGuard } from '../ui/CrashGuard';
import { kitIcon } from '../ui/Icon';
import { LeftOut } from '../ui/LeftOut';
import { DARK, LIGHT, PaletteContext, paperTheme } from '../ui/theme';
import { keepForOffline } from './keepForOffline';
import { Shell } from './Shell';

/** A photo is a button on glass and a picture on paper; a caution stands on both. */
const CAUTION = '[data-testid^="caution-"]';
const PHOTO = '[data-testid^="photo-"]';
/** On paper: no rooms, no buttons, and pages as long as they are. */
const PRINTED = `@media print {
  [role="navigation"], [role="status"]:not(${CAUTION}), [role="complementary"], div:has(> button:not(${PHOTO})), button:not(${PHOTO}), [role="button"]:not(${PHOTO}) { display: none !important; }
  html, body, #root { height: auto !important; overflow: visible !important; background: #fff !important; }
  [role="img"] > svg { max-width: 100% !important; }
  [role="heading"] { break-after: avoid; }
  #root svg, #root a, #root img, #root [dir="auto"], #root [role="img"] { break-inside: avoid; }
  img { opacity: 1 !important; z-index: 1 !important; }
  #root div { overflow: visible !important; max-height: none !important; flex-basis: auto !important; }
}`;

/** What stands round every view: fonts, theme, state, the shell. */
export default function AppFrame() {
  const [fontsLoaded, fontsFailed] = useFonts({
    AtkinsonHyperlegibleNext_400Regular,
    AtkinsonHyperlegibleNext_700Bold,
  });
  const [deviceOpen, setDeviceOpen] = useState(false);
  const pathname = usePathname();
  const palette = useColorScheme() === 'dark' ? DARK : LIGHT;
  const theme = useMemo(() => paperTheme(palette), [palette]);

  useEffect(() => {
    void openDevice().finally(() => setDeviceOpen(true));
    keepForOffline();
  }, []);
  useEffect(() => {
    if (typeof document === 'undefined') return;
    document.documentElement.style.backgroundColor = palette.paper;
    document.documentElement.style.colorScheme = palette.dark ? 'dark' : 'light';
    document.documentElement.lang = 'en';
  }, [palette]);

  if (!deviceOpen || (!fontsLoaded && !fontsFailed)) return null;
  return (
    <Provider store={store}>
      <PaletteContext.Provider value={palette}>
        <PaperProvider theme={theme} settings={{ icon: kitIcon }}>
          <StatusBar style={palette.dark ? 'light' : 'dark'} />
          <Head>
            <style>{PRINTED}</style>
          </Head>
          <LeftOut />
          <Gate>
            <Shell>
              <CrashGuard view={pathname}>
                <Slot unstable_screenErrorBoundary={BrokenView} />
              </CrashGuard>
            </Shell>
          </Gate>
        </PaperProvider>
      </PaletteContext.Provider>
    </Provider>
  );
}

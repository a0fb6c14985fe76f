import AsyncStorage from '@react-native-async-storage/async-storage';

const PREFIX = 'even-bed/';

let onKept: (kept: boolean) => void = () => undefined;

/** What this device keeps by itself, one record under one name, so that two tabs don't overwrite each other's. */
export const deviceStore = {
  async load<T>(kind: string): Promise<Map<string, T>> {
    const prefix = `${PREFIX}${kind}/`;
    const keys = (await AsyncStorage.getAllKeys()).filter((key) => key.startsWith(prefix));
    const found = new Map<string, T>();
    for (const [key, text] of await AsyncStorage.multiGet(keys)) {
      const value = parsed<T>(text);
      if (value !== null) found.set(key.slice(prefix.length), value);
    }
    return found;
  },

  async get<T>(kind: string, id: string): Promise<T | null> {
    return parsed<T>(await AsyncStorage.getItem(`${PREFIX}${kind}/${id}`));
  },

  /** Keeps a record. Where there is no room it stays on the page alone, and whoever listens is told. */
  async set(kind: string, id: string, value: unknown): Promise<void> {
    try {
      await AsyncStorage.setItem(`${PREFIX}${kind}/${id}`, JSON.stringify(value));
      onKept(true);
    } catch {
      onKept(false);
    }
  },

  /** Calls back after each try to keep a record, with whether it is kept. */
  whenKept(listener: (kept: boolean) => void): void {
    onKept = listener;
  },

  remove(kind: string, id: string): Promise<void> {
    return AsyncStorage.removeItem(`${PREFIX}${kind}/${id}`);
  },

  /** Calls back when another tab of this device changes a record of a kind; null when it took it away. */
  watch<T>(kind: string, onChange: (id: string, value: T | null) => void): void {
    if (typeof window === 'undefined' || !window.addEventListener) return;
    const prefix = `${PREFIX}${kind}/`;
    window.addEventListener('storage', ({ key, newValue }) => {
      if (key?.startsWith(prefix)) onChange(key.slice(prefix.length), parsed<T>(newValue));
    });
  },
};

/** A record that can't be read is as good as none: it must not keep the app from opening. */
function parsed<T>(text: string | null): T | null {
  if (text === null) return null;
  try {
    return JSON.parse(text) as T;
  } catch {
    return null;
  }
}

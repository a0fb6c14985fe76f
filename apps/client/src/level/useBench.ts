import { useEffect, useState } from 'react';
import { deviceStore } from '../offline/deviceStore';

/** What a bench tool without a record holds: kept on the device, so that a reload loses nothing. */
export function useBench<T extends object>(
  name: string,
  first: T,
): [state: T, change: (next: T) => void, ready: boolean] {
  const [begun] = useState(first);
  const [state, setState] = useState(begun);
  const [ready, setReady] = useState(false);
  useEffect(() => {
    let current = true;
    void deviceStore.get<T>('tool', name).then((kept) => {
      if (!current) return;
      // What an older version of the app kept may lack what came since.
      if (kept) setState({ ...begun, ...kept });
      setReady(true);
    });
    return () => {
      current = false;
    };
  }, [name, begun]);
  const change = (next: T) => {
    setState(next);
    void deviceStore.set('tool', name, next);
  };
  return [state, change, ready];
}

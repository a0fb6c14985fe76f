import type { Scan } from '@even-bed/contract';

interface Watcher {
  onScan: (scan: Scan) => void;
  /** The scan is gone: the server was started anew, or can't be reached for good. */
  onLost: () => void;
}

/** After this many tries in a row without an answer a scan counts as lost. */
const TRIES = 5;
const PAUSE_MS = 1_000;

/** Follows a scan by server-sent events, and asks by itself where the stream breaks. Returns how to stop following. */
export function watchScan(scanId: string, { onScan, onLost }: Watcher): () => void {
  let over = false;
  let tries = 0;
  let source: EventSource | null = null;
  const end = () => {
    over = true;
    source?.close();
  };
  const tell = (scan: Scan) => {
    tries = 0;
    if (scan.state !== 'running') end();
    onScan(scan);
  };
  const lose = () => {
    end();
    onLost();
  };
  const ask = async () => {
    if (over) return;
    try {
      const response = await fetch(`/api/scans/${scanId}`);
      if (over) return;
      if (response.ok) tell((await response.json()) as Scan);
      else if (response.status === 404) return lose();
    } catch {
      // No answer: counted below.
    }
    if (over) return;
    if (++tries >= TRIES) return lose();
    setTimeout(() => void ask(), PAUSE_MS);
  };
  if (typeof EventSource === 'undefined') {
    void ask();
    return end;
  }
  source = new EventSource(`/api/scans/${scanId}/events`);
  source.onmessage = ({ data }: MessageEvent<string>) => {
    if (!over) tell(JSON.parse(data) as Scan);
  };
  source.onerror = () => {
    source?.close();
    void ask();
  };
  return end;
}

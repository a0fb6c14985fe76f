import http, { type IncomingMessage, type RequestListener, type ServerResponse } from 'node:http';
import https from 'node:https';
import net from 'node:net';

/** First byte of a TLS record that begins a handshake (RFC 8446, 5.1). */
const HANDSHAKE = 22;
/** Whoever connects and says nothing, or half of what is asked, for so long is let go. */
const SILENCE_MS = 15_000;

export interface FrontParts {
  secure: { cert: string; key: string };
  /** Answers over https. */
  app: RequestListener;
  /** Answers in either way, before the app; false: it is none of its own. */
  always: (request: IncomingMessage, response: ServerResponse) => boolean;
  /** Whether a request names this shop. */
  isOurs: (host: string) => boolean;
  /** Shorter in tests. */
  silenceMs?: number;
}

/** A server for http and https at one port: over http there is only the way to https. */
export interface Front {
  server: net.Server;
  /** Serves with another certificate from the next connection on. */
  renew: (secure: { cert: string; key: string }) => void;
  closeIdle: () => void;
  closeAll: () => void;
}

/** Tells the two apart by what a connection says first. */
export function openFront({ secure, app, always, isOurs, silenceMs = SILENCE_MS }: FrontParts): Front {
  const times = { headersTimeout: silenceMs, connectionsCheckingInterval: silenceMs / 3 };
  const over = https.createServer(
    { ...secure, ...times, handshakeTimeout: silenceMs, minVersion: 'TLSv1.2' },
    (request, response) => {
      if (!always(request, response)) app(request, response);
    },
  );
  const plain = http.createServer(times, (request, response) => {
    if (always(request, response)) return;
    const host = request.headers.host ?? '';
    const name = host.replace(/:\d+$/, '');
    // To no other host's door, whatever a request says of itself.
    if (!isOurs(name)) {
      response.writeHead(421, { 'Content-Type': 'text/plain; charset=utf-8' });
      return response.end('This shop is not known under that name.\n');
    }
    response.writeHead(308, { Location: `https://${host}${request.url}`, 'Cache-Control': 'no-store' });
    response.end();
  });
  // Neither listens by itself: this is what lets each look after its connections.
  for (const inner of [over, plain]) inner.emit('listening');
  const open = new Set<net.Socket>();
  const server = net.createServer((socket) => {
    open.add(socket);
    socket.setTimeout(silenceMs, () => socket.destroy());
    socket.on('error', () => socket.destroy());
    socket.on('close', () => open.delete(socket));
    socket.once('data', (first: Buffer) => {
      socket.pause();
      socket.setTimeout(0);
      socket.removeAllListeners('timeout');
      socket.unshift(first);
      (first[0] === HANDSHAKE ? over : plain).emit('connection', socket);
      process.nextTick(() => socket.resume());
    });
  });
  return {
    server,
    renew: (next) => over.setSecureContext({ ...next, minVersion: 'TLSv1.2' }),
    closeIdle: () => {
      over.closeIdleConnections();
      plain.closeIdleConnections();
    },
    closeAll: () => {
      for (const socket of open) socket.destroy();
    },
  };
}

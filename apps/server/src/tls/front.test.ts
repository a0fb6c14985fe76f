import net, { type AddressInfo } from 'node:net';
import tls from 'node:tls';
import { makeAuthority, signServer } from './authority';
import { openFront, type Front } from './front';

let front: Front;
let port: number;
beforeEach(async () => {
  const authority = await makeAuthority({ shop: 'hall', names: [], now: Date.now() });
  front = openFront({
    secure: await signServer(authority, { names: ['localhost'], now: Date.now() }),
    app: (_, response) => response.end('bench'),
    always: () => false,
    isOurs: () => true,
    silenceMs: 300,
  });
  await new Promise<void>((resolve) => front.server.listen(0, '127.0.0.1', resolve));
  ({ port } = front.server.address() as AddressInfo);
});
afterEach(() => {
  front.closeAll();
  front.server.close();
});

/** How long a connection stays that says this and no more, ms. */
function staysAfter(connect: () => net.Socket, text: string): Promise<number> {
  const begun = performance.now();
  return new Promise((resolve) => {
    const socket = connect();
    socket.on('error', () => undefined);
    socket.on('close', () => resolve(performance.now() - begun));
    socket.resume();
    socket.write(text);
  });
}

test.each([
  ['nothing', ''],
  ['half a request', 'GET / HTTP/1.1\r\nHost: x\r\nX-Slow: '],
  ['the first byte of a handshake', '\x16'],
])('over a bare line: %s is let go', async (_, text) => {
  expect(await staysAfter(() => net.connect(port, '127.0.0.1'), text)).toBeLessThan(3_000);
});

test('half a request over TLS is let go', async () => {
  const secure = () => tls.connect({ port, host: '127.0.0.1', rejectUnauthorized: false });
  expect(await staysAfter(secure, 'GET / HTTP/1.1\r\nHost: x\r\nX-Slow: ')).toBeLessThan(3_000);
});

test('idle connections are let go when the server is told to stop', async () => {
  const socket = tls.connect({ port, host: '127.0.0.1', rejectUnauthorized: false });
  socket.write('GET / HTTP/1.1\r\nHost: localhost\r\n\r\n');
  await new Promise((resolve) => socket.once('data', resolve));
  const closed = new Promise((resolve) => socket.once('close', resolve));
  front.closeIdle();
  await closed;
});

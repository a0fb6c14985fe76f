import type { IncomingMessage, ServerResponse } from 'node:http';
import { derOf, fingerprintOfCert } from './authority';

export const TRUST_PATH = '/trust';
const FILE_PATH = `${TRUST_PATH}/even-bed.crt`;
/** Answers nothing, over https: a page over http may ask for it, and sees whether the certificate was taken. */
const SEEN_PATH = `${TRUST_PATH}/seen`;

/** Asks over https whether this device takes the certificate, and says so. */
const SCRIPT = `
const at = 'https://' + location.host;
const say = (id) => { for (const one of document.querySelectorAll('[data-when]')) one.hidden = one.dataset.when !== id; };
const look = () => fetch(at + '${SEEN_PATH}', { mode: 'no-cors', cache: 'no-store' }).then(() => say('trusted'), () => say('not-yet'));
document.getElementById('open').href = at + '/';
document.getElementById('again').addEventListener('click', look);
look();
`;

const STYLE = `
body { font: 17px/1.5 system-ui, sans-serif; margin: 0 auto; max-width: 38rem; padding: 24px 20px 64px; background: #F6F3EA; color: #1E2A2F; }
h1 { font-size: 27px; margin: 0 0 4px; } h2 { font-size: 15px; letter-spacing: .04em; margin: 32px 0 8px; border-bottom: 1px solid #8a8577; padding-bottom: 4px; }
p { margin: 0 0 12px; } ol, ul { padding-left: 1.3em; margin: 0; } li { margin-bottom: 8px; }
a.do, button { display: inline-block; min-height: 52px; padding: 0 20px; border: 1px solid #1E2A2F; border-radius: 4px; font: inherit; font-weight: bold; line-height: 52px; background: none; color: inherit; text-decoration: none; }
a.do { background: #1E2A2F; color: #F6F3EA; } code { font: 16px/1.6 ui-monospace, monospace; word-spacing: .2em; }
@media (prefers-color-scheme: dark) { body { background: #13191C; color: #ECE7DA; } a.do { background: #ECE7DA; color: #13191C; } button { border-color: #ECE7DA; } }
`;

const page = (fingerprint: string) => `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><title>Even Bed: let this device in</title>
<meta name="viewport" content="width=device-width, initial-scale=1"><style>${STYLE}</style></head>
<body>
<h1>Let this device in</h1>
<p>Even Bed runs on a computer of your shop. For it to work without a signal, and to use the camera, this device has to trust that computer once.</p>
<p data-when="trusted" hidden><strong>This device trusts the shop.</strong></p>
<p data-when="not-yet" hidden><strong>This device does not trust the shop yet.</strong> Do the steps below, then look again.</p>
<p><a class="do" id="open" href="/">Open Even Bed</a> <button id="again" type="button">Look again</button></p>
<h2>1 · GET THE CERTIFICATE</h2>
<p><a class="do" href="${FILE_PATH}">Download it</a></p>
<p>Its fingerprint (SHA-256) must be the one that stands on the server’s terminal and on the page People. If it is another one, stop and ask a lead.</p>
<p><code>${fingerprint}</code></p>
<h2>2 · TRUST IT</h2>
<ul>
<li><strong>A phone that says that a profile was downloaded:</strong> open Settings, choose the profile at the top and install it. Then General, About, Certificate trust settings: switch it on.</li>
<li><strong>A phone that asks for a certificate’s kind, or saves the file:</strong> Settings, Security and privacy, More, Install a certificate, CA certificate; choose the file. The phone warns that somebody could read along: this certificate works for addresses inside your shop only.</li>
<li><strong>A computer:</strong> open the file and put it among the trusted root authorities. Some browsers have a list of their own: Settings, Privacy and security, Certificates, Authorities, Import, for websites.</li>
</ul>
<h2>3 · OPEN EVEN BED</h2>
<p>Look again above, then open it and add it to the home screen. On a shop’s own devices ask whoever runs the network whether certificates may be added.</p>
<h2>UNTIL THEN</h2>
<p>The browser warns before the page opens. Whoever goes past the warning can look and write while there is a signal. What does not work: going on without a signal, scanning with the camera, alarms while the page is closed, going on by a knock.</p>
<p>You can take the certificate away again at any time, where you added it.</p>
<script>${SCRIPT}</script>
</body></html>
`;

/** Answers for the way in: a page that says how a device comes to trust the shop, and the authority's certificate. */
export function trustAnswers(authority: () => string) {
  return (request: IncomingMessage, response: ServerResponse): boolean => {
    const path = (request.url ?? '').split('?')[0];
    if (path !== TRUST_PATH && path !== FILE_PATH && path !== SEEN_PATH) return false;
    if (request.method !== 'GET' && request.method !== 'HEAD') {
      response.writeHead(405, { Allow: 'GET, HEAD' }).end();
      return true;
    }
    if (path === SEEN_PATH) {
      response.writeHead(204, { 'Cache-Control': 'no-store' }).end();
      return true;
    }
    const cert = authority();
    const headers = { 'Cache-Control': 'no-store', 'X-Content-Type-Options': 'nosniff' };
    if (path === FILE_PATH) {
      const body = derOf(cert);
      response.writeHead(200, {
        ...headers,
        'Content-Type': 'application/x-x509-ca-cert',
        'Content-Disposition': 'attachment; filename="even-bed.crt"',
        'Content-Length': body.length,
      });
      response.end(request.method === 'HEAD' ? undefined : body);
      return true;
    }
    response.writeHead(200, {
      ...headers,
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Security-Policy':
        "default-src 'none'; style-src 'unsafe-inline'; script-src 'unsafe-inline'; connect-src https:; base-uri 'none'; frame-ancestors 'none'",
      'Referrer-Policy': 'no-referrer',
    });
    response.end(request.method === 'HEAD' ? undefined : page(fingerprintOfCert(cert)));
    return true;
  };
}

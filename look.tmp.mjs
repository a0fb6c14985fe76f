import { chromium } from 'playwright-core';
const url = 'http://127.0.0.1:4898';
const { demo } = await (await fetch(`${url}/api/session`)).json();
const lead = demo.find(({ role }) => role === 'lead');
const entered = await fetch(`${url}/api/session`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify({ name: lead.name, secret: lead.secret }) });
const [, session] = /even-bed-session=([^;]+)/.exec(entered.headers.get('set-cookie'));
const get = async (a) => (await fetch(`${url}/api${a}`, { headers: { Cookie: `even-bed-session=${session}` } })).json();
const { items } = await get('/machines');
const idOf = (name) => items.find((m) => m.name === name).id;
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'] });
const open = async (w, h, dark) => { const c = await browser.newContext({ viewport: { width: w, height: h }, colorScheme: dark ? 'dark' : 'light', serviceWorkers: 'block', baseURL: url, reducedMotion: 'reduce' }); await c.addCookies([{ name: 'even-bed-session', value: session, url }]); const p = await c.newPage(); p.setDefaultTimeout(8000); p.on('pageerror', (e) => console.log('PAGEERROR', e.message)); return p; };
const shoot = async (p, n, full) => { await p.waitForTimeout(700); await p.screenshot({ path: `/tmp/look/${n}.png`, fullPage: !!full }); };
try { await (await import(process.argv[2])).default({ open, shoot, idOf, get, url }); } catch (e) { console.log(String(e).slice(0, 600)); }
await browser.close();

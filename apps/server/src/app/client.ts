import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type Koa from 'koa';
import serve from 'koa-static';

const YEAR_MS = 365 * 86_400_000;
/** Names that carry a hash of their content never change. */
const HASHED = /[.-][0-9a-f]{16,}\./i;

/** The scripts that stand in the client's one page, by their hashes, for the policy that lets no other run. */
export function inlineScripts(folder: string): string[] {
  const page = path.join(folder, 'index.html');
  const text = fs.existsSync(page) ? fs.readFileSync(page, 'utf8') : '';
  return [...text.matchAll(/<script>([^<]*)<\/script>/g)].map(
    ([, script]) => `'sha256-${createHash('sha256').update(script!).digest('base64')}'`,
  );
}

/** Serves the exported client, packed as its build packed it; addresses of its rooms get its one page. */
export function serveClient(app: Koa, folder: string): void {
  app.use(
    serve(folder, {
      index: false,
      setHeaders: (response, file) => {
        const forever = HASHED.test(path.basename(file));
        response.setHeader('Vary', 'Accept-Encoding');
        response.setHeader('Cache-Control', forever ? `public, max-age=${YEAR_MS / 1000}, immutable` : 'no-cache');
      },
    }),
  );
  app.use(async (ctx, next) => {
    const wantsPage =
      (ctx.method === 'GET' || ctx.method === 'HEAD') && ctx.accepts('html') && path.extname(ctx.path) === '';
    if (!wantsPage) return next();
    ctx.set('Cache-Control', 'no-cache');
    await serve(folder, { index: 'index.html' })(Object.assign(ctx, { path: '/' }), next);
  });
}

import path from 'node:path';
import type Koa from 'koa';
import serve from 'koa-static';

const YEAR_MS = 365 * 86_400_000;
/** Names that carry a hash of their content never change. */
const HASHED = /[.-][0-9a-f]{16,}\./i;

/** Serves the exported client; addresses of its rooms get its one page. */
export function serveClient(app: Koa, folder: string): void {
  app.use(
    serve(folder, {
      index: false,
      setHeaders: (response, file) => {
        const forever = HASHED.test(path.basename(file));
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

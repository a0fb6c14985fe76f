import type { Context } from 'koa';
import fs from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import type { Router } from '@koa/router';
import { openApi } from './openApi';
import { notFound } from '../kernel/problem';
import type { Route } from '../kernel/route';

const require = createRequire(__filename);

const FILES: Record<string, string> = {
  'swagger-ui.css': 'text/css',
  'swagger-ui-bundle.js': 'text/javascript',
};

const PAGE = `<!doctype html><html lang="en"><meta charset="utf-8"><title>Even Bed · API</title>
<meta name="viewport" content="width=device-width, initial-scale=1">
<link rel="stylesheet" href="/api/docs/swagger-ui.css"><div id="docs"></div>
<script src="/api/docs/swagger-ui-bundle.js"></script><script src="/api/docs/start.js"></script></html>`;

const START = `SwaggerUIBundle({ url: '/api/openapi.json', dom_id: '#docs', docExpansion: 'list', validatorUrl: null });`;

/** The API described (openapi.json) and readable (docs), from files that ship with the server. */
export function serveDocs(
  router: Router,
  routes: readonly Route[],
  guard: (ctx: Context, next: () => Promise<void>) => Promise<void>,
): void {
  const description = JSON.stringify(openApi(routes));
  router.get('/openapi.json', guard, (ctx) => {
    ctx.type = 'json';
    ctx.body = description;
  });
  router.get('/docs', guard, (ctx) => {
    ctx.type = 'html';
    ctx.body = PAGE;
  });
  router.get('/docs/:file', (ctx) => {
    const name = ctx.params['file']!;
    if (name === 'start.js') {
      ctx.type = 'text/javascript';
      ctx.body = START;
      return;
    }
    const type = FILES[name];
    if (!type) throw notFound('This file');
    ctx.type = type;
    ctx.body = fs.createReadStream(path.join(path.dirname(require.resolve('swagger-ui-dist/package.json')), name));
  });
}

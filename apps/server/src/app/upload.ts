import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { once } from 'node:events';
import type { Context } from 'koa';
import { v7 as uuid } from 'uuid';
import { Problem } from '../kernel/problem';
import type { Route } from '../kernel/route';

type Upload = NonNullable<Route['takes']>;

/** The pieces of a file that is the body of a request, refusing what is too large before it is all there. */
async function* pieces(ctx: Context, { types, limit, tooLarge }: Upload): AsyncGenerator<Buffer> {
  // A form of another site can't set this header: uploads need it as JSON needs its type.
  if (ctx.get('Idempotency-Key') === '') throw new Problem(400, 'no-key', 'An upload needs an Idempotency-Key header.');
  if (!ctx.is(...types)) throw new Problem(415, 'wrong-type', `Send one of these types: ${types.join(', ')}.`);
  const refuse = () => {
    // What is still on its way is let run out, so that the sender gets to read the answer.
    ctx.req.resume();
    return new Problem(413, 'too-large', tooLarge);
  };
  if (Number(ctx.get('Content-Length') || 0) > limit) throw refuse();
  let size = 0;
  for await (const piece of ctx.req.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
    size += piece.length;
    if (size > limit) throw refuse();
    yield piece;
  }
}

/** Reads an upload into memory. */
export async function readUpload(ctx: Context, upload: Upload): Promise<Buffer> {
  const all: Buffer[] = [];
  for await (const piece of pieces(ctx, upload)) all.push(piece);
  return Buffer.concat(all);
}

/** Puts an upload into a file of its own, which the caller takes away. */
export async function keepUpload(ctx: Context, upload: Upload): Promise<string> {
  const file = path.join(os.tmpdir(), `even-bed-${uuid()}.upload`);
  const out = fs.createWriteStream(file, { mode: 0o600 });
  try {
    for await (const piece of pieces(ctx, upload)) if (!out.write(piece)) await once(out, 'drain');
    out.end();
    await once(out, 'finish');
    return file;
  } catch (error) {
    out.destroy();
    fs.rmSync(file, { force: true });
    throw error;
  }
}

import type { Context } from 'koa';
import { Problem } from './problem';
import type { Route } from './route';

/** Reads a file that is the body of a request, refusing what is too large before it is all there. */
export async function readUpload(
  ctx: Context,
  { types, limit, tooLarge }: NonNullable<Route['upload']>,
): Promise<Buffer> {
  // A form of another site can't set this header: uploads need it as JSON needs its type.
  if (ctx.get('Idempotency-Key') === '') throw new Problem(400, 'no-key', 'An upload needs an Idempotency-Key header.');
  if (!ctx.is(...types)) throw new Problem(415, 'wrong-type', `Send one of these types: ${types.join(', ')}.`);
  const refuse = () => {
    // What is still on its way is let run out, so that the sender gets to read the answer.
    ctx.req.resume();
    return new Problem(413, 'too-large', tooLarge);
  };
  if (Number(ctx.get('Content-Length') || 0) > limit) throw refuse();
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of ctx.req.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > limit) throw refuse();
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

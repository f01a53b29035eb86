import type { Request, Response } from 'express';
import type { FaultKind } from '../faults.js';

/** Never answers; the caller has to give up. */
export async function hang(request: Request): Promise<void> {
  await new Promise((resolve) => request.on('close', resolve));
}

/** Responds with JSON, or with an injected fault. */
export async function answer(
  response: Response,
  fault: FaultKind | undefined,
  body: Record<string, unknown>,
): Promise<void> {
  if (fault === 'error') {
    response.status(500).json({ error: { code: 'broken', message: 'Something broke here.' } });
  } else if (fault === 'html') {
    response.status(200).type('html').send('<!doctype html><title>Back soon</title><p>We are back soon.');
  } else if (fault === 'empty') {
    response.status(200).type('json').send('');
  } else if (fault === 'cut') {
    const text = JSON.stringify(body);
    response.status(response.statusCode).type('json').setHeader('Content-Length', Buffer.byteLength(text));
    response.write(text.slice(0, Math.floor(text.length / 2)));
    await new Promise((resolve) => setTimeout(resolve, 5));
    response.destroy();
  } else response.json(body);
}

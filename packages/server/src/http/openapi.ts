import { kindNames, kinds } from '@visograph/core';
import { z } from 'zod';
import type { Route } from './route.ts';

/** The API as an OpenAPI 3.1 document, made from the routes and the model's schemas. */
export function openApi(routes: readonly Route[]): object {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const { method, path, access, summary, body, textLimit, bytesLimit } of routes) {
    const shown = `/api/v1${path.replaceAll(/:(\w+)/g, '{$1}')}`;
    const parameters = [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
      name,
      in: 'path',
      required: true,
      schema: { type: 'string' },
    }));
    const content =
      textLimit === undefined && body !== undefined
        ? { 'application/json': { schema: z.toJSONSchema(body, { io: 'input' }) } }
        : { [bytesLimit === undefined ? 'text/plain' : 'application/octet-stream']: {} };
    paths[shown] = {
      ...paths[shown],
      [method]: {
        summary,
        description: `Access: ${access}`,
        parameters,
        ...(body === undefined && textLimit === undefined && bytesLimit === undefined
          ? {}
          : { requestBody: { required: true, content } }),
        responses: {
          200: { description: 'Done' },
          default: {
            description: 'A problem document (RFC 9457)',
            content: { 'application/problem+json': {} },
          },
        },
      },
    };
  }
  const schemas = Object.fromEntries(
    kindNames.map((kind) => [kind, z.toJSONSchema(kinds[kind].schema, { io: 'input' })]),
  );
  return { openapi: '3.1.0', info: { title: 'Visograph', version: '1' }, paths, components: { schemas } };
}

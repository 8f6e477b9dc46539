import { observedItems, observedLists } from '@visograph/core/cloud';
import { z } from 'zod';

const json = (schema: object): object => ({ content: { 'application/json': { schema } } });
const problem = json({
  type: 'object',
  properties: { title: { type: 'string' }, detail: { type: 'string' } },
});

/** The interface of a simulated account (OpenAPI 3.1). */
export function accountOpenApi(): object {
  const lists = observedLists.map((list) => [
    `/${list}`,
    {
      get: {
        summary: `A page of ${list}`,
        security: [{ token: [] }],
        parameters: [
          {
            name: 'after',
            in: 'query',
            schema: { type: 'string' },
            description: 'Where the last page ended',
          },
          { name: 'limit', in: 'query', schema: { type: 'integer', minimum: 1, maximum: 1000 } },
        ],
        responses: {
          200: {
            description: 'Items, and where the next page begins; null: that was all',
            ...json({
              type: 'object',
              required: ['items', 'next'],
              properties: {
                items: {
                  type: 'array',
                  items: z.toJSONSchema(observedItems[list], { io: 'input', unrepresentable: 'any' }),
                },
                next: { type: ['string', 'null'] },
              },
            }),
          },
          401: { description: 'The token is missing or has expired', ...problem },
          503: { description: 'Not now', ...problem },
        },
      },
    },
  ]);
  return {
    openapi: '3.1.0',
    info: { title: 'Simulated cloud account', version: '1' },
    paths: {
      '/token': {
        post: {
          summary: 'Sign in: a token for so many seconds',
          requestBody: {
            required: true,
            ...json({
              type: 'object',
              required: ['client', 'secret'],
              properties: { client: { type: 'string' }, secret: { type: 'string' } },
            }),
          },
          responses: {
            200: {
              description: 'The token',
              ...json({
                type: 'object',
                properties: { token: { type: 'string' }, seconds: { type: 'integer' } },
              }),
            },
            401: { description: 'No such client, or another secret', ...problem },
          },
        },
      },
      '/counts': {
        get: {
          summary: 'How many items each list has',
          security: [{ token: [] }],
          responses: {
            200: {
              description: 'By list',
              ...json({ type: 'object', additionalProperties: { type: 'integer' } }),
            },
          },
        },
      },
      '/manners': {
        put: {
          summary: 'How the account behaves from now on; what is left out stays',
          security: [{ token: [] }],
          responses: { 204: { description: 'Taken' } },
        },
      },
      '/drift': {
        post: {
          summary: 'Things are done in the account that nobody documents: so many of them',
          security: [{ token: [] }],
          responses: { 200: { description: 'What was done, in words' } },
        },
      },
      ...Object.fromEntries(lists),
    },
    components: { securitySchemes: { token: { type: 'http', scheme: 'bearer' } } },
  };
}

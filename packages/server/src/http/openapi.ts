import { isRaw, networkQuery, schemas, type Endpoint } from '@visograph/api';
import { kindNames, kinds } from '@visograph/core/model';
import { z } from 'zod';

type Json = Record<string, unknown>;
const schemaOf = (schema: z.ZodType, io: 'input' | 'output'): Json =>
  z.toJSONSchema(schema, { io, unrepresentable: 'any' });

function bodyOf({ body }: Endpoint): Json | null {
  if (body === undefined) return null;
  const content = isRaw(body)
    ? { [body.raw === 'text' ? 'text/plain' : 'application/octet-stream']: {} }
    : { 'application/json': { schema: schemaOf(body, 'input') } };
  return { required: true, content };
}

/** What a call that is a job answers before it is done. */
const accepted: Json = {
  202: {
    description: 'Begun: what it answers is asked for at /api/v1/jobs/{job}/result once it is done',
    content: { 'application/json': { schema: schemaOf(schemas.job, 'output') } },
  },
};

function repliesOf(method: string, { answers, files = [], job, jobIfLarge }: Endpoint): Json {
  const content: Json = Object.fromEntries(files.map((type) => [type, {}]));
  if (answers !== undefined) content['application/json'] = { schema: schemaOf(answers, 'output') };
  return Object.keys(content).length === 0
    ? { 204: { description: 'Done' } }
    : {
        200: { description: 'Done', content },
        ...((job ?? jobIfLarge) === undefined || method === 'GET' ? {} : accepted),
      };
}

function parametersOf(path: string, { network, query = {} }: Endpoint): Json[] {
  const parts = [...path.matchAll(/:(\w+)/g)].map(([, name]) => ({
    ...{ name, in: 'path', required: true, schema: { type: 'string' } },
  }));
  const asked = { ...(network === undefined ? {} : networkQuery[network]), ...query };
  const wishes = Object.entries(asked).map(([name, description]) => ({
    ...{ name, in: 'query', required: false, description, schema: { type: 'string' } },
  }));
  return [...parts, ...wishes];
}

/** The API as an OpenAPI 3.1 document, made from the contract and the model's schemas. */
export function openApi(contract: { readonly [name: string]: Endpoint }): Json {
  const paths: Record<string, Json> = {};
  const refused = {
    'application/problem+json': { schema: { $ref: '#/components/schemas/problemDocument' } },
  };
  for (const [name, endpoint] of Object.entries(contract)) {
    const [method = '', path = ''] = name.split(' ');
    const shown = `/api/v1${path.replaceAll(/:(\w+)/g, '{$1}')}`;
    const requestBody = bodyOf(endpoint);
    paths[shown] = {
      ...paths[shown],
      [method.toLowerCase()]: {
        summary: endpoint.summary,
        description: `Access: ${endpoint.access}`,
        parameters: parametersOf(path, endpoint),
        ...(requestBody === null ? {} : { requestBody }),
        responses: {
          ...repliesOf(method, endpoint),
          default: { description: 'A problem document (RFC 9457)', content: refused },
        },
      },
    };
  }
  const rows = Object.fromEntries(kindNames.map((kind) => [kind, schemaOf(kinds[kind].schema, 'input')]));
  const problemDocument = schemaOf(schemas.problemDocument, 'output');
  return {
    openapi: '3.1.0',
    info: { title: 'Visograph', version: '1' },
    paths,
    components: { schemas: { ...rows, problemDocument } },
  };
}

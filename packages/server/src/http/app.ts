import { contract, type DirectName, type Endpoint, type Name } from '@visograph/api';
import { unwritableInside } from '@visograph/core/model';
import compression from 'compression';
import express, {
  type ErrorRequestHandler,
  type Express,
  type Request,
  type RequestHandler,
  type Response,
} from 'express';
import helmet from 'helmet';
import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { isJobName, isLargeName } from '../jobs/jobNames.ts';
import { serveEastAsianFonts } from '../sheets/eastAsianFonts.ts';
import { answerByJob, bodyOf, byJobWhereLarge } from './answerByJob.ts';
import { authorise, type Who } from './authorise.ts';
import { readBody, readerOf } from './bodies.ts';
import { caller } from './caller.ts';
import type { Metrics } from './metrics.ts';
import { notFound, Refusal, sendRefusal } from './problem.ts';
import { fault, refusalOf } from './refusals.ts';
import { sent, type Call, type Handlers, type Services } from './route.ts';
import { handlers } from './routes.ts';

export interface AppOptions {
  services: Services;
  metrics: Metrics;
  session: RequestHandler;
  /** Folder of the built web application; null serves the API alone. */
  webFolder: string | null;
  /** Nothing is served without TLS, here or at a proxy. */
  overTlsOnly: boolean;
  /** Whose word on where a request comes from is taken: addresses or networks of proxies; empty: nobody's. */
  trustedProxies: readonly string[];
}

/** A page of another origin cannot write with the person's cookie. */
function refuseForeignOrigin(request: Request): void {
  const origin = request.headers.origin;
  if (origin === undefined || request.method === 'GET') return;
  if (!URL.canParse(origin) || new URL(origin).host !== request.headers.host) {
    throw new Refusal(403, 'Not allowed', 'The request comes from another site.');
  }
}

const first = (value: unknown): string | null => (typeof value === 'string' ? value : null);

/** What a query says is kept and told again: it is text that can be. */
function refuseUnwritable({ query }: Request): void {
  for (const [name, value] of Object.entries(query)) {
    const found = unwritableInside(value) ?? unwritableInside(name);
    if (found !== null)
      throw new Refusal(
        400,
        'The request is not understood',
        `${name.slice(0, 40)} holds the character ${found}, which cannot be written. Take it out.`,
      );
  }
}

/** Parts of a path that are no ids. */
const named: ReadonlySet<string> = new Set(['report']);
/** An id has one spelling (RFC 9562): what is written otherwise means the same. */
const canonical = (part: string): string => (z.uuid().safeParse(part).success ? part.toLowerCase() : part);

const sessionOf = (request: Partial<Pick<Request, 'session'>>): Request['session'] | undefined =>
  request.session;

/** Who calls, decided before anything of the body is read; and that the path names what can be there. */
function admit(endpoint: Endpoint, services: Services): RequestHandler {
  return async (request, response, next) => {
    refuseForeignOrigin(request);
    refuseUnwritable(request);
    for (const [name, part] of Object.entries(request.params)) request.params[name] = canonical(String(part));
    const projectId = String(request.params['project'] ?? '');
    response.locals['who'] = await authorise(
      endpoint,
      { accountId: sessionOf(request)?.accountId, projectId },
      services.knex,
    );
    for (const [name, part] of Object.entries(request.params))
      if (!named.has(name) && !z.uuid().safeParse(part).success) throw notFound(`This ${name}`);
    next();
  };
}

function answerAtOnce<K extends DirectName>(
  name: K,
  handle: Handlers[K],
  services: Services,
): RequestHandler {
  return async (request, response) => {
    const who = response.locals['who'] as Who;
    const query = (wanted: string): string | null => first(request.query[wanted]);
    const call: Call<DirectName> = {
      ...{ request, response, services, query },
      ...who,
      ...caller(services.store, name, who, query),
      body: readBody(contract[name], bodyOf(request)) as Call<DirectName>['body'],
      param: (wanted) => String(request.params[wanted] ?? ''),
    };
    const result = await handle(call);
    if (result === sent) return;
    if (result === undefined) response.status(204).end();
    else response.json(result);
  };
}

function serveWeb(app: Express, folder: string): void {
  app.use(
    express.static(folder, {
      index: false,
      setHeaders: (response, path) =>
        void response.setHeader(
          'Cache-Control',
          path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
        ),
    }),
  );
  app.get(/^\/(?!api\/|assets\/).*/, (_request, response) =>
    response.set('Cache-Control', 'no-cache').sendFile(join(folder, 'index.html')),
  );
}

/** Calls that nobody is asked for: they answer whatever is away. */
const withoutSession: ReadonlySet<Name> = new Set(['GET /health', 'GET /ready', 'GET /openapi.json']);

/** One call of the contract, by its method and path: who may, then what is sent, then what is done. */
function serve(
  api: express.Router,
  name: Name,
  { services, session, metrics }: Pick<AppOptions, 'services' | 'session' | 'metrics'>,
): void {
  const [method = '', path = ''] = name.split(' ');
  const verb = method.toLowerCase() as 'get' | 'post' | 'put' | 'delete';
  const endpoint: Endpoint = contract[name];
  const handler = isJobName(name)
    ? answerByJob(name, services)
    : isLargeName(name)
      ? byJobWhereLarge(name, services, direct(name, services))
      : direct(name, services);
  const readers = endpoint.body === undefined ? [] : [readerOf(endpoint)];
  const sessions = withoutSession.has(name) ? [] : [session];
  api[verb](path, metrics.measure(name), ...sessions, admit(endpoint, services), ...readers, handler);
}
const direct = <K extends DirectName>(name: K, services: Services): RequestHandler =>
  answerAtOnce(name, handlers[name], services);

/** The HTTP application: API under /api/v1, the web application for everything else. */
export function makeApp({
  services,
  metrics,
  session,
  webFolder,
  trustedProxies,
  overTlsOnly,
}: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('trust proxy', trustedProxies.length === 0 ? false : [...trustedProxies]);
  // Nothing of ours is said by nested queries.
  app.set('query parser', 'simple');
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
      // Only where nothing is served without TLS: a browser does not forget it.
      strictTransportSecurity: overTlsOnly ? { maxAge: 31_536_000 } : false,
    }),
  );
  app.use(compression());
  app.use((request, response, next) => {
    const id = randomUUID();
    response.locals['requestId'] = id;
    response.setHeader('X-Request-Id', id);
    const started = performance.now();
    response.on('finish', () =>
      services.log.debug(
        {
          id,
          method: request.method,
          path: request.path,
          status: response.statusCode,
          ms: Math.round(performance.now() - started),
        },
        'request',
      ),
    );
    next();
  });
  const api = express.Router();
  for (const name of Object.keys(contract) as Name[]) serve(api, name, { services, session, metrics });
  api.use((request: Request, response: Response) =>
    sendRefusal(response, notFound(request.path), String(response.locals['requestId'])),
  );
  app.use('/api/v1', api);
  serveEastAsianFonts(app);
  if (webFolder !== null && existsSync(webFolder)) serveWeb(app, webFolder);
  const onError: ErrorRequestHandler = (error: unknown, _request, response, next) => {
    if (response.headersSent) return next(error);
    const id = String(response.locals['requestId']);
    const refusal = refusalOf(error);
    if (refusal === null)
      services.log.error(
        { id, error: error instanceof Error ? error.stack : String(error) },
        'request failed',
      );
    sendRefusal(response, refusal ?? fault(id), id);
  };
  app.use(onError);
  return app;
}

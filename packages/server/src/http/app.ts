import { contract, isRaw, type Access, type Endpoint, type Name } from '@visograph/api';
import { unwritableInside } from '@visograph/core/model';
import compression from 'compression';
import express, {
  type ErrorRequestHandler,
  type Express,
  type Request,
  type RequestHandler,
  type Response,
} from 'express';
import { rateLimit } from 'express-rate-limit';
import helmet from 'helmet';
import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { Account, Membership, type MemberRole } from '../database/rows.ts';
import { serveEastAsianFonts } from '../sheets/eastAsianFonts.ts';
import { audienceOf, meantBy, penFor, type Meant } from './meant.ts';
import { LineProblem } from '../plans/lineProblem.ts';
import { notFound, Refusal, sendRefusal } from './problem.ts';
import { sent, type Call, type Caller, type Handlers, type Services } from './route.ts';
import { handlers } from './routes.ts';

export interface AppOptions {
  services: Services;
  session: RequestHandler;
  /** Folder of the built web application; null serves the API alone. */
  webFolder: string | null;
  /** Failed sign-ins allowed in 15 minutes for one address and one account name. */
  signInTries: number;
}

const rank: Record<MemberRole, number> = { reader: 1, editor: 2, owner: 3 };
const jsonLimit = '16mb';

/** The one place where it is decided who may call what. An outsider learns nothing, not even that a project exists. */
async function authorise(
  access: Access,
  request: Request,
  services: Services,
): Promise<Pick<Caller, 'account' | 'projectId' | 'role'>> {
  const nobody = { account: new Account(), projectId: '', role: 'reader' as const };
  if (access === 'public') return nobody;
  const id = request.session.accountId;
  const projectId = String(request.params['project'] ?? '');
  const ofProject = access !== 'signedIn' && z.uuid().safeParse(projectId).success;
  const [account, member] =
    id === undefined
      ? []
      : await Promise.all([
          Account.query(services.knex).findById(id),
          ofProject ? Membership.query(services.knex).findOne({ projectId, accountId: id }) : undefined,
        ]);
  if (account === undefined)
    throw new Refusal(401, 'Not signed in', 'Your session has ended. Sign in again; what you typed is kept.');
  if (access === 'signedIn') return { ...nobody, account };
  if (member === undefined) throw notFound('This project');
  if (rank[member.role] < rank[access]) {
    throw new Refusal(
      403,
      'Not allowed',
      `You are ${member.role} of this project; this needs ${access}. Ask an owner of the project.`,
    );
  }
  return { account, projectId, role: member.role };
}

/** A page of another origin cannot write with the person's cookie. */
function refuseForeignOrigin(request: Request): void {
  const origin = request.headers.origin;
  if (origin === undefined || request.method === 'GET') return;
  if (!URL.canParse(origin) || new URL(origin).host !== request.headers.host) {
    throw new Refusal(403, 'Not allowed', 'The request comes from another site.');
  }
}

function parseBody({ body }: Endpoint, request: Request): unknown {
  if (body === undefined) return undefined;
  if (isRaw(body)) {
    if (body.raw === 'text') return typeof request.body === 'string' ? request.body : '';
    return Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0);
  }
  const parsed = body.safeParse(request.body ?? {});
  if (parsed.success) {
    // Rows are judged by the model, which names them.
    const { changes: _rows, ...fields } = Object(parsed.data) as Record<string, unknown>;
    const broken = Object.entries(fields).find(([, value]) => unwritableInside(value) !== null);
    if (broken === undefined) return parsed.data;
    throw new Refusal(
      400,
      'The request is not understood',
      `${broken[0]} holds the character ${unwritableInside(broken[1]) ?? ''}, which cannot be written. Take it out.`,
    );
  }
  const [issue] = parsed.error.issues;
  const field = issue?.path.join('.') ?? '';
  throw new Refusal(
    400,
    'The request is not understood',
    `${field === '' ? 'The body' : field} ${issue?.message ?? 'is not allowed'}.`,
  );
}

const first = (value: unknown): string | null => (typeof value === 'string' ? value : null);

function handlerOf<K extends Name>(name: K, handle: Handlers[K], services: Services): RequestHandler {
  const endpoint: Endpoint = contract[name];
  return async (request, response) => {
    refuseForeignOrigin(request);
    const who = await authorise(endpoint.access, request, services);
    const query = (wanted: string): string | null => first(request.query[wanted]);
    const writes = endpoint.network === 'write';
    if (query('at') !== null && writes)
      throw new Refusal(
        409,
        'What was cannot be changed',
        'You look at an earlier moment of the project. Go back to now to change it.',
      );
    const plan = (): string | null => {
      if (endpoint.network === undefined) throw new Error(`${name} does not say that it needs a network.`);
      return query('plan');
    };
    let meant: Promise<Meant> | null = null;
    const call: Call<Name> = {
      request,
      response,
      services,
      ...who,
      body: parseBody(endpoint, request) as Call<Name>['body'],
      param: (wanted) => String(request.params[wanted] ?? ''),
      query,
      network: () =>
        (meant ??= meantBy(services.store, who.projectId, audienceOf(who.role), {
          plan: plan(),
          at: query('at'),
          built: writes ? null : query('built'),
        })),
      pen: () => penFor(services.store, who.projectId, who.account, plan()),
    };
    const result = await handle(call);
    if (result === sent) return;
    if (result === undefined) response.status(204).end();
    else response.json(result);
  };
}

function refusalOf(error: unknown): Refusal | null {
  if (error instanceof Refusal) return error;
  if (error instanceof LineProblem)
    return error.reason === 'absent'
      ? new Refusal(404, 'Not found', error.message)
      : new Refusal(410, 'The plan was thrown away', error.message);
  const { type, status, code } = error as { type?: string; status?: number; code?: string };
  if (type === 'entity.too.large')
    return new Refusal(
      413,
      'Too large',
      'What was sent is larger than this server takes (16 MB of changes, 40 MB for an exchange file, 5 MB for a spreadsheet). Split it and send the parts.',
    );
  if (type === 'entity.parse.failed')
    return new Refusal(400, 'The request is not understood', 'The body is not JSON.');
  if (status !== undefined && status >= 400 && status < 500)
    return new Refusal(status, 'The request is not understood', 'The request cannot be read.');
  if (code === 'ECONNREFUSED' || code?.startsWith('57P') === true || code === 'ECONNRESET') {
    return new Refusal(
      503,
      'The database does not answer',
      'The database cannot be reached at the moment. Your edit is kept and sent again.',
    );
  }
  return null;
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

function readerOf({ body }: Endpoint): RequestHandler {
  if (body === undefined || !isRaw(body)) return express.json({ limit: jsonLimit });
  return body.raw === 'text'
    ? express.text({ limit: body.limit, type: () => true })
    : express.raw({ limit: body.limit, type: () => true });
}

/** One call of the contract, by its method and path. */
function serve<K extends Name>(api: express.Router, name: K, services: Services): void {
  const [method = '', path = ''] = name.split(' ');
  const verb = method.toLowerCase() as 'get' | 'post' | 'put' | 'delete';
  api[verb](path, readerOf(contract[name]), handlerOf(name, handlers[name], services));
}

/** The HTTP application: API under /api/v1, the web application for everything else. */
export function makeApp({ services, session, webFolder, signInTries }: AppOptions): Express {
  const app = express();
  app.disable('x-powered-by');
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
      strictTransportSecurity: false,
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
  api.use(session);
  api.post(
    '/session',
    express.json({ limit: '10kb' }),
    rateLimit({
      windowMs: 15 * 60 * 1000,
      limit: signInTries,
      skipSuccessfulRequests: true,
      standardHeaders: true,
      legacyHeaders: false,
      validate: { keyGeneratorIpFallback: false },
      keyGenerator: (request) =>
        `${request.socket.remoteAddress ?? ''} ${String((request.body as { email?: unknown } | undefined)?.email ?? '').toLowerCase()}`,
      handler: (_request, response) =>
        sendRefusal(
          response,
          new Refusal(429, 'Too many tries', 'Too many failed sign-ins. Wait 15 minutes and try again.'),
          String(response.locals['requestId']),
        ),
    }),
  );
  for (const name of Object.keys(contract) as Name[]) serve(api, name, services);
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
    sendRefusal(
      response,
      refusal ??
        new Refusal(
          500,
          'Something went wrong',
          `The server failed at this request; nothing was written. Give the number ${id} to whoever runs it.`,
        ),
      id,
    );
  };
  app.use(onError);
  return app;
}

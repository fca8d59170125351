import type { INestApplication } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import type { NestExpressApplication } from '@nestjs/platform-express';
import compression from 'compression';
import expressStaticGzip from 'express-static-gzip';
import express, { type NextFunction, type Request, type Response } from 'express';
import session from 'express-session';
import helmet from 'helmet';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pinoHttp } from 'pino-http';
import type { Logger } from 'pino';
import { ApplicationModule } from './application.module.js';
import { AccessGuard } from './platform/access/access.js';
import { Links } from './platform/access/links.js';
import { SessionStore } from './platform/access/session-store.js';
import { requirePolicies } from './platform/access/check-routes.js';
import type { Config } from './platform/config/config.js';
import { checkInput, refuseDeepJson } from './platform/http/checks.js';
import type { Feature } from './platform/feature.js';
import { OpenRequests } from './platform/http/open-requests.js';
import { Problem } from './platform/http/problem.js';
import { sayWritten } from './platform/http/said-changes.js';
import { ProblemFilter } from './platform/http/problem-filter.js';
import { contractPipe } from './platform/http/validation.js';
import { SessionPool } from './platform/database/session-pool.js';
import { FrameworkLogger, LOGGER } from './platform/logging.js';
import { Clock } from './platform/time/clock.js';
import { schemaMetadata } from './platform/http/schema-metadata.js';

const UNSAFE = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/**
 * How long a connection that says nothing is kept. Longer than the proxies in front keep theirs (60 s is nginx's): who closes last never finds a line
 * that the other end has just given up.
 */
const KEPT_OPEN_MS = 65_000;

/** Builds the application of its features, ready to listen. Close it to stop its jobs and connections. */
export async function createServer(config: Config, features?: readonly Feature[]): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(ApplicationModule.with(config, features), {
    bufferLogs: true,
    bodyParser: false,
  });
  const logger = app.get<Logger>(LOGGER);
  app.useLogger(new FrameworkLogger(logger));
  app.disable('x-powered-by');
  app.use(app.get(OpenRequests).watch);
  app.use(pinoHttp({ logger, autoLogging: config.logLevel === 'info' || config.logLevel === 'debug' }));
  app.use(dated(app.get(Clock)));
  app.use(helmet(helmetOptions(config)));
  if (config.trustedProxies !== '') app.set('trust proxy', config.trustedProxies);
  app.use(sameOriginOnly(config));
  // answers in JSON alone: pages are compressed when they are built, and streams must not wait for more
  app.use('/api', compression({ filter: (_request, response) => /json/.test(String(response.getHeader('Content-Type'))) }));
  app.use('/api', express.json({ limit: '1mb', verify: refuseDeepJson }));
  app.use('/api', checkInput);
  app.use('/api', sessions(app, config));
  app.use('/api', sayWritten);
  app.setGlobalPrefix('api', { exclude: ['feeds/:secret'] });
  app.useGlobalPipes(contractPipe());
  app.useGlobalFilters(new ProblemFilter(logger));
  app.useGlobalGuards(app.get(AccessGuard));
  requirePolicies(app);
  app.getHttpServer().keepAliveTimeout = KEPT_OPEN_MS;
  await describe(app);
  if (config.webFolder) serveWeb(app, config.webFolder);
  return app;
}

const helmetOptions = (config: Config): Parameters<typeof helmet>[0] => ({
  contentSecurityPolicy: {
    useDefaults: true,
    directives: {
      'img-src': ["'self'", 'data:', 'blob:'],
      'media-src': ["'self'", 'blob:'],
      'style-src': ["'self'", "'unsafe-inline'"],
      'upgrade-insecure-requests': config.publicAddress.startsWith('https:') ? [] : null,
    },
  },
  strictTransportSecurity: config.publicAddress.startsWith('https:'),
});

/** Every answer carries our clock's time: pages reckon with it, not with that of the machine that shows them. (Not as `Date`: browsers end cookies by that.) */
const dated =
  (clock: Clock) =>
  (_request: Request, response: Response, next: NextFunction): void => {
    response.setHeader('Zesting-Now', clock.now());
    next();
  };

/** Refuses writes that another site's page sends with our visitors' cookies. */
function sameOriginOnly({ publicAddress }: Config): express.RequestHandler {
  const isPublic = publicAddress.startsWith('https:');
  return (request, _response, next) => {
    if (!UNSAFE.has(request.method)) return next();
    const { origin, host } = request.headers;
    // in the clear, as on one's own machine, it may be reached under other names; never so where the address is the internet's
    const isOurs = origin === undefined || origin === publicAddress || (!isPublic && origin === `${request.protocol}://${host}`);
    if (!isOurs || request.headers['sec-fetch-site'] === 'cross-site') return next(Problem.of('access.wrong_origin'));
    // a session cookie that only goes over TLS would not be set: better said than signed in and out again
    next(isPublic && !request.secure ? Problem.of('access.not_secure') : undefined);
  };
}

/** Sessions in the database: servers keep no state. */
function sessions(app: INestApplication, config: Config): express.RequestHandler {
  const clock = app.get(Clock);
  return session({
    store: new SessionStore(app.get(SessionPool).pool, () => clock.now()),
    name: 'zesting_session',
    secret: config.serverKey.toString('hex'),
    resave: false,
    saveUninitialized: false,
    rolling: false, // a session ends so long after signing in, whatever is done meanwhile: nothing is written to read
    cookie: {
      httpOnly: true,
      sameSite: 'lax',
      secure: config.publicAddress.startsWith('https:'),
      path: '/api',
    },
  });
}

/** OpenAPI at /api/docs and /api/openapi.json, its schemas read from the contract's classes. */
async function describe(app: INestApplication): Promise<void> {
  await SwaggerModule.loadPluginMetadata(schemaMetadata);
  const options = new DocumentBuilder().setTitle('Zesting').setVersion('0.1.0').addCookieAuth('zesting_session').build();
  SwaggerModule.setup('api/docs', app, () => SwaggerModule.createDocument(app, options), {
    jsonDocumentUrl: 'api/openapi.json',
    customSiteTitle: 'Zesting API',
    customfavIcon: '/mark.svg',
    customCss: '.swagger-ui .topbar { display: none }',
  });
}

/** Lets the sites that a form's link names show it in a frame. */
function embeddable(app: NestExpressApplication): express.RequestHandler {
  const links = app.get(Links);
  return (request, response, next) => {
    links
      .embeddingSites(request.path.split('/')[1] ?? '')
      .then((sites) => {
        if (sites.length === 0) return;
        const policy = String(response.getHeader('Content-Security-Policy'));
        response.setHeader('Content-Security-Policy', policy.replace(/frame-ancestors [^;]*/, `frame-ancestors 'self' ${sites.join(' ')}`));
        response.removeHeader('X-Frame-Options'); // says less than the policy, and would refuse them
      })
      .then(() => next(), next);
  };
}

/** What the API answers, and not a page. */
const OURS = /^\/(api|feeds)(\/|$)/;

/** Serves the built pages: three entries, each for its own addresses. */
function serveWeb(app: NestExpressApplication, folder: string): void {
  if (!existsSync(join(folder, 'index.html'))) throw new Error(`no built pages in ${folder}`);
  const compressed = (path: string, serveStatic: { immutable?: boolean; maxAge?: string }) =>
    expressStaticGzip(path, { enableBrotli: true, orderPreference: ['br', 'gz'], index: false, serveStatic });
  app.use('/assets', compressed(join(folder, 'assets'), { immutable: true, maxAge: '1y' }));
  const files = compressed(folder, {});
  // no file is looked for where the API answers
  app.use((request: Request, response: Response, next: NextFunction) =>
    OURS.test(request.path) ? next() : files(request, response, next),
  );
  const entry = (file: string) => (request: Request, response: Response, next: NextFunction) => {
    if (request.method !== 'GET' && request.method !== 'HEAD') return next();
    response.set('Cache-Control', 'no-cache').sendFile(join(folder, file));
  };
  app.use('/ask', embeddable(app), entry('ask.html'));
  app.use('/room', entry('room.html'));
  const agency = entry('index.html');
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (OURS.test(request.path) || /^\/assets(\/|$)/.test(request.path) || /\.\w+$/.test(request.path)) return next();
    return agency(request, response, next);
  });
}

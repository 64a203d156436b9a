import { randomUUID } from 'node:crypto';
import { HttpStatus, Module, type DynamicModule, type LoggerService } from '@nestjs/common';
import { APP_GUARD, NestFactory } from '@nestjs/core';
import { ExpressAdapter, type NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';
import { ThrottlerModule } from '@nestjs/throttler';
import compression from 'compression';
import express, { type Request, type Response } from 'express';
import helmet from 'helmet';
import { pino, type Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { MAX_FILE_BYTES, MAX_NESTING, depthOf } from '@quarry/core/document';
import { type Config } from './config.ts';
import { AccessGuard } from './http/access.ts';
import { ErrorFilter } from './http/errors.ts';
import { knownHost, sameOrigin } from './http/guard.ts';
import { throttlers } from './http/signInGuard.ts';
import { HealthController } from './http/health.controller.ts';
import { servePages } from './pages.ts';
import { MAX_PHOTO_BYTES } from './photos/photos.service.ts';
import { openStore, type Store } from './store/database.ts';
import { AccountsModule } from './accounts/accounts.module.ts';
import { CrewModule } from './crew/crew.module.ts';
import { DemoModule } from './demo/demo.module.ts';
import { DisplaysModule } from './displays/displays.module.ts';
import { HistoryModule } from './history/history.module.ts';
import { LettersModule } from './letters/letters.module.ts';
import { PhotosModule } from './photos/photos.module.ts';
import { ShareModule } from './share/share.module.ts';
import { SheetsModule } from './sheets/sheets.module.ts';
import { StoreModule } from './store/store.module.ts';

const BODY_LIMIT = 4_000_000;

@Module({})
class AppModule {
  static with(config: Config, store: Store): DynamicModule {
    return {
      module: AppModule,
      imports: [
        ThrottlerModule.forRoot(throttlers(config.signInLimit)),
        StoreModule.with(config, store),
        AccountsModule,
        CrewModule,
        DemoModule,
        DisplaysModule,
        HistoryModule,
        LettersModule,
        PhotosModule,
        SheetsModule,
        ShareModule,
      ],
      controllers: [HealthController],
      providers: [{ provide: APP_GUARD, useClass: AccessGuard }],
    };
  }
}

/** A running application and what stops it cleanly: streams end, waiting batches land, the database closes. */
export interface Running {
  app: NestExpressApplication;
  store: Store;
  close(): Promise<void>;
}

/** Opens the store and builds the application; the caller listens. @throws StoreError */
export async function createApp(config: Config): Promise<Running> {
  const store = openStore(config.database, config.migrations);
  const log = pino({ level: config.logLevel });
  const app = await NestFactory.create<NestExpressApplication>(
    AppModule.with(config, store),
    new ExpressAdapter(express()),
    { bodyParser: false, logger: nestLogger(log) },
  );
  app.disable('x-powered-by');
  // Behind a proxy its word about who asks and how is taken, of one hop only.
  if (config.behindProxy) app.set('trust proxy', 1);
  app.use(knownHost(config.hosts));
  app.use(
    pinoHttp({
      logger: log,
      genReqId: () => randomUUID(),
      autoLogging: log.isLevelEnabled('info') && {
        ignore: ({ url }) => !url?.startsWith('/api/') || url === '/api/health',
      },
      serializers: {
        req: ({ id, method, url }: { id: string; method: string; url: string }) => ({ id, method, url }),
        res: ({ statusCode }: { statusCode: number }) => ({ statusCode }),
      },
    }),
  );
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          // The solver is WebAssembly; nothing else is evaluated.
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: config.behindProxy,
    }),
  );
  const squeeze = compression({
    filter: (_request: Request, response: Response) =>
      !String(response.getHeader('content-type')).startsWith('text/event-stream'),
  });
  app.use((request: Request, response: Response, next: () => void) =>
    request.method === 'GET' ? squeeze(request, response, next) : next(),
  );
  app.use('/api', keepPrivate, sameOrigin);
  app.use('/api/displays/import', express.text({ type: () => true, limit: MAX_FILE_BYTES }));
  app.use('/api/displays/:id/photos', express.raw({ type: 'image/*', limit: MAX_PHOTO_BYTES }));
  app.use('/api', express.json({ limit: BODY_LIMIT }), refuseNested);
  app.useGlobalFilters(new ErrorFilter());
  const description = new DocumentBuilder()
    .setTitle('Open Quarry')
    .setDescription('Displays, their changes and their crew')
    .setVersion('1')
    .build();
  SwaggerModule.setup('api/docs', app, SwaggerModule.createDocument(app, description), {
    jsonDocumentUrl: 'api/docs.json',
    customSiteTitle: 'Open Quarry: the interface',
    // The page is ours: no other name at its top.
    customCss: '.topbar { display: none }',
  });
  if (config.web) servePages(app, config.web);
  await app.init();
  return {
    app,
    store,
    async close() {
      await app.close();
      store.close();
    },
  };
}

/** Private answers are not cached on the way; cacheable ones set their own header. */
function keepPrivate(_request: Request, response: Response, next: () => void): void {
  response.set('cache-control', 'no-store');
  next();
}

/** Refuses a body that is nested deeper than anything here is read: what comes after it need not fear its depth. */
function refuseNested(request: Request, response: Response, next: () => void): void {
  // What is large has taken its time already: others have a turn before it is read further.
  if (depthOf(request.body) <= MAX_NESTING) setImmediate(next);
  else
    response
      .status(HttpStatus.UNPROCESSABLE_ENTITY)
      .json({ code: 'invalid', message: `The request is nested more than ${MAX_NESTING} deep.` });
}

function nestLogger(log: Logger): LoggerService {
  return {
    log: (message: unknown, context?: unknown) => log.debug({ context }, String(message)),
    warn: (message: unknown, context?: unknown) => log.warn({ context }, String(message)),
    error: (message: unknown, context?: unknown) => log.error({ context }, String(message)),
  };
}

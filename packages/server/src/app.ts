import 'reflect-metadata';
import { readFileSync } from 'node:fs';
import type { Server } from 'node:http';
import { Module, type DynamicModule, type LoggerService } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import compression from 'compression';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { repairEntryFact, visitStepFact, type FactKind } from '@entretien/core/facts';
import { pino, type Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import { actorOfRequest } from './access/access.guard.js';
import { AccessModule } from './access/access.module.js';
import { requireRight } from './access/actor.js';
import { OwnModule } from './access/own.module.js';
import { Sessions } from './access/sessions.js';
import { buildId } from './common/build-id.js';
import { serveOpenApi } from './common/openapi.js';
import { ProblemFilter } from './common/problem.filter.js';
import {
  atMost,
  lookForDeepNesting,
  refuseDeepNesting,
  refuseInheritedNames,
  requestGuards,
} from './common/request-guards.js';
import { systemClock } from './common/system-clock.js';
import { BUILD, CLOCK, LOGGER, SETTINGS, type Clock } from './common/tokens.js';
import { formerNames } from './common/former-names.js';
import { contractPipe } from './common/validation.js';
import { serveWebPages } from './common/web-pages.js';
import { CompressorsModule } from './compressors/compressors.module.js';
import type { Settings } from './config.js';
import { CorrectionsModule } from './corrections/corrections.module.js';
import { FactsModule } from './facts/facts.module.js';
import { FillingModule } from './filling/filling.module.js';
import { FollowUpsModule } from './follow-ups/follow-ups.module.js';
import { ModelNotesModule } from './model-notes/model-notes.module.js';
import { GatewayModule } from './gateway/gateway.module.js';
import { HealthModule } from './health/health.module.js';
import { HoursModule } from './hours/hours.module.js';
import { IsolationModule } from './isolation/isolation.module.js';
import { ImportExportModule } from './import-export/import-export.module.js';
import { LogbookModule } from './logbook/logbook.module.js';
import { MeasurementsModule } from './measurements/measurements.module.js';
import { inTurn, onlyReading } from './common/in-turn.js';
import { formatsOfRequest } from './common/formats-of-request.js';
import { OpenWorkModule } from './open-work/open-work.module.js';
import { PapersModule } from './papers/papers.module.js';
import { PartsModule } from './parts/parts.module.js';
import { PeopleModule } from './people/people.js';
import { PersistenceModule } from './persistence/persistence.module.js';
import { RepairEntryEntity } from './persistence/entities/repair.entity.js';
import { VisitStepEntity } from './persistence/entities/visit.entity.js';
import { storedKinds, type StoredKind } from './persistence/stored-kinds.js';
import { PlansModule } from './plans/plans.module.js';
import { PointsModule } from './points/points.module.js';
import { ReachModule } from './reach/reach.module.js';
import { ReadingsModule } from './readings/readings.module.js';
import { EntryRegistry } from './repairs/entry-registry.js';
import { RecordsModule } from './records/records.module.js';
import { RepairsModule } from './repairs/repairs.module.js';
import { ServicesModule } from './services/services.module.js';
import { SitesModule } from './sites/sites.module.js';
import { StopsModule } from './stops/stops.module.js';
import { StandingsModule } from './standings/standings.module.js';
import { UpkeepModule } from './upkeep/upkeep.module.js';
import { VesselsModule } from './vessels/vessels.module.js';
import { StepRegistry } from './visits/step-registry.js';
import { VisitsModule } from './visits/visits.module.js';
import { WorkshopSettingsService } from './workshop/workshop-settings.js';
import { WorkshopModule } from './workshop/workshop.module.js';

const LARGEST_BODY = '2mb';
/** How long a connection is kept open for the next question. */
const KEPT_ALIVE_MS = 65_000;
const YEAR_S = 365 * 24 * 60 * 60;
/** Bodies that may be under way at once, and pictures among them. */
const [MOST_BODIES, MOST_PICTURES] = [64, 6];

export interface AppOptions {
  readonly settings: Settings;
  /** Default: this machine's clock. */
  readonly clock?: Clock;
  /** Default: silent. */
  readonly logger?: Logger;
  /** What tells this build from every other; default: as it was bundled. */
  readonly build?: string | null;
  /** Kinds of facts and steps; default: all of this release. */
  readonly kinds?: {
    readonly facts: readonly StoredKind[];
    readonly steps: StepRegistry;
    readonly entries: EntryRegistry;
  };
}

@Module({})
class AppModule {
  static with({ settings, clock, logger, kinds, build }: Required<AppOptions>): DynamicModule {
    return {
      module: AppModule,
      imports: [
        PersistenceModule.forFolder(settings.dataDir, kinds.facts),
        PeopleModule,
        AccessModule,
        SitesModule,
        CompressorsModule,
        ReadingsModule,
        HoursModule,
        CorrectionsModule,
        ImportExportModule,
        ServicesModule,
        MeasurementsModule,
        StandingsModule,
        PlansModule,
        VesselsModule,
        PointsModule,
        PapersModule,
        PartsModule,
        WorkshopModule,
        IsolationModule,
        StopsModule,
        FillingModule,
        FollowUpsModule,
        ModelNotesModule,
        RepairsModule,
        VisitsModule,
        OpenWorkModule,
        GatewayModule,
        OwnModule,
        LogbookModule,
        HealthModule,
        UpkeepModule,
        ReachModule,
        RecordsModule,
        // The last: what no other knows below a compressor may be a kind of fact.
        FactsModule,
      ],
      providers: [
        { provide: SETTINGS, useValue: settings },
        { provide: CLOCK, useValue: clock },
        { provide: LOGGER, useValue: logger },
        { provide: BUILD, useValue: build },
        { provide: StepRegistry, useValue: kinds.steps },
        { provide: EntryRegistry, useValue: kinds.entries },
      ],
      exports: [SETTINGS, CLOCK, LOGGER, BUILD, StepRegistry, EntryRegistry],
      global: true,
    };
  }
}

/** Builds the application, ready to listen. */
export async function createApp(options: AppOptions): Promise<NestExpressApplication> {
  const logger = options.logger ?? pino({ level: 'silent' });
  const clock = options.clock ?? systemClock;
  const { settings } = options;
  const build = options.build === undefined ? buildId() : options.build;
  const {
    steps = new StepRegistry(),
    entries = new EntryRegistry(),
    facts = storedKinds,
  } = options.kinds ?? {};
  // How steps and entries are worded follows from the kinds of them that there are.
  const wordings = new Map<unknown, FactKind>([
    [VisitStepEntity, visitStepFact(steps.kinds)],
    [RepairEntryEntity, repairEntryFact(entries.kinds)],
  ]);
  const worded = facts.map((one) => ({ ...one, kind: wordings.get(one.entity) ?? one.kind }));
  const kinds = { steps, entries, facts: worded };
  const app = await NestFactory.create<NestExpressApplication>(
    AppModule.with({ settings, clock, logger, kinds, build }),
    {
      logger: nestLogger(logger),
      bodyParser: false,
      abortOnError: false,
      ...(settings.tls ? { httpsOptions: filesOf(settings.tls) } : {}),
      // A server that is told to end does not wait for whoever is still sending.
      forceCloseConnections: true,
    },
  );
  app.disable('x-powered-by');
  // Nothing of ours is kept by who reads it: a hash over every answer would be asked for by nobody.
  app.disable('etag');
  // Whoever stands before it says who asked, and whether it was encrypted; nobody else is believed.
  if (settings.isBehindProxy) app.set('trust proxy', 1);
  // A line for each request only where somebody asked for them: it costs more than the request itself.
  if (logger.isLevelEnabled('info')) app.use(pinoHttp({ logger, quietReqLogger: true }));
  const protect = helmet({
    // Served without TLS it would only be passed over; whoever puts TLS before it says so there.
    strictTransportSecurity: settings.tls ? { maxAge: YEAR_S, includeSubDomains: false } : false,
    contentSecurityPolicy: {
      // MUI writes its styles into the page, and a photo is shown before it is sent; everything else comes from
      // our own files.
      directives: {
        'style-src': ["'self'", "'unsafe-inline'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'upgrade-insecure-requests': null,
      },
    },
  });
  const protectData = dataHeaders();
  // What a page may do is said with the page; data need no more than not to be taken for one, nor kept.
  app.use((request: Request, response: Response, next: NextFunction) =>
    isData(request.path) ? protectData(request, response, next) : protect(request, response, next),
  );
  const workshop = app.get(WorkshopSettingsService);
  // One after the other, as one: the framework looks at the path again before each that it is given.
  app.use(
    '/api',
    inTurn(
      ...limits(settings),
      formatsOfRequest(() => workshop.read().formats),
      // What a fact is answered with is short.
      onlyReading(compression({ level: 4 })),
      express.json({ limit: LARGEST_BODY, strict: false, verify: lookForDeepNesting }),
      refuseDeepNesting,
      refuseInheritedNames,
      formerNames,
      actorOfRequest(app.get(Sessions), clock, settings.requestsAMinute ?? Infinity),
    ),
  );
  app.use(DESCRIPTION, refuseStrangers);
  app.setGlobalPrefix('api');
  app.useGlobalPipes(contractPipe());
  app.useGlobalFilters(new ProblemFilter(logger));
  app.enableShutdownHooks();
  // Longer than whoever stands before it keeps a connection: one that is closed in the midst of a question looks lost.
  (app.getHttpServer() as Server).keepAliveTimeout = KEPT_ALIVE_MS;
  serveOpenApi(app);
  if (settings.webDir !== undefined) serveWebPages(app, settings.webDir);
  return app;
}

/** What is refused before anything is read: what comes from elsewhere, and too much at once. */
function limits({ publicUrl }: Settings) {
  return [
    requestGuards(publicUrl),
    atMost(MOST_BODIES, () => true),
    atMost(MOST_PICTURES, ({ path }) => /\/(photos|papers|logo)$/.test(path)),
  ];
}

function filesOf({ certificate, key }: NonNullable<Settings['tls']>) {
  return { cert: readFileSync(certificate), key: readFileSync(key) };
}

function dataHeaders() {
  return (_request: Request, response: Response, next: NextFunction) => {
    response.set({
      'X-Content-Type-Options': 'nosniff',
      'Cross-Origin-Resource-Policy': 'same-origin',
      'Cache-Control': 'no-store',
    });
    next();
  };
}

/** The description of the API, for whoever works here. */
const DESCRIPTION = ['/api/docs', '/api/openapi.json'];

function refuseStrangers(_request: Request, _response: Response, next: NextFunction): void {
  requireRight('see');
  next();
}

/** Everything under /api but the page that describes it. */
function isData(path: string): boolean {
  return path.startsWith('/api/') && !path.startsWith('/api/docs');
}

function nestLogger(logger: Logger): LoggerService {
  return {
    log: (message: unknown) => logger.debug(message),
    warn: (message: unknown) => logger.warn(message),
    error: (message: unknown, stack?: string) => logger.error({ stack }, String(message)),
  };
}

import type { INestApplication, Type } from '@nestjs/common';
import { ModulesContainer } from '@nestjs/core';
import { DocumentBuilder, SwaggerModule, type OpenAPIObject } from '@nestjs/swagger';
import { existsSync, readFileSync } from 'node:fs';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { StoredKinds } from '../persistence/stored-kinds.js';
import { EntryRegistry } from '../repairs/entry-registry.js';
import { StepRegistry } from '../visits/step-registry.js';

type Schemas = NonNullable<NonNullable<OpenAPIObject['components']>['schemas']>;
type Schema = Extract<Schemas[string], { type?: unknown }>;
type Operation = NonNullable<OpenAPIObject['paths'][string]['get']>;

const REF = '#/components/schemas/';

/** What a route takes as its query: the third kind of argument that the framework knows. */
const QUERY = '4';

/**
 * The OpenAPI document: paths from the controllers; bodies, query parameters and what each kind of step or fact
 * carries from the rules that the contracts bear for class-validator, so that the two can never disagree; answers
 * from the types that the controllers name.
 */
export function openApiDocument(app: INestApplication): OpenAPIObject {
  const config = new DocumentBuilder()
    .setTitle('Entretien')
    .setDescription('Run hours, due dates and services of compressors. Errors are RFC 9457 problem details.')
    .setVersion('1')
    .build();
  const document = SwaggerModule.createDocument(app, config, {
    operationIdFactory: (controller, method) => `${controller}.${method}`,
  });
  const contracts = validationMetadatasToSchemas({
    refPointerPrefix: REF,
    additionalConverters: {
      isInstant: { type: 'string', format: 'date-time', example: '2026-11-24T08:30:00Z' },
      isLocalDate: { type: 'string', format: 'date', example: '2026-11-24' },
      isTimeZone: { type: 'string', example: 'Europe/Zurich' },
      isUnitChoice: {
        type: 'object',
        additionalProperties: { type: 'string' },
        example: { pressure: 'psi' },
      },
      isFormats: { type: 'string', example: 'day-month.comma' },
      isCheckValues: { type: 'object', additionalProperties: { type: ['number', 'string'] } },
    },
  }) as Record<string, Schema>;
  const named = Object.keys(document.components?.schemas ?? {});
  const schemas: Schemas = Object.fromEntries(
    named.map((name) => [name, contracts[name] ?? { type: 'object' }]),
  );
  const use = (contract: Type) => {
    schemas[contract.name] = contracts[contract.name] ?? { type: 'object' };
    return { $ref: REF + contract.name };
  };
  describeQueries(app, document, contracts);
  schemas.RecordVisitStep = byKind(
    contracts.RecordVisitStep!,
    'details',
    Object.entries(app.get(StepRegistry).contracts).map(([kind, contract]) => [kind, use(contract)]),
  );
  const entry = document.paths['/api/repairs/{id}/entries']?.post;
  if (entry) {
    const bodies = Object.values(app.get(EntryRegistry).contracts).map((contract) => use(contract));
    const schema = { oneOf: [...new Map(bodies.map((body) => [body.$ref, body])).values()] };
    entry.requestBody = { required: true, content: { 'application/json': { schema } } };
  }
  for (const { kind, contract } of app.get(StoredKinds).all) {
    if (contract === undefined || kind.collection === undefined) continue;
    document.paths[`/api/compressors/{compressorId}/${kind.collection}`] = {
      post: {
        operationId: `facts.${kind.kind}`,
        tags: ['facts'],
        summary: `Record: ${kind.title ?? kind.kind}`,
        parameters: [{ name: 'compressorId', in: 'path', required: true, schema: { type: 'string' } }],
        requestBody: { required: true, content: { 'application/json': { schema: use(contract) } } },
        responses: { 201: { description: 'On record' } },
      },
    };
  }
  describeAnswers(document, schemas);
  // What the rules know of a field by its type alone.
  Object.assign(schemas, { Object: { type: 'object' }, Array: { type: 'array', items: {} } });
  document.components = { ...document.components, schemas };
  return document;
}

/** What the build has found that operations answer with: beside the built modules, wherever this one runs from. */
const ANSWERS = ['../answers.json', '../dist/answers.json', '../../dist/answers.json'].map(
  (path) => new URL(path, import.meta.url),
);

/** The answer of every operation that has one, by the type that its controller names. */
function describeAnswers(document: OpenAPIObject, schemas: Schemas): void {
  const file = ANSWERS.find((url) => existsSync(url));
  if (!file) return;
  const answers = JSON.parse(readFileSync(file, 'utf8')) as Schemas;
  for (const [name, schema] of Object.entries(answers)) schemas[name] ??= schema;
  for (const path of Object.values(document.paths)) {
    for (const operation of Object.values(path) as Operation[]) {
      const name = operation.operationId?.replace('.', '__') ?? '';
      if (!(name in answers)) continue;
      for (const [status, response] of Object.entries(operation.responses)) {
        if (!/^20[01]$/.test(status) || !response || '$ref' in response) continue;
        response.content = { 'application/json': { schema: { $ref: REF + name } } };
      }
    }
  }
}

/** A body whose one field is what its kind says: one of many, told apart by the kind. */
function byKind(
  whole: Schema,
  field: string,
  kinds: readonly (readonly [string, { $ref: string }])[],
): Schema {
  const { kind: _kind, [field]: _details, ...properties } = whole.properties ?? {};
  return {
    oneOf: kinds.map(([kind, details]) => ({
      ...whole,
      title: kind,
      properties: { ...properties, kind: { type: 'string', enum: [kind] }, [field]: details },
    })),
  };
}

/** The parameters of every query, by the class that it is checked against. */
function describeQueries(
  app: INestApplication,
  document: OpenAPIObject,
  contracts: Readonly<Record<string, Schema>>,
): void {
  const controllers = [...app.get(ModulesContainer).values()].flatMap(({ controllers: of }) => [
    ...of.values(),
  ]);
  const byName = new Map(controllers.map(({ metatype }) => [(metatype as Type).name, metatype as Type]));
  for (const path of Object.values(document.paths)) {
    for (const operation of Object.values(path) as Operation[]) {
      const [controller = '', method = ''] = operation.operationId?.split('.') ?? [];
      const query = queryOf(byName.get(controller), method);
      const { properties = {}, required = [] } = (query && contracts[query.name]) ?? {};
      const parameters = Object.entries(properties).map(([name, schema]) => ({
        name,
        in: 'query' as const,
        required: required.includes(name),
        schema,
      }));
      operation.parameters = [
        ...(operation.parameters ?? []).filter((one) => !('in' in one) || one.in !== 'query'),
        ...parameters,
      ];
    }
  }
}

function queryOf(controller: Type | undefined, method: string): Type | undefined {
  if (!controller) return undefined;
  const routed = (Reflect.getMetadata('__routeArguments__', controller, method) ?? {}) as Record<
    string,
    { index: number }
  >;
  const at = Object.entries(routed).find(([kind]) => kind.startsWith(`${QUERY}:`))?.[1].index;
  if (at === undefined) return undefined;
  const types = Reflect.getMetadata('design:paramtypes', controller.prototype as object, method) as Type[];
  return types[at];
}

/** Serves the document, and a page to read it on. */
export function serveOpenApi(app: INestApplication): void {
  SwaggerModule.setup('api/docs', app, () => openApiDocument(app), {
    jsonDocumentUrl: 'api/openapi.json',
    customSiteTitle: 'Entretien: the interface for programs',
    customfavIcon: '/mark.svg',
    customCss: '.swagger-ui .topbar { display: none }',
  });
}

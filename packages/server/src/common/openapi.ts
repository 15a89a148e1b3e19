import type { INestApplication } from '@nestjs/common';
import { DocumentBuilder, SwaggerModule, type OpenAPIObject } from '@nestjs/swagger';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';

type Schemas = NonNullable<NonNullable<OpenAPIObject['components']>['schemas']>;

/**
 * The OpenAPI document: paths from the controllers, schemas from the rules that the contracts carry for
 * class-validator, so that the two can never disagree.
 */
export function openApiDocument(app: INestApplication): OpenAPIObject {
  const config = new DocumentBuilder()
    .setTitle('Entretien')
    .setDescription('Run hours, due dates and services of compressors. Errors are RFC 9457 problem details.')
    .setVersion('1')
    .build();
  const document = SwaggerModule.createDocument(app, config);
  const fromContracts = validationMetadatasToSchemas({
    refPointerPrefix: '#/components/schemas/',
    additionalConverters: {
      isInstant: { type: 'string', format: 'date-time', example: '2026-11-24T08:30:00Z' },
      isLocalDate: { type: 'string', format: 'date', example: '2026-11-24' },
      isTimeZone: { type: 'string', example: 'Europe/Zurich' },
    },
  }) as Schemas;
  const named = Object.keys(document.components?.schemas ?? {});
  document.components = {
    ...document.components,
    schemas: Object.fromEntries(named.map((name) => [name, fromContracts[name] ?? { type: 'object' }])),
  };
  return document;
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

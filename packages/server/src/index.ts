export { createApp, type AppOptions } from './app.js';
export { settingsFrom, type Settings } from './config.js';
export { CompressorsService } from './compressors/compressors.service.js';
export { PeopleService } from './people/people.js';
export { Database } from './persistence/database.js';
export { ReadingsService } from './readings/readings.service.js';
export { ServicesService } from './services/services.service.js';
export { SitesService } from './sites/sites.service.js';
export { StandingsService } from './standings/standings.service.js';

import { Global, Module, type DynamicModule } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { dataSourceOptions } from './data-source.js';
import { Database } from './database.js';
import { FactPages } from './fact-pages.js';
import { FactStore } from './fact-store.js';
import { LogbookWriter } from './logbook-writer.js';

/** Opens the database of a data folder for the whole application. */
@Global()
@Module({})
export class PersistenceModule {
  static forFolder(dataDir: string): DynamicModule {
    return {
      module: PersistenceModule,
      imports: [TypeOrmModule.forRoot(dataSourceOptions(dataDir))],
      providers: [Database, FactPages, FactStore, LogbookWriter],
      exports: [Database, FactPages, FactStore, LogbookWriter],
    };
  }
}

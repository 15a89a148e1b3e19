import { Global, Module, type DynamicModule, type OnApplicationShutdown } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { dataSourceOptions } from './data-source.js';
import { Database } from './database.js';
import { FactPages } from './fact-pages.js';
import { FactStore } from './fact-store.js';
import { FolderLock } from './folder-lock.js';
import { LogbookWriter } from './logbook-writer.js';

/** Holds the folder for as long as the application lives: what it closes last. */
class HeldFolder implements OnApplicationShutdown {
  constructor(private readonly lock: FolderLock) {}

  onApplicationShutdown(): void {
    this.lock.release();
  }
}

/** Opens the database of a data folder for the whole application. */
@Global()
@Module({})
export class PersistenceModule {
  static forFolder(dataDir: string): DynamicModule {
    const options = dataSourceOptions(dataDir);
    const lock = FolderLock.take(dataDir);
    return {
      module: PersistenceModule,
      // A database that cannot be opened now cannot be opened in three seconds either: said at once.
      imports: [TypeOrmModule.forRoot({ ...options, retryAttempts: 0 })],
      providers: [
        { provide: HeldFolder, useValue: new HeldFolder(lock) },
        Database,
        FactPages,
        FactStore,
        LogbookWriter,
      ],
      exports: [Database, FactPages, FactStore, LogbookWriter],
    };
  }
}

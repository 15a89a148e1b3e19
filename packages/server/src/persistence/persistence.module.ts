import { Global, Module, type DynamicModule, type OnApplicationShutdown } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { dataSourceOptions } from './data-source.js';
import { Database } from './database.js';
import { FactPages } from './fact-pages.js';
import { FactStore } from './fact-store.js';
import { FolderLock } from './folder-lock.js';
import { Spine } from './spine.js';
import { StoredKinds, storedKinds } from './stored-kinds.js';

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
  static forFolder(dataDir: string, kinds = storedKinds): DynamicModule {
    const options = dataSourceOptions(dataDir, kinds);
    const lock = FolderLock.take(dataDir);
    return {
      module: PersistenceModule,
      // A database that cannot be opened now cannot be opened in three seconds either: said at once.
      imports: [TypeOrmModule.forRoot({ ...options, retryAttempts: 0 })],
      providers: [
        { provide: HeldFolder, useValue: new HeldFolder(lock) },
        { provide: StoredKinds, useValue: new StoredKinds(kinds) },
        Database,
        FactPages,
        FactStore,
        Spine,
      ],
      exports: [Database, FactPages, FactStore, Spine, StoredKinds],
    };
  }
}

import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import type { CustomerView } from '@entretien/contracts';
import { formatInstant, type Instant } from '@entretien/core/basics';
import { DataSource } from 'typeorm';
import { ZipFile } from 'yazl';
import { ALBUM } from '../common/file-album.js';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import { VERSION } from '../common/version.js';
import { CompressorRegister, type CompressorRecord } from '../compressors/compressor-register.js';
import type { Settings } from '../config.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { AccountEntity } from '../persistence/entities/access.entity.js';
import type { FactColumns } from '../persistence/entities/columns.js';
import { PaperEntity, paperFile } from '../persistence/entities/paper.entity.js';
import { PhotoEntity } from '../persistence/entities/visit.entity.js';
import { StoredKinds, type StoredKind } from '../persistence/stored-kinds.js';
import { SitesService } from '../sites/sites.service.js';

const READ_ME = `What one workshop has on record about one customer, written by Entretien ${VERSION}.

customer.json  who it is, their sites, who of them may sign in, and who recorded
sites/         what is on record of each site: itself, vessels, visits
units/         what is on record of each machine while it stood at those sites, kind by kind
photos/        the pictures of those visits and machines
papers/        manuals, labels and sounds of those machines

Moments are milliseconds since 1970-01-01 UTC. What was corrected or withdrawn is there as well as what replaced it.
`;

/** Everything that is on record about one customer, as files in an archive. */
@Injectable()
export class CustomerExport {
  constructor(
    private readonly database: Database,
    private readonly dataSource: DataSource,
    private readonly kinds: StoredKinds,
    private readonly sites: SitesService,
    private readonly register: CompressorRegister,
    private readonly people: PeopleService,
    @Inject(SETTINGS) private readonly settings: Settings,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  /** The archive, as it is read; and what it could be called. */
  write(customerId: string): { readonly archive: NodeJS.ReadableStream; readonly name: string } {
    const id = this.sites.requireCustomer(customerId);
    const customer = this.sites.customers().find((one) => one.id === id)!;
    const archive = new ZipFile();
    const add = (path: string, content: unknown) =>
      archive.addBuffer(
        Buffer.from(typeof content === 'string' ? content : JSON.stringify(content, null, 1)),
        path,
      );
    const units = [...this.register.all()].filter((unit) => this.everStoodAt(unit, customer));
    add('READ-ME.txt', READ_ME);
    add('customer.json', this.about(customer));
    for (const siteId of customer.siteIds)
      add(`sites/${fileName(this.sites.require(siteId).name, siteId)}.json`, this.ofSite(siteId));
    for (const unit of units) {
      const { tag } = this.register.plateOf(unit, this.clock());
      add(`units/${fileName(tag, unit.id)}.json`, this.ofUnit(unit, customer));
    }
    const photos = this.photosOf(customer, units).map((name) => ['photos', name] as const);
    const papers = this.papersOf(units).map((name) => ['papers', name] as const);
    for (const [folder, name] of [...photos, ...papers]) {
      const file = join(this.settings.dataDir, ALBUM, name);
      if (existsSync(file)) archive.addFile(file, `${folder}/${name}`, { compress: false });
    }
    archive.end();
    return { archive: archive.outputStream, name: `${fileName(customer.name, '')}.zip` };
  }

  private about(customer: CustomerView): object {
    const accounts = this.database.findAll(
      AccountEntity,
      'WHERE "customer_id" = ? ORDER BY "name"',
      customer.id,
    );
    return {
      writtenAt: formatInstant(this.clock()),
      ...customer,
      sites: customer.siteIds.map((siteId) => this.sites.require(siteId)),
      accounts: accounts.map(({ name, login, createdAt, closedAt, seesPrices }) => ({
        name,
        login,
        createdAt,
        closedAt,
        seesPrices: seesPrices === 1,
      })),
      people: Object.fromEntries(this.people.list().map(({ id, name }) => [id, name])),
    };
  }

  /** Facts of a site itself: those that name it and no machine. */
  private ofSite(siteId: string): object {
    return this.byKind(
      'site_id',
      siteId,
      (entity) => !this.has(entity, 'compressor_id'),
      () => true,
    );
  }

  /** Facts of a machine, from when it stood with them; what it did elsewhere is none of theirs. */
  private ofUnit(unit: CompressorRecord, customer: CustomerView): object {
    return {
      plate: this.register.plateOf(unit, this.clock()),
      facts: this.byKind(
        'compressor_id',
        unit.id,
        () => true,
        (at) => this.stoodWith(unit, customer, at),
      ),
    };
  }

  private byKind(
    column: string,
    id: string,
    isMeant: (entity: StoredKind['entity']) => boolean,
    isThen: (at: Instant) => boolean,
  ): object {
    const kinds = this.kinds.all.filter(({ entity }) => this.has(entity, column) && isMeant(entity));
    const rows = kinds.map(({ kind, entity }) => {
      const facts = this.database.findAll<FactColumns>(entity, `WHERE "${column}" = ? ORDER BY "seq"`, id);
      return [kind.kind, facts.filter((fact) => isThen(kind.at(fact)))] as const;
    });
    return Object.fromEntries(rows.filter(([, facts]) => facts.length > 0));
  }

  private has(entity: StoredKind['entity'], column: string): boolean {
    return this.dataSource.getMetadata(entity).columns.some(({ databaseName }) => databaseName === column);
  }

  private stoodWith(unit: CompressorRecord, { siteIds }: CustomerView, at: Instant): boolean {
    return siteIds.includes(this.register.plateOf(unit, at).siteId);
  }

  private everStoodAt(unit: CompressorRecord, customer: CustomerView): boolean {
    const moments = [0, this.clock(), ...unit.plateChanges.map(({ changedAt }) => changedAt)];
    return moments.some((at) => this.stoodWith(unit, customer, at));
  }

  private papersOf(units: readonly CompressorRecord[]): string[] {
    const rows = this.database.findAll(
      PaperEntity,
      'WHERE "compressor_id" IN (SELECT "value" FROM json_each(?)) ORDER BY "recorded_at"',
      JSON.stringify(units.map(({ id }) => id)),
    );
    return rows.map(paperFile);
  }

  private photosOf({ siteIds }: CustomerView, units: readonly CompressorRecord[]): string[] {
    const rows = this.database.findAll(
      PhotoEntity,
      `WHERE "compressor_id" IN (SELECT "value" FROM json_each(?)) OR "visit_id" IN (SELECT "id" FROM "visit" WHERE "site_id" IN (SELECT "value" FROM json_each(?))) ORDER BY "recorded_at"`,
      JSON.stringify(units.map(({ id }) => id)),
      JSON.stringify(siteIds),
    );
    return rows.map(({ id }) => `${id}.jpg`);
  }
}

/** A name as a file can bear it, told apart by a part of its id. */
function fileName(name: string, id: string): string {
  const plain = name
    .normalize('NFKD')
    .replace(/[^\w-]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60);
  return [plain || 'unnamed', id.slice(0, 8)].filter((part) => part !== '').join('-');
}

import { Inject, Injectable } from '@nestjs/common';
import type {
  AddCustomer,
  AddSite,
  AssignSite,
  ChangeSite,
  CustomerView,
  SiteView,
} from '@entretien/contracts';
import { isTimeZone } from '@entretien/core/basics';
import { groupBy } from '../common/group-by.js';
import { impossible, notFound } from '../common/problem.js';
import { SETTINGS } from '../common/tokens.js';
import type { Settings } from '../config.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import {
  CustomerEntity,
  SiteChangeEntity,
  SiteEntity,
  type SiteDetails,
} from '../persistence/entities/site.entity.js';
import { FactStore } from '../persistence/fact-store.js';

/** The sites with everything learnt of them so far. Few enough to be kept in memory. */
@Injectable()
export class SitesService {
  private sites: Map<string, SiteView> | null = null;

  constructor(
    private readonly database: Database,
    private readonly facts: FactStore,
    private readonly people: PeopleService,
    @Inject(SETTINGS) private readonly settings: Settings,
  ) {}

  add(site: AddSite, by: string): SiteView {
    const content = {
      id: site.id.toLowerCase(),
      by: this.people.require(by),
      name: site.name.trim(),
      timeZone: site.timeZone ?? this.settings.timeZone,
      altitudeM: site.altitudeM ?? null,
      address: site.address ?? null,
      contact: site.contact ?? null,
      note: site.note ?? null,
    };
    const { row } = this.facts.record(SiteEntity, content, () => ({ marks: [] }));
    this.sites = null;
    return toView(row, []);
  }

  change(siteId: string, { id, by: _by, ...details }: ChangeSite, by: string): SiteView {
    return this.learn(siteId, id, details, by);
  }

  addCustomer({ id, name }: AddCustomer, by: string): CustomerView {
    const content = { id: id.toLowerCase(), name: name.trim(), note: null, by: this.people.require(by) };
    this.facts.record(CustomerEntity, content, () => ({ marks: [] }));
    return this.customers().find((customer) => customer.id === content.id)!;
  }

  /** Everybody whose machines are looked after, by name. */
  customers(): CustomerView[] {
    const sites = this.list();
    return this.database.findAll(CustomerEntity, 'ORDER BY "name", "id"').map(({ id, name }) => ({
      id,
      name,
      siteIds: sites.filter(({ customerId }) => customerId === id).map((site) => site.id),
    }));
  }

  requireCustomer(id: string): string {
    const customer = this.facts.find(CustomerEntity, id.toLowerCase());
    if (!customer) throw notFound('no-such-customer', 'There is no such customer.');
    return customer.id;
  }

  /** Whose site it is, from now on. */
  assign(siteId: string, { id, customerId }: AssignSite, by: string): SiteView {
    const owner = customerId === null || customerId === undefined ? null : this.requireCustomer(customerId);
    return this.learn(siteId, id, { customerId: owner }, by);
  }

  private learn(siteId: string, id: string, details: SiteDetails, by: string): SiteView {
    this.require(siteId);
    const content = {
      id: id.toLowerCase(),
      by: this.people.require(by),
      siteId: siteId.toLowerCase(),
      note: null,
      changes: given(details),
    };
    this.facts.record(SiteChangeEntity, content, () => {
      if (Object.keys(content.changes).length === 0) {
        throw impossible({ code: 'nothing-changed', sentence: 'Say what has changed of the site.' });
      }
      return { marks: [] };
    });
    this.sites = null;
    return this.require(siteId);
  }

  /** Something of sites was changed past this service. */
  forget(): void {
    this.sites = null;
  }

  list(): SiteView[] {
    return [...this.all().values()].sort((a, b) => a.name.localeCompare(b.name) || (a.id < b.id ? -1 : 1));
  }

  find(siteId: string): SiteView | undefined {
    return this.all().get(siteId.toLowerCase());
  }

  require(siteId: string): SiteView {
    const site = this.find(siteId);
    if (!site) throw notFound('no-such-site', 'This site is not in the register.');
    return site;
  }

  private all(): Map<string, SiteView> {
    if (this.sites) return this.sites;
    const changes = groupBy(this.readChanges(), (change) => change.siteId);
    const rows = this.database.all<RawSite>('SELECT * FROM "site"');
    this.sites = new Map(
      rows.map((row) => [
        row.id,
        toView({ ...row, timeZone: row.time_zone, altitudeM: row.altitude_m }, changes.get(row.id) ?? []),
      ]),
    );
    return this.sites;
  }

  private readChanges(): { siteId: string; changes: SiteDetails }[] {
    return this.database
      .all<{ site_id: string; changes: string }>(
        'SELECT "site_id", "changes" FROM "site_change" ORDER BY "recorded_at", "id"',
      )
      .map((row) => ({ siteId: row.site_id, changes: JSON.parse(row.changes) as SiteDetails }));
  }
}

interface RawSite {
  id: string;
  name: string;
  time_zone: string;
  altitude_m: number | null;
  address: string | null;
  contact: string | null;
  note: string | null;
}

function toView(
  site: Pick<SiteEntity, 'id' | 'name' | 'timeZone' | 'altitudeM' | 'address' | 'contact' | 'note'>,
  changes: readonly { changes: SiteDetails }[],
): SiteView {
  const { id, name, timeZone, altitudeM, address, contact, note } = site;
  const details = Object.assign(
    { name, timeZone, altitudeM, address, contact, note },
    ...changes.map((one) => one.changes),
  ) as object;
  const view = {
    id,
    ...Object.fromEntries(Object.entries(details).filter(([, value]) => value !== null)),
  } as SiteView;
  // Earlier releases took names that are none: nothing of such a site could be judged.
  return isTimeZone(view.timeZone) ? view : { ...view, timeZone: 'UTC' };
}

/** Only what was sent: a field left out stays as it is. */
function given(details: SiteDetails): SiteDetails {
  return Object.fromEntries(Object.entries(details).filter(([, value]) => value !== undefined));
}

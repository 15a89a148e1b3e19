import { Inject, Injectable } from '@nestjs/common';
import { MOST_DEVICES_OF_UNIT, type DeviceRefusalView, type SaveDevice } from '@entretien/contracts';
import { DAY_MS, formatInstant, type Instant } from '@entretien/core/basics';
import { isAllowed, readRegisterMap, type AllowedAddress, type RegisterMap } from '@entretien/core/gateway';
import papaparse from 'papaparse';
import { v7 as newId } from 'uuid';
import { conflict, impossible, notFound } from '../common/problem.js';
import { CLOCK, SETTINGS, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import type { Settings } from '../config.js';
import { PeopleService } from '../people/people.js';
import { Database } from '../persistence/database.js';
import { DeviceEntity, DeviceRefusalEntity } from '../persistence/entities/device.entity.js';

/** What was seen to is not shown again for so long; what was seen to so long ago is forgotten. */
const [SEEN_MS, FORGOTTEN_MS] = [DAY_MS, 90 * DAY_MS];
/** Most refusals of one device that are shown. */
const MOST_SHOWN = 20;

/** Which devices there are, and what of theirs was refused. */
@Injectable()
export class DevicesService {
  readonly allowed: readonly AllowedAddress[] | null;

  constructor(
    private readonly database: Database,
    private readonly register: CompressorRegister,
    private readonly people: PeopleService,
    @Inject(CLOCK) private readonly clock: Clock,
    @Inject(SETTINGS) { devicesAt }: Settings,
  ) {
    this.allowed = devicesAt ?? null;
  }

  mayAsk({ host, port }: Pick<DeviceEntity, 'host' | 'port'>): boolean {
    return this.allowed !== null && isAllowed(this.allowed, host, port);
  }

  all(): readonly DeviceEntity[] {
    return this.database.findAll(DeviceEntity, 'ORDER BY "name", "id"');
  }

  of(compressorId: string): readonly DeviceEntity[] {
    const { id } = this.register.require(compressorId);
    return this.database.findAll(DeviceEntity, 'WHERE "compressor_id" = ? ORDER BY "name", "id"', id);
  }

  find(id: string): DeviceEntity | undefined {
    return this.database.find(DeviceEntity, id.toLowerCase());
  }

  require(id: string): DeviceEntity {
    const device = this.find(id);
    if (!device) throw notFound('no-such-device', 'No device is known by that id.');
    return device;
  }

  /** Where the figures of a device stand; what is wrong with the table is said. */
  mapOf(registers: string): RegisterMap {
    const { data } = papaparse.parse<Record<string, unknown>>(registers.replace(/^\uFEFF/, ''), {
      header: true,
      skipEmptyLines: 'greedy',
      transformHeader: (text) => text.trim(),
    });
    const read = readRegisterMap(data);
    if (!read.ok) throw impossible(read.problem);
    return read.value;
  }

  save(compressorId: string, sent: SaveDevice, by: string): DeviceEntity {
    const unit = this.register.require(compressorId);
    this.mapOf(sent.registers);
    if (this.allowed !== null && !this.mayAsk(sent))
      throw impossible({
        code: 'not-allowed',
        field: 'host',
        sentence: `${sent.host}:${sent.port} is not among the addresses that this installation may ask (ENTRETIEN_DEVICES).`,
      });
    const row: DeviceEntity = {
      id: sent.id.toLowerCase(),
      compressorId: unit.id,
      name: sent.name.trim(),
      host: sent.host,
      port: sent.port,
      unitNumber: sent.unitNumber,
      everySeconds: sent.everySeconds,
      registers: sent.registers,
      isOn: sent.isOn ? 1 : 0,
      changedAt: this.clock(),
      by: this.people.require(by),
      answeredAt: null,
    };
    this.database.transact(() => {
      const known = this.database.find(DeviceEntity, row.id);
      if (known && known.compressorId !== unit.id)
        throw conflict('id-already-used', 'This id already belongs to a device of another unit.', known.name);
      if (!known && this.of(unit.id).length >= MOST_DEVICES_OF_UNIT)
        throw impossible({
          code: 'too-many-devices',
          field: 'name',
          sentence: `No more than ${MOST_DEVICES_OF_UNIT} devices of one unit are asked.`,
        });
      if (!known) return this.database.insert(DeviceEntity, row);
      this.database.run(
        'UPDATE "device" SET "name" = ?, "host" = ?, "port" = ?, "unit_number" = ?, "every_seconds" = ?, "registers" = ?, "is_on" = ?, "changed_at" = ?, "by" = ? WHERE "id" = ?',
        row.name,
        row.host,
        row.port,
        row.unitNumber,
        row.everySeconds,
        row.registers,
        row.isOn,
        row.changedAt,
        row.by,
        row.id,
      );
      return undefined;
    });
    return this.require(row.id);
  }

  remove(id: string): DeviceEntity {
    const device = this.require(id);
    this.database.transact(() => {
      this.database.run('DELETE FROM "device_refusal" WHERE "device_id" = ?', device.id);
      this.database.run('DELETE FROM "device" WHERE "id" = ?', device.id);
    });
    return device;
  }

  answered(id: string, at: Instant): void {
    this.database.transact(() =>
      this.database.run('UPDATE "device" SET "answered_at" = ? WHERE "id" = ?', at, id),
    );
  }

  /** Keeps what was refused: the same once, with how often. */
  refuse(
    deviceId: string,
    { what, code, sentence }: { readonly what: string; readonly code: string; readonly sentence: string },
  ): void {
    const now = this.clock();
    this.database.transact(() => {
      const [known] = this.database.findAll(
        DeviceRefusalEntity,
        'WHERE "device_id" = ? AND "what" = ? AND "code" = ? ORDER BY "last_at" DESC LIMIT 1',
        deviceId,
        what,
        code,
      );
      if (known && (known.seenAt === null || now - known.seenAt < SEEN_MS)) {
        this.database.run(
          'UPDATE "device_refusal" SET "last_at" = ?, "times" = "times" + 1, "sentence" = ? WHERE "id" = ?',
          now,
          sentence,
          known.id,
        );
        return;
      }
      this.database.run(
        'DELETE FROM "device_refusal" WHERE "device_id" = ? AND "seen_at" < ?',
        deviceId,
        now - FORGOTTEN_MS,
      );
      this.database.insert(DeviceRefusalEntity, {
        id: newId(),
        deviceId,
        what,
        code,
        sentence,
        firstAt: now,
        lastAt: now,
        times: 1,
        seenAt: null,
      });
    });
  }

  /** Somebody has seen it and does what is to be done. */
  seen(id: string): DeviceEntity {
    const refusal = this.database.find(DeviceRefusalEntity, id.toLowerCase());
    if (!refusal) throw notFound('no-such-refusal', 'Nothing that was refused is known by that id.');
    this.database.transact(() =>
      this.database.run(
        'UPDATE "device_refusal" SET "seen_at" = ? WHERE "id" = ? AND "seen_at" IS NULL',
        this.clock(),
        refusal.id,
      ),
    );
    return this.require(refusal.deviceId);
  }

  refusedOf(deviceId: string): readonly DeviceRefusalView[] {
    return this.database
      .findAll(
        DeviceRefusalEntity,
        `WHERE "device_id" = ? AND "seen_at" IS NULL ORDER BY "last_at" DESC LIMIT ${MOST_SHOWN}`,
        deviceId,
      )
      .map(({ id, what, sentence, firstAt, lastAt, times }) => ({
        id,
        what,
        sentence,
        firstAt: formatInstant(firstAt),
        lastAt: formatInstant(lastAt),
        times,
      }));
  }
}

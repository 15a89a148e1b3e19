import { Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** A controller or meter that is asked for what it shows. It is set, and not a fact: it may change and go. */
@Entity('device')
@Index('device_by_unit', ['compressorId'])
export class DeviceEntity {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ name: 'compressor_id', type: 'text' }) compressorId: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) host: string;
  @Column({ type: 'integer' }) port: number;
  @Column({ name: 'unit_number', type: 'integer' }) unitNumber: number;
  @Column({ name: 'every_seconds', type: 'integer' }) everySeconds: number;
  /** As it was written. */
  @Column({ type: 'text' }) registers: string;
  @Column({ name: 'is_on', type: 'integer' }) isOn: number;
  @Column({ name: 'changed_at', type: 'integer' }) changedAt: number;
  @Column({ type: 'text' }) by: string;
  @Column({ name: 'answered_at', type: 'integer', nullable: true }) answeredAt: number | null;
}

/** Something that a device told and that did not become a fact, however often it told it. */
@Entity('device_refusal')
@Index('device_refusal_by_device', ['deviceId'])
export class DeviceRefusalEntity {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ name: 'device_id', type: 'text' }) deviceId: string;
  @Column({ type: 'text' }) what: string;
  @Column({ type: 'text' }) code: string;
  @Column({ type: 'text' }) sentence: string;
  @Column({ name: 'first_at', type: 'integer' }) firstAt: number;
  @Column({ name: 'last_at', type: 'integer' }) lastAt: number;
  @Column({ type: 'integer' }) times: number;
  @Column({ name: 'seen_at', type: 'integer', nullable: true }) seenAt: number | null;
}

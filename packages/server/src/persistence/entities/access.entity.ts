import type { Role } from '@entretien/core/access';
import { Column, Entity, Index, PrimaryColumn } from 'typeorm';

/** Who may sign in. A person of the register, or somebody of a customer. */
@Entity('account')
export class AccountEntity {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ type: 'text' }) login: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) role: Role;
  @Column({ name: 'person_id', type: 'text', nullable: true }) personId: string | null;
  @Column({ name: 'customer_id', type: 'text', nullable: true }) customerId: string | null;
  @Column({ name: 'sees_prices', type: 'integer' }) seesPrices: number;
  /** As Argon2id wrote it, with its salt and its costs. */
  @Column({ name: 'password_hash', type: 'text' }) passwordHash: string;
  @Column({ name: 'created_at', type: 'integer' }) createdAt: number;
  @Column({ name: 'closed_at', type: 'integer', nullable: true }) closedAt: number | null;
}

/** A browser that is signed in. Its token itself is nowhere: whoever reads the file cannot sign in by it. */
@Entity('session')
@Index('session_by_account', ['accountId'])
export class SessionEntity {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ name: 'token_hash', type: 'text' }) tokenHash: string;
  @Column({ name: 'account_id', type: 'text' }) accountId: string;
  @Column({ name: 'started_at', type: 'integer' }) startedAt: number;
  @Column({ name: 'seen_at', type: 'integer' }) seenAt: number;
  @Column({ type: 'text' }) device: string;
}

/** An account that waits for whoever was invited. */
@Entity('invitation')
export class InvitationEntity {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ name: 'code_hash', type: 'text' }) codeHash: string;
  @Column({ type: 'text' }) name: string;
  @Column({ type: 'text' }) role: Role;
  @Column({ name: 'person_id', type: 'text', nullable: true }) personId: string | null;
  @Column({ name: 'customer_id', type: 'text', nullable: true }) customerId: string | null;
  @Column({ name: 'sees_prices', type: 'integer' }) seesPrices: number;
  @Column({ name: 'created_at', type: 'integer' }) createdAt: number;
  @Column({ name: 'expires_at', type: 'integer' }) expiresAt: number;
  /** When it was taken, or withdrawn. */
  @Column({ name: 'ended_at', type: 'integer', nullable: true }) endedAt: number | null;
}

/** What an authenticator proves itself by. */
@Entity('passkey')
@Index('passkey_by_account', ['accountId'])
export class PasskeyEntity {
  @PrimaryColumn({ type: 'text' }) id: string;
  @Column({ name: 'account_id', type: 'text' }) accountId: string;
  /** Base64url. */
  @Column({ name: 'public_key', type: 'text' }) publicKey: string;
  @Column({ type: 'integer' }) counter: number;
  @Column({ type: 'simple-json' }) transports: string[];
  @Column({ type: 'text' }) name: string;
  @Column({ name: 'added_at', type: 'integer' }) addedAt: number;
}

/** What of weight was done, by whom; the table itself refuses to be changed. */
@Entity('audit')
export class AuditEntity {
  @PrimaryColumn({ type: 'integer' }) seq: number;
  @Column({ type: 'integer' }) at: number;
  @Column({ name: 'account_id', type: 'text', nullable: true }) accountId: string | null;
  @Column({ name: 'by_name', type: 'text' }) byName: string;
  @Column({ type: 'text' }) what: string;
  @Column({ type: 'text' }) about: string;
}

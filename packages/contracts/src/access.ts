import { roles, type Right, type Role } from '@entretien/core/access';
import { IsBoolean, IsIn, IsObject, Matches } from 'class-validator';
import type { UnitChoice } from './settings.js';
import { all, IsId, IsText, Omittable, Optional, textLimits } from './rules.js';

/** Longest name to sign in with, and longest text that is taken for a password or a code. */
export const accessLimits = { login: 60, secret: 400 } as const;

function IsLogin(): PropertyDecorator {
  return all(
    IsText('The name to sign in with', accessLimits.login),
    Matches(/^\s*[^\s@]+(?:@[^\s@]+)?\s*$/u, {
      message: 'The name to sign in with is one word, or an e-mail address.',
    }),
  );
}

function IsSecret(what: string): PropertyDecorator {
  return IsText(what, accessLimits.secret);
}

/** Who signs in with what. */
export class SignIn {
  @IsLogin() login: string;
  @IsSecret('The password') password: string;
}

/** The first account, which turns rights on; by the address that was printed when the server started. */
export class FirstLead extends SignIn {
  @IsSecret('The code') code: string;
  @IsText('The name', textLimits.name) name: string;
  /** Who is on record already, and is this person. */
  @Optional() @IsId() personId?: string;
}

/** What was one invited to? */
export class LookAtInvitation {
  @IsSecret('The code') code: string;
}

/** Whoever was invited chooses a name and a password. */
export class AcceptInvitation extends SignIn {
  @IsSecret('The code') code: string;
}

/** An account for somebody: for a person on record, or for somebody new. */
export class Invite {
  @IsId() id: string;
  @IsIn(roles, { message: `The role is one of ${roles.join(', ')}.` }) role: Role;
  @IsText('The name', textLimits.name) name: string;
  /** Who is on record already; what they recorded stays theirs. */
  @Optional() @IsId() personId?: string;
  /** Whose sites a customer sees. */
  @Optional() @IsId() customerId?: string;
  /** Whether a customer sees what work and parts cost. */
  @Optional() @IsBoolean({ message: 'Prices are shown or not.' }) seesPrices?: boolean;
}

/** What is different of an account from now on. */
export class ChangeAccount {
  @Omittable() @IsIn(roles, { message: `The role is one of ${roles.join(', ')}.` }) role?: Role;
  @Omittable() @IsId() customerId?: string;
  @Omittable() @IsBoolean({ message: 'Prices are shown or not.' }) seesPrices?: boolean;
}

/** Another password for oneself. */
export class ChangePassword {
  @IsSecret('The password so far') before: string;
  @IsSecret('The new password') password: string;
}

/** Somebody whose machines are looked after. */
export class AddCustomer {
  @IsId() id: string;
  @IsText('The name', textLimits.name) name: string;
  @Optional() @IsId() by?: string;
}

/** Whose site it is; null: nobody’s. */
export class AssignSite {
  @IsId() id: string;
  @Optional() @IsId() customerId: string | null;
  @Optional() @IsId() by?: string;
}

/** What an authenticator answered, as the browser hands it on. */
export class PasskeyAnswer {
  @IsObject({ message: 'The answer of the authenticator is missing.' }) response: object;
  /** What the passkey is called by its owner. */
  @Optional() @IsText('The name', textLimits.short) name?: string;
}

/** Who is signed in, and what that allows. */
export interface MeView {
  /** Off: there are no accounts, and everybody at this machine may do everything. */
  readonly access: 'off' | 'on';
  readonly account: AccountView | null;
  readonly rights: readonly Right[];
  /** Whether passkeys can be used at this address. */
  readonly passkeys: boolean;
  /** What is read and written in here where a device has not chosen otherwise. */
  readonly workshop: { readonly units: UnitChoice; readonly formats: string };
}

export interface AccountView {
  readonly id: string;
  readonly role: Role;
  readonly name: string;
  readonly login: string;
  readonly personId: string | null;
  readonly customerId: string | null;
  readonly seesPrices: boolean;
  readonly createdAt: string;
  readonly closedAt: string | null;
}

export interface InvitationView {
  readonly id: string;
  readonly role: Role;
  readonly name: string;
  readonly expiresAt: string;
  readonly customerId: string | null;
  readonly personId: string | null;
}

/** An invitation with what leads in: told once, to whoever invites. */
export interface NewInvitationView extends InvitationView {
  readonly code: string;
}

export interface SessionView {
  readonly id: string;
  readonly accountId: string;
  readonly startedAt: string;
  readonly seenAt: string;
  /** What the browser calls itself. */
  readonly device: string;
  readonly isThis: boolean;
}

export interface PasskeyView {
  readonly id: string;
  readonly name: string;
  readonly addedAt: string;
}

export interface CustomerView {
  readonly id: string;
  readonly name: string;
  readonly siteIds: readonly string[];
}

/** Something of weight that was done, by whom. */
export interface AuditEntryView {
  readonly seq: number;
  readonly at: string;
  readonly byName: string;
  readonly what: string;
  readonly about: string;
}

/** What a customer sees of their own. */
export interface OwnSiteView {
  readonly id: string;
  readonly name: string;
  readonly units: readonly OwnUnitView[];
  readonly visits: readonly OwnPaperView[];
  readonly repairs: readonly OwnPaperView[];
}

export interface OwnUnitView {
  readonly id: string;
  readonly tag: string;
  readonly description: string;
  /** Why it must not be used; empty where nothing stands against it. */
  readonly stops: readonly string[];
  readonly next: readonly { readonly name: string; readonly due: string; readonly isLate: boolean }[];
}

export interface OwnPaperView {
  readonly id: string;
  readonly day: string;
  readonly text: string;
}

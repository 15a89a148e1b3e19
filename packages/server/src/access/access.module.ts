import {
  Body,
  Controller,
  Delete,
  Get,
  Global,
  HttpCode,
  Module,
  Param,
  Post,
  Query,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import { APP_GUARD } from '@nestjs/core';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import {
  AcceptInvitation,
  ChangeAccount,
  ChangePassword,
  FirstLead,
  Invite,
  LookAtInvitation,
  PageQuery,
  PasskeyAnswer,
  SignIn,
  type AccountView,
  type AuditEntryView,
  type InvitationView,
  type MeView,
  type NewInvitationView,
  type Page,
  type PasskeyView,
  type SessionView,
} from '@entretien/contracts';
import { hasRight, rights } from '@entretien/core/access';
import { DAY_MS } from '@entretien/core/basics';
import type { Request, Response } from 'express';
import { notFound } from '../common/problem.js';
import { pageSize, readCursor, toPage } from '../common/page.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { PeopleModule } from '../people/people.js';
import type { AccountEntity } from '../persistence/entities/access.entity.js';
import { SitesModule } from '../sites/sites.module.js';
import { WorkshopModule } from '../workshop/workshop.module.js';
import { WorkshopSettingsService } from '../workshop/workshop-settings.js';
import { AccessGuard, SESSION_COOKIE } from './access.guard.js';
import { Accounts, toAccount } from './accounts.js';
import { actorNow, requireRight, standingNow } from './actor.js';
import { Audit } from './audit.js';
import { May } from './may.js';
import { Noted } from './noted-as.js';
import { Passkeys } from './passkeys.js';
import { Sessions } from './sessions.js';
import { Tries, TriesGuard } from './tries.js';

const COOKIE_MS = 180 * DAY_MS;

/** Coming in and going out. */
@ApiTags('signing in')
@Controller()
export class SignInController {
  constructor(
    private readonly accounts: Accounts,
    private readonly sessions: Sessions,
    private readonly passkeys: Passkeys,
    private readonly audit: Audit,
    private readonly tries: Tries,
    private readonly settings: WorkshopSettingsService,
  ) {}

  @Get('me')
  @May('open')
  @ApiOperation({ summary: 'Who is signed in, and what they may; whether there are accounts at all' })
  me(@Req() request: Request): MeView {
    const standing = standingNow();
    const actor = actorNow();
    const role = actor?.role ?? null;
    const { units, formats } = this.settings.read();
    return {
      access: standing.access,
      account: actor ? toAccount(this.accounts.require(actor.accountId)) : null,
      rights: rights.filter((right) => standing.access === 'off' || hasRight(role, right)),
      passkeys: this.passkeys.placeOf(request) !== null,
      workshop: { units, formats },
    };
  }

  @Post('sign-in')
  @May('open')
  @UseGuards(TriesGuard)
  @ApiOperation({ summary: 'Sign in with a name and a password' })
  async signIn(
    @Body() sent: SignIn,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<AccountView> {
    return this.enter(await this.accounts.signIn(sent), request, response);
  }

  @Post('sign-in/passkey-options')
  @May('open')
  @UseGuards(TriesGuard)
  @ApiOperation({ summary: 'What a passkey is to sign' })
  options(@Req() request: Request): Promise<object> {
    return this.passkeys.signInOptions(request);
  }

  @Post('sign-in/passkey')
  @May('open')
  @UseGuards(TriesGuard)
  @ApiOperation({ summary: 'Sign in with a passkey' })
  async passkey(
    @Body() sent: PasskeyAnswer,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<AccountView> {
    return this.enter(await this.passkeys.signIn(request, sent), request, response);
  }

  @Post('accounts/first')
  @May('open')
  @UseGuards(TriesGuard)
  @ApiOperation({
    summary: 'The first account, by the code that was printed at the start: it turns rights on',
  })
  async first(
    @Body() sent: FirstLead,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<AccountView> {
    return this.enter(await this.accounts.first(sent), request, response);
  }

  @Post('invitations/look')
  @May('open')
  @HttpCode(200)
  @UseGuards(TriesGuard)
  @ApiOperation({ summary: 'What one is invited to, by its code' })
  look(@Body() { code }: LookAtInvitation): InvitationView {
    return this.accounts.invitationOf(code);
  }

  @Post('invitations/accept')
  @May('open')
  @UseGuards(TriesGuard)
  @ApiOperation({ summary: 'Take an invitation: choose a name and a password' })
  async accept(
    @Body() sent: AcceptInvitation,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<AccountView> {
    return this.enter(await this.accounts.accept(sent), request, response);
  }

  @Post('sign-out')
  @May('open')
  @HttpCode(204)
  @ApiOperation({ summary: 'Sign out of this browser' })
  signOut(@Res({ passthrough: true }) response: Response): void {
    const actor = actorNow();
    if (actor) {
      this.sessions.end(actor.sessionId);
      this.audit.note('signed out', actor.name);
    }
    response.clearCookie(SESSION_COOKIE, { path: '/' });
  }

  private enter(account: AccountEntity, request: Request, response: Response): AccountView {
    // A browser that was signed in, perhaps as somebody else, is that no longer.
    const before = actorNow();
    if (before) this.sessions.end(before.sessionId);
    this.tries.forgive(request, account.login);
    const { secret } = this.sessions.begin(account.id, request.get('User-Agent') ?? 'unknown');
    this.audit.note('signed in', account.name, { accountId: account.id, name: account.name });
    response.cookie(SESSION_COOKIE, secret, {
      httpOnly: true,
      sameSite: 'lax',
      secure: request.secure || this.passkeys.isEncrypted(request),
      path: '/',
      maxAge: COOKIE_MS,
    });
    return toAccount(account);
  }
}

/** One’s own account. */
@ApiTags('signing in')
@May('self')
@Controller('me')
export class OwnAccountController {
  constructor(
    private readonly accounts: Accounts,
    private readonly sessions: Sessions,
    private readonly passkeys: Passkeys,
    private readonly audit: Audit,
  ) {}

  @Post('password')
  @HttpCode(204)
  @UseGuards(TriesGuard)
  @ApiOperation({ summary: 'Another password; every other browser is signed out' })
  async password(@Body() sent: ChangePassword): Promise<void> {
    requireAccount();
    await this.accounts.changePassword(sent);
  }

  @Get('sessions')
  @ApiOperation({ summary: 'Where one is signed in' })
  list(): readonly SessionView[] {
    return this.sessions.of(requireAccount());
  }

  @Post('passkeys/options')
  @ApiOperation({ summary: 'What a new passkey is made from' })
  options(@Req() request: Request): Promise<object> {
    requireAccount();
    return this.passkeys.registrationOptions(request);
  }

  @Post('passkeys')
  @ApiOperation({ summary: 'Add a passkey' })
  add(@Body() sent: PasskeyAnswer, @Req() request: Request): Promise<PasskeyView> {
    requireAccount();
    return this.passkeys.register(request, sent);
  }

  @Get('passkeys')
  @ApiOperation({ summary: 'One’s passkeys' })
  passkeysOf(): readonly PasskeyView[] {
    requireAccount();
    return this.passkeys.list();
  }

  @Delete('passkeys/:id')
  @HttpCode(204)
  @ApiOperation({ summary: 'Remove a passkey' })
  removePasskey(@Param('id') id: string): void {
    requireAccount();
    this.passkeys.remove(id);
  }

  @Delete('sessions/:id')
  @HttpCode(204)
  @ApiOperation({ summary: 'Sign a browser out: one’s own, or, for a lead, anybody’s' })
  end(@Param('id') id: string): void {
    const own = requireAccount();
    const session = this.sessions.require(id);
    if (session.accountId !== own) requireRight('lead');
    this.sessions.end(session.id);
    this.audit.note('session ended', this.accounts.require(session.accountId).name);
  }
}

/** Without accounts there is no own one. */
function requireAccount(): string {
  const actor = actorNow();
  if (actor) return actor.accountId;
  throw notFound('no-accounts', 'There are no accounts here: nobody signs in.');
}

/** Everybody’s account. */
@ApiTags('accounts')
@May('lead')
@Controller()
export class AccountsController {
  constructor(
    private readonly accounts: Accounts,
    private readonly sessions: Sessions,
    private readonly audit: Audit,
  ) {}

  @Get('accounts')
  @ApiOperation({ summary: 'Who may sign in, and as what' })
  list(): readonly AccountView[] {
    return this.accounts.list();
  }

  @Post('accounts/:id/changes')
  @ApiOperation({ summary: 'Another role, other sites, prices or none' })
  change(@Param('id') id: string, @Body() sent: ChangeAccount): AccountView {
    return this.accounts.change(id, sent);
  }

  @Post('accounts/:id/close')
  @ApiOperation({ summary: 'They sign in no more, and are signed out everywhere' })
  close(@Param('id') id: string): AccountView {
    return this.accounts.close(id);
  }

  @Get('accounts/:id/sessions')
  @ApiOperation({ summary: 'Where somebody is signed in' })
  sessionsOf(@Param('id') id: string): readonly SessionView[] {
    return this.sessions.of(this.accounts.require(id).id);
  }

  @Get('invitations')
  @ApiOperation({ summary: 'Invitations that nobody took yet' })
  invitations(): readonly InvitationView[] {
    return this.accounts.invitations();
  }

  @Post('invitations')
  @ApiOperation({ summary: 'Invite somebody; the code is told this once' })
  invite(@Body() sent: Invite): NewInvitationView {
    return this.accounts.invite(sent);
  }

  @Delete('invitations/:id')
  @HttpCode(204)
  @ApiOperation({ summary: 'Withdraw an invitation' })
  withdraw(@Param('id') id: string): void {
    this.accounts.withdraw(id);
  }

  @Get('audit')
  @ApiOperation({ summary: 'Who did what of weight, the latest first' })
  read(@Query() { cursor, limit }: PageQuery): Page<AuditEntryView> {
    const size = pageSize(limit);
    const before = cursor === undefined ? Number.MAX_SAFE_INTEGER : Number(readCursor(cursor, 1)[0]);
    return toPage(
      this.audit.list(Number.isSafeInteger(before) ? before : 0, size + 1),
      size,
      (one) => one,
      ({ seq }) => [String(seq)],
    );
  }
}

/** Everywhere: what any route does may be noted. */
@Global()
@Module({
  imports: [CompressorsModule, PeopleModule, SitesModule, WorkshopModule],
  controllers: [SignInController, OwnAccountController, AccountsController],
  providers: [
    Accounts,
    Sessions,
    Passkeys,
    Audit,
    Tries,
    { provide: Noted, useExisting: Audit },
    { provide: APP_GUARD, useClass: AccessGuard },
  ],
  exports: [Accounts, Sessions, Audit, Noted],
})
export class AccessModule {}

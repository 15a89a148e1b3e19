import { Controller, Get, Module, Res } from '@nestjs/common';
import { ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import type { ReachView } from '@entretien/contracts';
import type { Response } from 'express';
import { May } from '../access/may.js';
import { notFound } from '../common/problem.js';
import { Reach } from './reach.js';

@ApiTags('reach')
@May('open')
@Controller()
export class ReachController {
  constructor(private readonly reach: Reach) {}

  @Get('reach')
  @ApiOperation({ summary: 'By which address others reach the server, and what their devices have to trust' })
  view(): ReachView {
    return this.reach.view();
  }

  @Get('authority.crt')
  @ApiProduces('application/x-x509-ca-cert')
  @ApiOperation({ summary: 'The certificate of the workshop’s own authority, for a phone to trust' })
  authority(@Res() response: Response): void {
    const pem = this.reach.authorityPem;
    if (pem === null) throw notFound('no-authority', 'There is no authority of this workshop’s own.');
    response.type('application/x-x509-ca-cert').attachment('entretien-authority.crt').send(pem);
  }
}

/** How the server is reached from elsewhere. */
@Module({ controllers: [ReachController], providers: [Reach], exports: [Reach] })
export class ReachModule {}

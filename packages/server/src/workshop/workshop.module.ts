import { Body, Controller, Delete, Get, HttpCode, Module, Put, Req, Res } from '@nestjs/common';
import { ApiBody, ApiConsumes, ApiOperation, ApiProduces, ApiTags } from '@nestjs/swagger';
import { LARGEST_LOGO_MB, SaveSettings, type WorkshopSettings } from '@entretien/contracts';
import type { Request, Response } from 'express';
import { May } from '../access/may.js';
import { NotedAs } from '../access/noted-as.js';
import { bytesOf } from '../common/bytes-of.js';
import { notFound } from '../common/problem.js';
import { logoFrom } from './logo.js';
import { WorkshopSettingsService } from './workshop-settings.js';

@ApiTags('workshop')
@Controller('settings')
export class SettingsController {
  constructor(private readonly settings: WorkshopSettingsService) {}

  @Get()
  @May('see')
  @ApiOperation({ summary: 'How this workshop has the guard set, and what stands on its papers' })
  read(): WorkshopSettings {
    return this.settings.read();
  }

  @Put()
  @NotedAs('settings changed')
  @May('lead')
  @ApiOperation({ summary: 'Set the guard and what stands on papers; what is left out stays' })
  save(@Body() settings: SaveSettings): WorkshopSettings {
    return this.settings.save(settings);
  }

  @Get('logo')
  @May('see')
  @ApiProduces('image/png')
  @ApiOperation({ summary: 'The logo that stands on papers' })
  logo(@Res() response: Response): void {
    const logo = this.settings.logo();
    if (logo === null) throw notFound('no-logo', 'There is no logo.');
    response.set('Cache-Control', 'no-cache').type('image/png').send(logo);
  }

  @Put('logo')
  @NotedAs('settings changed')
  @May('lead')
  @ApiConsumes('image/jpeg', 'image/png', 'image/webp')
  @ApiBody({ schema: { type: 'string', format: 'binary' } })
  @ApiOperation({ summary: `Put a logo on papers; ${LARGEST_LOGO_MB} MB at most` })
  async putLogo(@Req() request: Request): Promise<WorkshopSettings> {
    const sent = await bytesOf(request, LARGEST_LOGO_MB * 1_000_000 + 1);
    return this.settings.putLogo(await logoFrom(sent));
  }

  @Delete('logo')
  @HttpCode(204)
  @NotedAs('settings changed')
  @May('lead')
  @ApiOperation({ summary: 'Take the logo off papers' })
  takeLogo(): void {
    this.settings.putLogo(null);
  }
}

/** What holds for the whole workshop. */
@Module({
  controllers: [SettingsController],
  providers: [WorkshopSettingsService],
  exports: [WorkshopSettingsService],
})
export class WorkshopModule {}

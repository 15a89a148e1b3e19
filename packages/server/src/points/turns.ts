import { Controller, Get, Inject, Param } from '@nestjs/common';
import { ApiOperation, ApiTags } from '@nestjs/swagger';
import type { TurnsView } from '@entretien/contracts';
import { isSameNetwork, networkTurns } from '@entretien/core/hours';
import { May } from '../access/may.js';
import { CLOCK, type Clock } from '../common/tokens.js';
import { CompressorRegister } from '../compressors/compressor-register.js';
import { StandingsService } from '../standings/standings.service.js';
import { StopsService } from '../stops/stops.service.js';

/** Which set of a network runs first. */
@ApiTags('points of use')
@Controller('compressors/:compressorId/turns')
export class TurnsController {
  constructor(
    private readonly register: CompressorRegister,
    private readonly standings: StandingsService,
    private readonly stops: StopsService,
    @Inject(CLOCK) private readonly clock: Clock,
  ) {}

  @Get()
  @May('see')
  @ApiOperation({ summary: 'The sets of a unit’s network, and which of them should run first' })
  turns(@Param('compressorId') compressorId: string): TurnsView {
    const now = this.clock();
    const { siteId, network } = this.register.plateOf(this.register.require(compressorId), now);
    const sets = [...this.register.all()]
      .map((unit) => ({ unit, plate: this.register.plateOf(unit, now) }))
      .filter(({ plate }) => plate.siteId === siteId && isSameNetwork(plate.network, network))
      .filter(({ plate }) => !this.register.isRetired(plate, now))
      .map(({ unit, plate }) => ({
        id: unit.id,
        tag: plate.tag,
        turn: plate.turn ?? null,
        runHours: this.standings.judge(unit, now).standing.runHours,
        isStopped: this.stops.of(unit.id).some(({ scope }) => scope === 'unit'),
      }));
    sets.sort((one, other) => one.tag.localeCompare(other.tag, 'en', { numeric: true }));
    const turns = networkTurns(sets);
    return { network: network ?? null, sets, next: turns?.next ?? null, sentence: turns?.sentence ?? null };
  }
}

import { Body, Controller, Get, HttpCode, Module, Param, Post } from '@nestjs/common';
import { ApiHeader, ApiOperation, ApiTags } from '@nestjs/swagger';
import { SaveDevice, type DevicesView, type DeviceView } from '@entretien/contracts';
import { May, ReadsAndWrites } from '../access/may.js';
import { NotedAs } from '../access/noted-as.js';
import { RequestPerson } from '../common/person-of-request.js';
import { CompressorsModule } from '../compressors/compressors.module.js';
import { MeasurementsModule } from '../measurements/measurements.module.js';
import { PeopleModule } from '../people/people.js';
import { ReadingsModule } from '../readings/readings.module.js';
import { SitesModule } from '../sites/sites.module.js';
import { DevicesService } from './devices.service.js';
import { GatewayService } from './gateway.service.js';

@ApiTags('devices')
@ApiHeader({ name: 'Entretien-Person', required: false, description: 'Id of the person at work.' })
@ReadsAndWrites('see', 'work')
@Controller()
export class DevicesController {
  constructor(private readonly gateway: GatewayService) {}

  @Get('devices')
  @ApiOperation({ summary: 'Every device that is asked, how it answers, and what of it was refused' })
  all(): DevicesView {
    return this.gateway.view();
  }

  @Get('compressors/:compressorId/devices')
  @ApiOperation({ summary: 'The devices of a unit' })
  of(@Param('compressorId') compressorId: string): DevicesView {
    return this.gateway.view(compressorId);
  }

  // Whoever sets an address makes the server reach out to it.
  @Post('compressors/:compressorId/devices')
  @May('lead')
  @NotedAs('device changed')
  @ApiOperation({ summary: 'Add a device to a unit, or change one' })
  save(
    @Param('compressorId') compressorId: string,
    @Body() device: SaveDevice,
    @RequestPerson() by: string,
  ): DeviceView {
    return this.gateway.save(compressorId, device, by);
  }

  @Post('devices/:id/removal')
  @May('lead')
  @NotedAs('device changed')
  @HttpCode(200)
  @ApiOperation({ summary: 'Ask a device no more, and forget it; what it put on record stays' })
  remove(@Param('id') id: string): DevicesView {
    this.gateway.remove(id);
    return this.gateway.view();
  }

  @Post('device-refusals/:id/seen')
  @HttpCode(200)
  @ApiOperation({ summary: 'Take something that was refused out of the tray' })
  seen(@Param('id') id: string): DeviceView {
    return this.gateway.seen(id);
  }
}

@Module({
  imports: [CompressorsModule, MeasurementsModule, PeopleModule, ReadingsModule, SitesModule],
  controllers: [DevicesController],
  providers: [DevicesService, GatewayService],
})
export class GatewayModule {}

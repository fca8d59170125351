import { Module } from '@nestjs/common';
import { CampaignsController } from './campaigns.controller.js';

export { addCampaign, setPieceCampaign } from './use-cases/campaigns.js';

@Module({ controllers: [CampaignsController] })
export class CampaignsModule {}

import { Module } from '@nestjs/common';
import { PacketsController, RoomController } from './signoff.controller.js';

export { Packet, PacketItem } from './entities/packet.entity.js';
export { decide, decisionRecord, type DecisionInput } from './use-cases/decide.js';
export { sendPacket } from './use-cases/send-packet.js';

@Module({ controllers: [PacketsController, RoomController] })
export class SignOffModule {}

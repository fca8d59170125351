import { Module } from '@nestjs/common';
import { PacketsController, RoomController } from './sign-off.controller.js';

export { Packet, PacketItem } from './entities/packet.entity.js';
export { decisionRecord, type DecisionRecord } from './decisions.js';
export { chase } from './use-cases/chase.js';
export { decide, reckonOpenPackets, thingsIn, type DecisionInput } from './use-cases/decide.js';
export { approveForClient, recordNoAnswer } from './use-cases/decide-for-client.js';
export { sendPacket } from './use-cases/send-packet.js';

@Module({ controllers: [PacketsController, RoomController] })
export class SignOffModule {}

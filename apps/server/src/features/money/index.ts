import { Module } from '@nestjs/common';
import { MoneyController } from './money.controller.js';

export { currencyOf, freelanceRates } from './queries/rates.js';
export { agreeFee, agreeRate } from './use-cases/agree.js';

@Module({ controllers: [MoneyController] })
export class MoneyModule {}

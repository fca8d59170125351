export { startChannels, type Channels } from '@zesting/standins';

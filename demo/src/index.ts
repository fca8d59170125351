export { loadDemo } from './load.js';
export { drawPicture } from './pictures.js';
export { CLIENTS } from './clients.js';
export { STORY } from './pieces.js';
export { PASSWORD, PEOPLE } from './story.js';

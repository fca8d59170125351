export { loadDemo } from './load.js';
export { drawPicture } from './pictures.js';
export { CLIENTS, PASSWORD, PEOPLE, STORY } from './story.js';

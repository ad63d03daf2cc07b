import { Pictures } from './pictures/pictures.js';
import { followBack } from './wayback.js';

followBack();
const page = document.getElementById('pictures');
// For the browser tests, which must know when the picture is finished.
if (page) Object.assign(window, { shelfPictures: new Pictures(page) });

import { startUpload } from './upload.js';
import { startWorkbench } from './bench/workbench.js';
import { htmx } from './htmx.js';
import { followBack } from './wayback.js';

htmx.config.includeIndicatorCSS = false;
document.querySelectorAll('form[data-upload]').forEach((form) => startUpload(/** @type {HTMLFormElement} */ (form)));
followBack();
const work = document.getElementById('work');
if (work) startWorkbench(work);

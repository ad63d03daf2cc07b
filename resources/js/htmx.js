// @ts-expect-error the package's own types stop at its extensions
import library from 'htmx.org/dist/htmx.esm.js';

/** @type {any} */
export const htmx = library;

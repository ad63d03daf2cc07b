import library from 'htmx.org/dist/htmx.esm.js';

/** @type {any} */
export const htmx = library;

import { Presenting } from './present/presenting.js';

const page = document.getElementById('present');
// For the browser tests, which must know when the picture is finished.
if (page) Object.assign(window, { shelfPresenting: new Presenting(page) });

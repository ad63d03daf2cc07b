import { Screen } from './screen.js';

/** The screens that the server draws above the canvas; one at a time, the weight panel among them. */
export class Screens {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.history = new Screen(bench, '/changes');
        this.tidy = new Screen(bench, '/tidy');
        this.rules = new Screen(bench, '/sorting-rules', { line: (number) => lineItems(bench, number) });
    }

    get all() {
        return [this.history, this.tidy, this.rules];
    }

    close() {
        for (const screen of this.all) screen.close();
        if (this.bench.weight.isOpen) this.bench.weight.close();
    }

    /** @param {string} now what the project is at, and the pick */
    hears(now) {
        for (const screen of this.all) screen.hears(now);
    }
}

/** What can be done with one sorting rule. @param {import('./workbench.js').Workbench} bench @param {string} number @returns {any[]} */
function lineItems(bench, number) {
    const post = (/** @type {string} */ path, values = {}) => bench.server.ask('POST', `/sorting-rules${path}`, values);
    return [
        ['Pick all that fit', '', () => post('/pick', { what: 'found', line: number, mode: 'replace' })],
        ['Sort by this rule alone', '', () => post('/run', { line: number })],
        null,
        ['To the top', '', () => post(`/${number}/move`, { by: -1000 })],
        ['To the bottom', '', () => post(`/${number}/move`, { by: 1000 })],
        ['Duplicate', '', () => post(`/${number}/duplicate`)],
        ['Delete', '', () => post(`/${number}/delete`)],
    ];
}

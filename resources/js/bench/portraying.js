/** A view that was applied and has no picture, or an old one, gets one of what the canvas shows, once that is whole and stands still. */
export class Portraying {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        /** Number of the view that is to be portrayed, 0 for none. */
        this.view = 0;
        bench.canvas.element.addEventListener('shelf:drawn', (event) => this.drawn(/** @type {CustomEvent} */ (event).detail));
    }

    /** Every answer says whether the canvas still is to show that view. @param {number} [view] */
    hears(view = 0) {
        this.view = view;
    }

    /** @param {{done: boolean, missing: number, loading: boolean}} drawn */
    drawn({ done, missing, loading }) {
        const { view, bench } = this;
        if (view === 0 || !done || missing > 0 || loading || bench.canvas.viewpoint.goal !== null) return;
        this.view = 0;
        bench.server.ask('POST', `/views/${view}/picture`, { picture: bench.canvas.picture() });
    }
}

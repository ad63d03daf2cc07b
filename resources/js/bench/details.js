/** Pixels around what was just picked that the card leaves clear. */
const CLEAR = 10;
const LEGEND = '#legend:not([hidden])';

/** The pick card unfolded: what is known of the pick, brought up to date as it changes. */
export class Details {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.open = false;
        this.card = /** @type {HTMLElement} */ (document.getElementById('card'));
        /** Where in the canvas something was picked last; none once something else was touched. @type {{x: number, y: number} | null} */
        this.picked = null;
        this.wanted = false;
        this.card.addEventListener('click', (event) => this.click(/** @type {HTMLElement} */ (event.target)));
        this.bench.canvas.element.addEventListener('shelf:pick', (event) => {
            this.picked = /** @type {CustomEvent} */ (event).detail;
            this.wanted = false;
        });
        const elsewhere = (/** @type {Event} */ { target }) => {
            if (!(target instanceof Node && bench.canvas.element.contains(target))) this.picked = null;
        };
        addEventListener('pointerdown', elsewhere, true);
        bench.ledger.rows.addEventListener('keydown', elsewhere);
    }

    get place() {
        return document.getElementById('details');
    }

    toggle() {
        this.open = !this.open;
        this.asked = undefined;
        // Who unfolds it wants to see it, wherever there is room.
        this.wanted = this.open;
        return this.show();
    }

    /** Asks anew once something has changed. @param {{revision: number, desk: number}} revisions */
    hears({ revision, desk }) {
        const state = `${revision} ${desk}`;
        if (this.open && this.asked !== state) this.show(state);
        else this.settle();
    }

    /** @param {string} [state] */
    async show(state) {
        this.asked = state;
        this.settle();
        if (!this.open || !this.place) return;
        const html = await this.bench.server.html('/details');
        const { place } = this;
        if (html === null || !place) return;
        place.innerHTML = html;
        this.settle();
        await this.bench.portrait.draw(place);
        this.settle();
    }

    /** The card may have come anew: it is as open as it was. */
    settle() {
        const { place } = this;
        if (!place) return;
        const { classList } = this.card;
        // The first place that leaves clear what was just picked; folded where it would be covered all the same.
        this.card.style.setProperty('--card-clear', this.picked ? `${Math.max(250, this.picked.y - CLEAR - 1)}px` : '100%');
        for (const isOpen of this.open ? (this.wanted ? [true] : [true, false]) : [false]) {
            place.hidden = !isOpen;
            this.card.querySelector('.unfold-card')?.setAttribute('aria-expanded', String(isOpen));
            classList.toggle('is-unfolded', isOpen);
            for (const corner of this.corners()) {
                classList.remove('is-right', 'is-high');
                if (corner !== '') classList.add(corner);
                if (!this.covers()) return;
            }
        }
        classList.remove('is-right', 'is-high');
    }

    /** Where the card may stand now, its own corner first. */
    corners() {
        const isFree = (/** @type {string} */ what) => document.querySelector(what) === null;
        const isLittle = document.body.classList.contains('has-little-canvas');
        return [
            '',
            ...(!isLittle && isFree(LEGEND) ? ['is-right'] : []),
            ...(isFree('#section-panel:not([hidden])') && isFree('.isolated') && (!isLittle || isFree(LEGEND)) ? ['is-high'] : []),
        ];
    }

    /** Whether the card lies over what was just picked. */
    covers() {
        const card = this.card.querySelector('.card');
        if (this.picked === null || !card) return false;
        const at = card.getBoundingClientRect();
        const { left, top } = this.bench.canvas.element.getBoundingClientRect();
        const [x, y] = [this.picked.x + left, this.picked.y + top];
        return x > at.left - CLEAR && x < at.right + CLEAR && y > at.top - CLEAR && y < at.bottom + CLEAR;
    }

    /** @param {HTMLElement} on */
    click(on) {
        const { bench } = this;
        const same = /** @type {HTMLElement | null} */ (on.closest('[data-same]'));
        if (same) return void bench.pick({ found: 1, words: same.dataset.same, mode: 'replace' });
        const own = /** @type {HTMLElement | null} */ (on.closest('[data-own]'));
        if (own) {
            const { own: property = '', value = '' } = own.dataset;
            return void bench.openDialog(`/own?property=${encodeURIComponent(property)}&value=${encodeURIComponent(value)}`);
        }
        const colour = /** @type {HTMLElement | null} */ (on.closest('[data-own-colour]'));
        if (colour)
            return bench.menus.chooseColour(colour, colour.dataset.ownColour ?? '', 'Own colour of the pick', (value) =>
                bench.server.ask('POST', '/own', { property: '~colour', value }),
            );
        if (on.closest('[data-own-colour-off]')) bench.server.ask('POST', '/own', { property: '~colour', value: '' });
        return undefined;
    }
}

/** The pick card unfolded: what is known of the pick, brought up to date as it changes. */
export class Details {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.open = false;
        this.card = /** @type {HTMLElement} */ (document.getElementById('card'));
        this.card.addEventListener('click', (event) => this.click(/** @type {HTMLElement} */ (event.target)));
    }

    get place() {
        return document.getElementById('details');
    }

    toggle() {
        this.open = !this.open;
        this.asked = undefined;
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
    }

    /** The card may have come anew: it is as open as it was. */
    settle() {
        const { place } = this;
        if (!place) return;
        place.hidden = !this.open;
        this.card.querySelector('.unfold-card')?.setAttribute('aria-expanded', String(this.open));
        this.card.classList.toggle('is-unfolded', this.open);
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

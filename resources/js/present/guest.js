import { sentenceOf } from '../bench/failures.js';
import { placeUnder } from '../canvas/hit.js';
import { spotOf } from '../canvas/spot.js';
import { posted, sayRefused, valuesOf } from '../posted.js';

/** What a guest may do besides looking, where the link allows it: ask what something is called, and say something of a view. */
export class Guest {
    /** @param {import('./presenting.js').Presenting} presenting @param {boolean} mayPick */
    constructor(presenting, mayPick) {
        this.presenting = presenting;
        this.mayPick = mayPick;
        this.form = /** @type {HTMLFormElement | null} */ (document.getElementById('present-say'));
        this.opener = document.getElementById('present-comment');
        /** Where in the model it is meant: metres as the canvas counts. @type {number[] | null} */
        this.place = null;
        const { canvas } = presenting;
        canvas.clicks = mayPick || this.form !== null;
        canvas.element.addEventListener('shelf:pick', (event) => this.clicked(/** @type {CustomEvent} */ (event).detail));
        canvas.element.addEventListener('shelf:sight', () => this.draw());
        this.opener?.addEventListener('click', () => this.turn());
        document.getElementById('say-close')?.addEventListener('click', () => this.turn(false));
        this.form?.addEventListener('keydown', (event) => event.key === 'Escape' && this.turn(false));
        this.form?.addEventListener('submit', (event) => {
            event.preventDefault();
            this.send();
        });
    }

    /** Another step is shown. */
    stepped() {
        this.says('');
        this.mean(null);
    }

    /** @param {{part: number, x: number, y: number}} on an object, 0 for none, and where: pixels from the top left */
    async clicked({ part: object, x, y }) {
        const { canvas, address, step } = this.presenting;
        canvas.outline(object);
        if (this.form && !this.form.hidden) this.mean(object > 0 ? placeUnder(canvas, object, x, y) : null);
        if (!this.mayPick || object === 0) return this.says('');
        const response = await fetch(`${address}/steps/${step}/objects/${object}`, { headers: { Accept: 'application/json' } }).catch(
            () => null,
        );
        const said = response?.ok ? await response.json() : null;
        return this.says(said ? said.name || 'unnamed' : sentenceOf(response?.status ?? 0));
    }

    /** @param {number[] | null} place */
    mean(place) {
        this.place = place;
        this.draw();
        const line = document.getElementById('say-where');
        if (line) line.textContent = place ? 'For the place that is marked.' : 'For the view as a whole. A click in the model says where.';
    }

    /** Marks the place that is meant. */
    draw() {
        const { canvas } = this.presenting;
        const mark = document.getElementById('say-mark');
        const spot = this.place && spotOf(canvas, this.place);
        if (!mark) return;
        mark.hidden = !spot;
        if (spot) mark.style.translate = `${spot[0]}px ${spot[1]}px`;
    }

    /** @param {boolean} [open] */
    turn(open = this.form?.hidden === true) {
        if (!this.form) return;
        this.form.hidden = !open;
        this.opener?.setAttribute('aria-expanded', String(open));
        if (open) /** @type {HTMLElement | null} */ (this.form.querySelector('input, textarea'))?.focus();
        else {
            this.mean(null);
            this.opener?.focus();
        }
    }

    async send() {
        const form = /** @type {HTMLFormElement} */ (this.form);
        const values = valuesOf(form);
        values.set('view', String(this.presenting.view));
        if (this.place) values.set('place', this.place.map((metres) => metres.toFixed(4)).join(','));
        const response = await posted(`${this.presenting.address}/comments`, values);
        if (!response?.ok) return sayRefused(form, response);
        /** @type {HTMLElement} */ (form.querySelector('.error')).hidden = true;
        const { says } = await response.json();
        /** @type {HTMLTextAreaElement} */ (form.querySelector('textarea')).value = '';
        this.mean(null);
        this.turn(false);
        return this.says(says);
    }

    /** @param {string} sentence */
    says(sentence) {
        const line = document.getElementById('present-picked');
        if (!line) return;
        line.textContent = sentence;
        line.hidden = sentence === '';
    }
}

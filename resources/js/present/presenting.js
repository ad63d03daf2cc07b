import { inflated } from '../bench/inflated.js';
import { cutsOf } from '../bench/cuts.js';
import { sentenceOf } from '../bench/failures.js';
import { whole } from '../bench/frame.js';
import { Canvas } from '../canvas/canvas.js';
import { settingsOf } from '../canvas/settings.js';
import { foresee } from '../canvas/foresight.js';
import { Guest } from './guest.js';
import { stage } from './stage.js';
import { wayBack } from '../wayback.js';

/** @typedef {import('./stage.js').Step} Step */

/** Milliseconds of a flight from view to view. */
const FLIGHT_MS = 1100;

/** Width by height of the picture of a view that does not say. */
const USUAL = 1.5;

/** Goes from view to view of a presentation. */
export class Presenting {
    /** @param {HTMLElement} page */
    constructor(page) {
        this.page = page;
        const { address = '', shared = '', steps } = page.dataset;
        this.address = new URL(address).pathname;
        const base = new URL(shared).pathname;
        this.count = Number(steps);
        this.step = -1;
        /** The number of the view that is shown. */
        this.view = 0;
        /** The step that the canvas has been told of. */
        this.shown = -1;
        /** Whether what the next step needs was asked for. */
        this.foreseen = false;
        /** @type {Map<number, Promise<Step | null>>} what was asked for */
        this.asked = new Map();
        this.canvas = new Canvas(
            /** @type {HTMLElement} */ (document.getElementById('canvas')),
            settingsOf(page, base, { records: `${this.address}/records`, isWhole: true }),
        );
        this.canvas.viewpoint.flightTime = FLIGHT_MS;
        this.revision = Number(page.dataset.revision);
        this.guest = new Guest(this, page.dataset.mayPick === '1');
        this.which = /** @type {HTMLSelectElement} */ (document.getElementById('present-which'));
        this.listen();
        const wanted = /^#(\d{1,4})$/.exec(location.hash);
        this.go(wanted ? Number(wanted[1]) - 1 : 0).then(() => this.canvas.load(this.sight ?? null));
    }

    /** @param {number} step @returns {Promise<Step | null>} */
    ask(step) {
        const before = this.asked.get(step);
        if (before) return before;
        const asked = fetch(`${this.address}/steps/${step}`, { headers: { Accept: 'application/json' } })
            .catch(() => null)
            .then(async (response) => {
                if (response?.ok) return response.json();
                this.asked.delete(step);
                this.says(sentenceOf(response?.status ?? 0));
                return null;
            });
        this.asked.set(step, asked);
        return asked;
    }

    /** @param {number} wanted */
    async go(wanted) {
        const step = Math.max(0, Math.min(this.count - 1, wanted));
        if (step === this.step) return this.look();
        this.going = step;
        const said = await this.ask(step);
        if (!said || this.going !== step) return undefined;
        const first = this.step === -1;
        this.step = step;
        this.view = said.view;
        this.write(said);
        await stage(this.canvas, said, `${this.address}/faces/${step}`, () => step === this.step);
        this.sight = said.camera ?? undefined;
        this.look(first);
        history.replaceState(null, '', `#${step + 1}`);
        this.foreseen = false;
        this.shown = step;
        if (step + 1 < this.count) this.ask(step + 1);
        return undefined;
    }

    /** What the next step needs is fetched while this one is looked at. */
    async ahead() {
        const next = this.step + 1;
        if (this.foreseen || next >= this.count) return;
        this.foreseen = true;
        const said = await this.ask(next);
        if (!said || this.step + 1 !== next || !this.canvas.painter.isOpen) return;
        const sight = said.camera ?? this.canvas.viewpoint.get();
        foresee(this.canvas, await inflated(said.states), sight, said.section ? cutsOf(said.section, said.section.origin) : []);
    }

    /** Looks from where the view was kept. @param {boolean} [atOnce] */
    look(atOnce = false) {
        if (!this.sight) return;
        const { clientWidth: width, clientHeight: height } = this.canvas.element;
        this.canvas.framing.framed = true;
        this.canvas.viewpoint.set(whole({ aspect: USUAL, ...this.sight }, width / Math.max(1, height)), atOnce);
    }

    /** @param {Step} said */
    write({ name, note, revision }) {
        const element = (/** @type {string} */ id) => /** @type {HTMLElement} */ (document.getElementById(id));
        element('present-name').textContent = name;
        element('present-note').textContent = note;
        // A name alone stands in the bar as well.
        element('present-caption').classList.toggle('unseen', note === '');
        element('present-caption').tabIndex = note === '' ? -1 : 0;
        this.which.value = String(this.step);
        element('present-before').toggleAttribute('disabled', this.step === 0);
        element('present-next').toggleAttribute('disabled', this.step === this.count - 1);
        this.says(revision === this.revision ? '' : 'The model has changed meanwhile. Load the page anew to see it as it is.');
        this.guest.stepped();
    }

    /** @param {string} sentence */
    says(sentence) {
        const line = document.getElementById('present-busy');
        if (line) line.textContent = sentence;
    }

    async turnFull() {
        if (document.fullscreenElement) await document.exitFullscreen();
        else await document.documentElement.requestFullscreen().catch(() => this.says('This browser does not fill the screen.'));
    }

    listen() {
        const on = (/** @type {string} */ id, /** @type {() => void} */ act) => document.getElementById(id)?.addEventListener('click', act);
        on('present-before', () => this.go(this.step - 1));
        on('present-next', () => this.go(this.step + 1));
        on('present-again', () => this.look());
        on('present-full', () => this.turnFull());
        this.which.addEventListener('change', () => this.go(Number(this.which.value)));
        document.addEventListener('fullscreenchange', () =>
            document.getElementById('present-full')?.setAttribute('aria-pressed', String(document.fullscreenElement !== null)),
        );
        this.canvas.element.addEventListener('shelf:drawn', (event) => {
            const { done, missing, loading } = /** @type {CustomEvent} */ (event).detail;
            if (done && missing === 0 && !loading && this.canvas.viewpoint.goal === null) this.ahead();
        });
        // Before the canvas, for which arrow keys turn the camera.
        document.addEventListener('keydown', (event) => this.onKey(event), true);
        this.canvas.element.addEventListener('shelf:failed', (event) =>
            this.says(sentenceOf(/** @type {CustomEvent} */ (event).detail.response?.status ?? 0)),
        );
    }

    /** @param {KeyboardEvent} event */
    onKey(event) {
        if (event.ctrlKey || event.altKey || event.metaKey || this.isTyping(event.target)) return;
        const act = {
            ArrowRight: () => this.go(this.step + 1),
            PageDown: () => this.go(this.step + 1),
            ArrowLeft: () => this.go(this.step - 1),
            PageUp: () => this.go(this.step - 1),
            Home: () => this.go(0),
            End: () => this.go(this.count - 1),
            0: () => this.look(),
            f: () => this.turnFull(),
            Escape: () => this.leave(),
        }[event.key];
        const isButton = event.target instanceof Element && event.target.closest('button, a, select') !== null;
        const next = event.key === ' ' && !isButton;
        if ((!act && !next) || event.shiftKey) return;
        event.preventDefault();
        event.stopPropagation();
        if (next) this.go(this.step + 1);
        else act?.();
    }

    /** @param {EventTarget | null} target */
    isTyping(target) {
        return target instanceof Element && target.closest('select, input, textarea') !== null;
    }

    leave() {
        if (document.fullscreenElement) document.exitFullscreen();
        else if (this.page.dataset.back) location.assign(wayBack(this.page.dataset.back));
    }
}

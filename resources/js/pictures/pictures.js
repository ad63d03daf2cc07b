import { sentenceOf } from '../bench/failures.js';
import { drawFrame, whole } from '../bench/frame.js';
import { Canvas } from '../canvas/canvas.js';
import { settingsOf } from '../canvas/settings.js';
import { Ended, Tiles } from '../canvas/tiles.js';
import { save } from '../save.js';
import { stage } from '../present/stage.js';
import { leftFrom } from './from.js';
import { fileName, fileNames, sizeOf } from './naming.js';
import { Bundle } from './zip.js';

/** Width by height of the picture of a view that does not say. */
const USUAL = 1.5;

/** Pixels of the longer side. */
const [LEAST, MOST] = [64, 4096];

const UNABLE = 'This browser cannot draw in three dimensions.';

/** Something that the page says, instead of a picture. */
class Unmade extends Error {}

/** The page on which pictures of views are drawn, at any size. */
export class Pictures {
    /** @param {HTMLElement} page */
    constructor(page) {
        const { workbench = '', together = '' } = page.dataset;
        this.together = together;
        const base = new URL(workbench).pathname;
        this.stills = `${base}/stills`;
        this.form = /** @type {HTMLFormElement} */ (document.getElementById('pictures-form'));
        this.canvas = new Canvas(/** @type {HTMLElement} */ (document.getElementById('canvas')), settingsOf(page, base));
        this.canvas.clicks = false;
        this.tiles = new Tiles(this.canvas);
        /** The view that is looked at, and what the server says of it. */
        this.view = Number(this.form.querySelector('[data-view]')?.getAttribute('data-view'));
        /** @type {import('../present/stage.js').Step | null} */
        this.said = null;
        /** Counts what was asked for, so that what comes late is not shown. */
        this.turn = 0;
        /** Where views without a camera are taken from. @type {import('../canvas/camera.js').Sight | null} */
        this.from = leftFrom(base);
        /** @type {AbortController | null} ends what is being made */
        this.making = null;
        this.isUnable = false;
        /** Whether all that is shown at the beginning has come. */
        this.isReady = false;
        /** @type {number | null} the status of an answer that failed, 0 for none at all */
        this.failure = null;
        this.listen();
        this.count();
        this.begin();
    }

    /** @param {string} id @returns {HTMLElement} */
    get(id) {
        return /** @type {HTMLElement} */ (document.getElementById(`pictures-${id}`));
    }

    async begin() {
        await Promise.all([this.canvas.load(this.from), this.look(this.view, true)]);
        this.from ??= this.canvas.viewpoint.fitted(this.canvas.viewpoint.all);
        // What the desk hides was not sent, and is asked for now.
        if (!this.making) await this.look(this.view, true);
        this.isReady = true;
    }

    /** @returns {HTMLInputElement[]} those of the views that are ticked */
    get ticked() {
        return /** @type {HTMLInputElement[]} */ ([...this.form.querySelectorAll('[name=views]')]).filter((tick) => tick.checked);
    }

    get of() {
        return /** @type {HTMLInputElement} */ (this.form.querySelector('[name=of]:checked')).value;
    }

    /** How much wider than high the picture of the view is that is looked at. */
    get aspect() {
        return this.said?.camera ? (this.said.camera.aspect ?? USUAL) : this.canvas.viewpoint.aspect;
    }

    /**
     * What the server says of a view, shown in the canvas.
     * @param {number} view
     * @returns {Promise<import('../present/stage.js').Step | null>} null where another one is wanted meanwhile
     * @throws {Unmade}
     */
    async bring(view) {
        const turn = ++this.turn;
        const isStill = () => turn === this.turn;
        const of = `of=${this.of}`;
        const response = await fetch(`${this.stills}/${view}?${of}`, { headers: { Accept: 'application/json' } }).catch(() => null);
        if (!response?.ok) throw new Unmade(sentenceOf(response?.status ?? 0));
        const said = await response.json();
        if (!isStill()) return null;
        if (!(await stage(this.canvas, said, `${this.stills}/${view}/faces?${of}`, isStill)))
            throw new Unmade('Its cut faces do not come.');
        this.canvas.refreshBounds();
        return isStill() ? said : null;
    }

    /** @param {number} view @param {boolean} [atOnce] */
    async look(view, atOnce = false) {
        this.stand();
        this.view = view;
        this.mark();
        try {
            const said = await this.bring(view);
            if (!said) return;
            this.said = said;
            this.leaves();
            this.get('made').hidden = true;
            this.aim(atOnce);
            this.says('');
        } catch (error) {
            if (!(error instanceof Unmade)) throw error;
            this.says(error.message);
        }
    }

    /** What the picture leaves out that the model has. */
    leaves() {
        const { says, layers } = this.said?.leaves ?? { says: '', layers: [] };
        const details = this.get('leaves');
        details.hidden = says === '';
        /** @type {HTMLElement} */ (details.querySelector('summary')).textContent = says;
        /** @type {HTMLElement} */ (details.querySelector('ul')).replaceChildren(
            ...layers.map(([name, count]) => {
                const line = Object.assign(document.createElement('li'), { textContent: name });
                line.append(' ', Object.assign(document.createElement('b'), { textContent: count.toLocaleString('en') }));
                return line;
            }),
        );
    }

    /** Where somebody has turned the canvas to: a view without a camera is taken from there. */
    stand() {
        if (this.said && !this.said.camera && !this.canvas.loading) this.from = this.canvas.viewpoint.get();
    }

    /** Looks from where the view was kept, or from where the others are taken. @param {boolean} [atOnce] */
    aim(atOnce = false) {
        const { clientWidth: width, clientHeight: height } = this.canvas.element;
        const { viewpoint, framing } = this.canvas;
        const sight = this.said?.camera ? whole({ aspect: USUAL, ...this.said.camera }, width / Math.max(1, height)) : this.from;
        if (sight) {
            framing.framed = true;
            viewpoint.set(sight, atOnce);
        }
        this.frame();
    }

    /** What the picture will have, and how large it will be. */
    frame() {
        const { clientWidth: width, clientHeight: height } = this.canvas.element;
        drawFrame(/** @type {any} */ (document.getElementById('view-frame')), this.said?.camera ? this.aspect : 0, width, height);
        const longer = this.longer();
        this.get('shape').textContent = longer === null ? '' : sizeOf(this.aspect, longer).join(' × ');
    }

    /** @returns {number | null} pixels; null where the field says something else */
    longer() {
        const given = /** @type {HTMLInputElement} */ (this.get('longer')).value.trim();
        const pixels = /^\d{1,5}$/.test(given) ? Number(given) : 0;
        return pixels >= LEAST && pixels <= MOST ? pixels : null;
    }

    /** Which view is looked at. */
    mark() {
        for (const look of this.form.querySelectorAll('[data-view]'))
            look.setAttribute('aria-pressed', String(Number(/** @type {HTMLElement} */ (look).dataset.view) === this.view));
    }

    /** How many are ticked. */
    count() {
        const [ticked, all] = [this.ticked.length, this.form.querySelectorAll('[name=views]').length];
        const tick = /** @type {HTMLInputElement} */ (this.get('all'));
        tick.checked = ticked > 0;
        tick.indeterminate = ticked > 0 && ticked < all;
        this.get('count').textContent = `${ticked} of ${all}`;
        this.get('make').textContent = ticked === 1 ? 'Make the picture' : `Make ${ticked} pictures`;
    }

    /** @param {string} sentence @param {HTMLElement} [at] the field that it is about */
    says(sentence, at) {
        const error = this.get('error');
        error.hidden = sentence === '';
        error.textContent = sentence;
        this.get('longer').toggleAttribute('aria-invalid', at !== undefined);
        at?.focus();
    }

    async make() {
        const ticked = this.ticked;
        const longer = this.longer();
        if (longer === null) return this.says(`A whole number of pixels from ${LEAST} to ${MOST}.`, this.get('longer'));
        if (ticked.length === 0) return this.says('No view is ticked.');
        this.says('');
        this.stand();
        this.failure = null;
        this.making = new AbortController();
        this.busy(true);
        const made = new Made(
            ticked.map((tick) => tick.dataset.name ?? ''),
            this.together,
        );
        try {
            // The first picture makes the graphics card ready.
            await this.ready(this.making.signal);
            for (const [at, tick] of ticked.entries()) {
                const name = tick.dataset.name ?? '';
                this.get('step').textContent = `${at + 1} of ${ticked.length}: ${name}`;
                await this.one(made, at, Number(tick.value), longer);
            }
        } catch (error) {
            if (!(error instanceof Ended)) return this.says(error instanceof Error ? error.message : '');
            made.isEnded = true;
        } finally {
            this.making = null;
            this.busy(false);
        }
        this.get('done').textContent = made.end();
        return undefined;
    }

    /** @param {Made} made @param {number} at which of those that are wanted @param {number} view @param {number} longer pixels */
    async one(made, at, view, longer) {
        const { signal } = /** @type {AbortController} */ (this.making);
        const clear = /** @type {HTMLInputElement} */ (this.get('clear')).checked;
        const progress = this.get('progress');
        try {
            this.view = view;
            this.failure = null;
            this.mark();
            const said = await this.bring(view);
            if (!said) throw new Ended();
            this.said = said;
            await this.ready(signal);
            const [width, height] = sizeOf(this.aspect, longer);
            const sight = said.camera ?? this.from ?? this.canvas.viewpoint.get();
            const picture = await this.tiles.draw(sight, width, height, clear, signal, (share) => {
                const percent = Math.round((100 * (at + share)) / this.ticked.length);
                progress.setAttribute('aria-valuenow', String(percent));
                /** @type {HTMLElement} */ (progress.firstElementChild).style.width = `${percent}%`;
            });
            if (this.failure !== null) throw new Unmade(sentenceOf(this.failure));
            const file = await new Promise((resolve) => picture.toBlob(resolve, 'image/png'));
            if (!file) throw new Unmade('The browser has no room for a picture of this size.');
            this.get('made').replaceChildren(picture);
            this.get('made').hidden = false;
            await made.add(at, /** @type {Blob} */ (file), this.tiles.coarser > 0, this.canvas.packs.isLacking);
        } catch (error) {
            if (error instanceof Ended) throw error;
            made.lacks(at, error instanceof Error ? error.message : '');
        }
    }

    /** The canvas has all that it is going to show, but for packs. @param {AbortSignal} signal */
    async ready(signal) {
        const { canvas } = this;
        while (!canvas.painter.isOpen || canvas.loading || canvas.untextured || canvas.fetching > 0) {
            await new Promise((resolve) => setTimeout(resolve, 30));
            if (signal.aborted) throw new Ended();
            if (this.failure !== null) throw new Unmade(sentenceOf(this.failure));
            if (this.isUnable) throw new Unmade(UNABLE);
        }
    }

    /** @param {boolean} busy */
    busy(busy) {
        for (const field of this.form.querySelectorAll('input, #pictures-make, .pictures-look')) field.toggleAttribute('disabled', busy);
        this.get('end').hidden = this.get('busy').hidden = !busy;
        this.get(busy ? 'end' : 'make').focus();
        if (busy) this.get('done').textContent = '';
        else this.aim(true);
    }

    listen() {
        this.form.addEventListener('submit', (event) => {
            event.preventDefault();
            if (!this.making) this.make();
        });
        this.get('end').addEventListener('click', () => this.making?.abort());
        this.form.addEventListener('click', (event) => {
            const look = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-view]'));
            if (look) this.look(Number(look.dataset.view));
        });
        this.form.addEventListener('change', (event) => {
            const field = /** @type {HTMLInputElement} */ (event.target);
            if (field.id === 'pictures-all')
                for (const tick of /** @type {NodeListOf<HTMLInputElement>} */ (this.form.querySelectorAll('[name=views]')))
                    tick.checked = field.checked;
            if (field.name === 'of') this.look(this.view);
            this.count();
        });
        this.get('longer').addEventListener('input', () => this.frame());
        this.canvas.element.addEventListener('shelf:failed', (event) => {
            this.failure = /** @type {CustomEvent} */ (event).detail.response?.status ?? 0;
            if (!this.making) this.says(sentenceOf(this.failure ?? 0));
        });
        this.canvas.element.addEventListener('shelf:unable', () => {
            this.isUnable = true;
            this.says(UNABLE);
        });
        new ResizeObserver(() => (this.said?.camera ? this.aim(true) : this.frame())).observe(this.canvas.element);
        addEventListener('beforeunload', (event) => this.making && event.preventDefault());
        document.addEventListener('keydown', (event) => event.key === 'Escape' && this.making?.abort());
    }
}

/** Pictures that were made, on their way into one file. */
class Made {
    /** @param {string[]} names of the views @param {string} together what the zip is called */
    constructor(names, together) {
        this.names = names;
        this.files = fileNames(names, '.png');
        this.bundle = names.length > 1 ? new Bundle() : null;
        this.together = `${fileName(together)} pictures.zip`;
        this.count = 0;
        /** Pictures in which something is coarser, and those in which something is missing. */
        this.coarser = this.unwhole = 0;
        /** @type {Blob | null} */
        this.only = null;
        /** @type {string[]} */
        this.lacking = [];
        this.isEnded = false;
    }

    /**
     * @param {number} at
     * @param {Blob} file
     * @param {boolean} isCoarser whether the budget was too small for it
     * @param {boolean} isLacking whether something of the model could not be fetched
     */
    async add(at, file, isCoarser, isLacking) {
        if (this.bundle) await this.bundle.add(this.files[at], file);
        else this.only = file;
        this.count++;
        if (isCoarser) this.coarser++;
        if (isLacking) this.unwhole++;
    }

    /** @param {number} at @param {string} why */
    lacks(at, why) {
        this.lacking.push(`${this.names[at]}: ${why}`);
    }

    /** Saves what there is. @returns {string} what is to be said of it */
    end() {
        const file = this.only ?? (this.count > 0 ? this.bundle?.end() : null);
        const name = this.bundle ? this.together : this.files[0];
        if (file) save(file, name);
        const pictures = this.count === 1 ? 'One picture' : `${this.count} pictures`;
        return [
            this.isEnded ? 'Stopped.' : '',
            file ? `${this.bundle ? `${pictures} saved in` : 'Saved as'} ${name}.` : 'Nothing was saved.',
            this.remark(this.coarser, 'something is drawn coarser, to keep the budget.'),
            this.remark(this.unwhole, 'parts are coarser or boxes, because they could not be fetched.'),
            this.lacking.length > 0 ? `Not made: ${this.lacking.join(' · ')}` : '',
        ]
            .filter((sentence) => sentence !== '')
            .join(' ');
    }

    /** @param {number} count of pictures that it holds for @param {string} what */
    remark(count, what) {
        if (count === 0) return '';
        return this.bundle ? `In ${count === 1 ? 'one' : count} of them ${what}` : `${what[0].toUpperCase()}${what.slice(1)}`;
    }
}

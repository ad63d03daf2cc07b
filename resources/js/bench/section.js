import { cutsOf } from './cuts.js';
import { SectionHandles } from './sectionhandles.js';

const NONE = () => /** @type {import('./cuts.js').Kept} */ ({ on: false, box: null, planes: [] });

/** Metres above a floor at which plans are cut. */
const PLAN = 1.2;

const MOST_PLANES = 6;

/** @param {number} value metres */
const shown = (value) => String(Math.round(value * 1000) / 1000);

/** The section: its panel, what it tells the canvas, and the handles with which it is dragged. */
export class SectionPanel {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.element = /** @type {HTMLFormElement} */ (document.getElementById('section-panel'));
        this.kept = NONE();
        this.origin = [0, 0, 0];
        this.stamp = '';
        this.dragging = false;
        /** What was changed here and is not yet answered: what the server says meanwhile is older. */
        this.isAhead = false;
        this.sends = 0;
        this.handles = new SectionHandles(this);
        this.element.addEventListener('submit', (event) => event.preventDefault());
        this.element.addEventListener('change', (event) => this.typed(/** @type {HTMLInputElement} */ (event.target)));
        this.element.addEventListener('click', (event) => this.clicked(/** @type {HTMLElement} */ (event.target)));
        this.element.addEventListener('keydown', (event) => {
            if (event.key !== 'Escape') return;
            this.close();
            bench.canvas.surface.focus();
        });
    }

    get isOpen() {
        return !this.element.hidden;
    }

    /** @param {string} said as the server keeps it; empty for none @param {string} seen changes whenever cut faces may have changed */
    read(said, seen) {
        if (!this.dragging && !this.isAhead) {
            const { origin = this.origin, ...kept } = said === '' ? NONE() : JSON.parse(said);
            this.origin = origin;
            this.kept = kept;
            this.show();
        }
        const stamp = this.kept.on ? `${said} ${seen}` : '';
        if (stamp === this.stamp) return;
        this.stamp = stamp;
        this.fill();
    }

    /** All planes as the canvas counts: normal and distance. @returns {number[][]} */
    get cuts() {
        return cutsOf(this.kept, this.origin);
    }

    /** Tells the canvas and the panel what there is. @param {boolean} [moving] whether somebody drags */
    show(moving = false) {
        const cuts = this.cuts;
        const told = JSON.stringify(cuts);
        if (told !== this.told) {
            this.told = told;
            this.bench.canvas.setCuts(cuts, moving);
        }
        this.handles.draw();
        this.write();
    }

    /** Fetches the cut faces of what is shown now. */
    async fill() {
        const { stamp } = this;
        if (stamp === '') return this.bench.canvas.setCaps(new ArrayBuffer(8));
        const faces = await this.bench.server.binary('/section/faces');
        if (!faces || stamp !== this.stamp || this.dragging) return;
        const [bytes, left] = faces;
        this.bench.canvas.setCaps(bytes);
        if (left > 0) this.bench.say(`The faces of ${left.toLocaleString('en')} smaller objects that are cut are not filled.`);
    }

    /** Keeps what there is with the desk. */
    async send() {
        const mine = ++this.sends;
        await this.bench.server.ask('POST', '/section', { section: JSON.stringify(this.kept) });
        if (mine === this.sends) this.isAhead = false;
    }

    /** Keeps it once nothing has changed for a moment. */
    sendSoon() {
        this.isAhead = true;
        this.sends++;
        clearTimeout(this.sending);
        this.sending = window.setTimeout(() => this.send(), 300);
    }

    /** @param {Partial<import('./cuts.js').Kept>} changes */
    change(changes) {
        this.kept = { ...this.kept, on: true, ...changes };
        this.isAhead = true;
        this.show();
        return this.send();
    }

    toggle() {
        if (this.isOpen) return this.close();
        this.element.hidden = false;
        this.write();
        this.handles.draw();
        this.readLevels();
        if (!this.kept.box && this.kept.planes.length === 0) this.aroundAll();
        /** @type {HTMLElement | null} */ (this.element.querySelector('button, input'))?.focus();
    }

    close() {
        this.element.hidden = true;
        this.handles.draw();
    }

    /** Cuts, or cuts no more; what was set stays. */
    turn() {
        if (!this.kept.box && this.kept.planes.length === 0) return this.toggle();
        return this.change({ on: !this.kept.on });
    }

    /** A box around everything that is shown. */
    aroundAll() {
        const { min, max } = this.bench.canvas.viewpoint.all;
        if (min.x > max.x) return undefined;
        const side = (/** @type {number[]} */ corner) => corner.map((value, axis) => Math.round((value + this.origin[axis]) * 1000) / 1000);
        return this.change({ box: [...side(min.toArray()), ...side(max.toArray())] });
    }

    around() {
        const margin = /** @type {HTMLInputElement} */ (this.element.querySelector('[name=margin]')).value;
        return this.bench.server.ask('POST', '/section/around', { margin });
    }

    /** Everything above a height is cut away. */
    plan() {
        const height = Number(/** @type {HTMLInputElement} */ (this.element.querySelector('[name=height]')).value);
        const others = this.kept.planes.filter(([normal]) => Math.abs(normal[2]) < 0.999);
        return this.change({ planes: [...others, [[0, 0, 1], height]] });
    }

    /** A plane through the middle of everything, across an axis or facing the camera. @param {string} across "x", "y", "z" or "camera" */
    add(across) {
        if (this.kept.planes.length >= MOST_PLANES) return this.bench.say(`A section has at most ${MOST_PLANES} planes beside its box.`);
        const { viewpoint } = this.bench.canvas;
        const { min, max } = viewpoint.all;
        const middle = [0, 1, 2].map((axis) => (min.getComponent(axis) + max.getComponent(axis)) / 2 + this.origin[axis]);
        const { eye, target } = viewpoint.get();
        const facing = eye.map((value, axis) => value - target[axis]);
        const length = Math.hypot(...facing) || 1;
        const normal =
            across === 'camera' ? facing.map((value) => value / length) : ['x', 'y', 'z'].map((axis) => (axis === across ? 1 : 0));
        const distance = normal.reduce((sum, value, axis) => sum + value * middle[axis], 0);
        return this.change({ planes: [...this.kept.planes, [normal, distance]] });
    }

    /** @param {HTMLElement} on */
    clicked(on) {
        const button = /** @type {HTMLElement | null} */ (on.closest('[data-section]'));
        if (!button) return;
        const at = Number(button.dataset.at);
        const { planes } = this.kept;
        /** @type {Record<string, () => any>} */
        const acts = {
            close: () => this.close(),
            turn: () => this.turn(),
            around: () => this.around(),
            all: () => this.aroundAll(),
            'no-box': () => this.change({ box: null }),
            plan: () => this.plan(),
            add: () => this.add(button.dataset.across ?? 'x'),
            flip: () =>
                this.change({ planes: planes.map((plane, index) => (index === at ? [plane[0].map((side) => -side), -plane[1]] : plane)) }),
            remove: () => this.change({ planes: planes.filter((_, index) => index !== at) }),
        };
        acts[button.dataset.section ?? '']?.();
    }

    /** A number was typed. @param {HTMLInputElement | HTMLSelectElement} input */
    typed(input) {
        const value = Number(input.value);
        if (input.name === 'level')
            /** @type {HTMLInputElement} */ (this.element.querySelector('[name=height]')).value = shown(value + PLAN);
        if (!Number.isFinite(value) || input.value.trim() === '') return this.write();
        if (input.dataset.side !== undefined && this.kept.box) {
            const box = [...this.kept.box];
            box[Number(input.dataset.side)] = value;
            const sides = [0, 1, 2].map((axis) => [Math.min(box[axis], box[axis + 3]), Math.max(box[axis], box[axis + 3])]);
            return this.change({ box: [...sides.map(([least]) => least), ...sides.map(([, most]) => most)] });
        }
        if (input.dataset.plane !== undefined) {
            const at = Number(input.dataset.plane);
            return this.change({ planes: this.kept.planes.map((plane, index) => (index === at ? [plane[0], value] : plane)) });
        }
        return undefined;
    }

    async readLevels() {
        const select = /** @type {HTMLSelectElement} */ (this.element.querySelector('[name=level]'));
        /** @type {{name: string, floor: number}[]} */
        const levels = (await this.bench.server.json('/section/levels')) ?? [];
        const option = (/** @type {string} */ text, /** @type {string} */ value) =>
            Object.assign(document.createElement('option'), { textContent: text, value });
        select.replaceChildren(
            option('Height', ''),
            ...levels.map(({ name, floor }) => option(`${name}, ${shown(floor)} m`, String(floor))),
        );
        select.hidden = levels.length === 0;
    }

    /** Puts the numbers of the section into the panel, but not into the line that somebody is in. */
    write() {
        if (!this.isOpen) return;
        const { on, box, planes } = this.kept;
        const turn = /** @type {HTMLElement} */ (this.element.querySelector('[data-section=turn]'));
        turn.setAttribute('aria-pressed', String(on));
        turn.textContent = on ? 'On' : 'Off';
        /** @type {HTMLElement} */ (this.element.querySelector('.section-sides')).hidden = box === null;
        for (const input of /** @type {NodeListOf<HTMLInputElement>} */ (this.element.querySelectorAll('[data-side]')))
            if (box && document.activeElement !== input) input.value = shown(box[Number(input.dataset.side)]);
        const list = /** @type {HTMLElement} */ (this.element.querySelector('.section-planes'));
        if (list.childElementCount !== planes.length) list.replaceChildren(...planes.map((_, at) => this.line(at)));
        planes.forEach(([normal, distance], at) => {
            const line = list.children[at];
            const label = /** @type {HTMLElement} */ (line.querySelector('label span'));
            label.textContent = nameOf(normal);
            const input = /** @type {HTMLInputElement} */ (line.querySelector('input'));
            if (document.activeElement !== input) input.value = shown(distance);
        });
    }

    /** @param {number} at of a plane */
    line(at) {
        const template = /** @type {HTMLTemplateElement} */ (document.getElementById('section-plane'));
        const line = /** @type {HTMLElement} */ (/** @type {DocumentFragment} */ (template.content.cloneNode(true)).firstElementChild);
        for (const each of /** @type {NodeListOf<HTMLElement>} */ (line.querySelectorAll('[data-at], input'))) {
            if (each instanceof HTMLInputElement) each.dataset.plane = String(at);
            else each.dataset.at = String(at);
        }
        return line;
    }
}

/** @param {number[]} normal what is on this side of a plane is cut away */
export function nameOf(normal) {
    const axis = normal.findIndex((side) => Math.abs(side) > 0.999);
    if (axis < 0) return 'Beyond';
    return [
        ['East of', 'West of'],
        ['North of', 'South of'],
        ['Above', 'Below'],
    ][axis][normal[axis] > 0 ? 0 : 1];
}

import { spotOf } from '../canvas/spot.js';

/** Corners of a box: for each, which of its sides along x, y and z are the greater ones. */
const CORNERS = [0, 1, 2, 3, 4, 5, 6, 7].map((corner) => [corner & 1, (corner >> 1) & 1, corner >> 2]);

/** Pairs of corners that an edge joins. */
const EDGES = CORNERS.flatMap((_, from) => [1, 2, 4].map((bit) => [from, from | bit]).filter(([a, b]) => a !== b));

const svg = (/** @type {string} */ name, /** @type {Record<string, string | number>} */ attributes) => {
    const element = document.createElementNS('http://www.w3.org/2000/svg', name);
    for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, String(value));
    return element;
};

/** The section in the canvas: its outline, and a handle on each side and plane, which mouse and arrow keys move. */
export class SectionHandles {
    /** @param {import('./section.js').SectionPanel} panel */
    constructor(panel) {
        this.panel = panel;
        this.canvas = panel.bench.canvas;
        this.element = /** @type {SVGElement} */ (/** @type {any} */ (document.getElementById('section-marks')));
        this.outline = svg('path', { class: 'section-outline' });
        this.element.append(this.outline);
        /** @type {SVGElement[]} */
        this.handles = [];
        this.canvas.element.addEventListener('shelf:sight', () => this.draw());
        this.canvas.element.addEventListener('shelf:drawn', (event) => {
            if (/** @type {CustomEvent} */ (event).detail.done) this.draw();
        });
    }

    /** @param {number[]} place as the canvas counts */
    seen(place) {
        return spotOf(this.canvas, place);
    }

    /**
     * What can be moved: where its handle is, along what, what it is called, and what moving it by so many metres does.
     * @returns {{at: number[], along: number[], label: string, value: number, move: (metres: number) => void}[]}
     */
    get movable() {
        const { panel } = this;
        const { box, planes } = panel.kept;
        const { min, max } = this.canvas.viewpoint.all;
        const found = [];
        if (box) {
            const sides = box.map((value, side) => value - panel.origin[side % 3]);
            for (let side = 0; side < 6; side++) {
                const axis = side % 3;
                const at = [0, 1, 2].map((each) => (each === axis ? sides[side] : (sides[each] + sides[each + 3]) / 2));
                found.push({
                    at,
                    along: [0, 1, 2].map((each) => (each === axis ? 1 : 0)),
                    label: `${['Least', 'Greatest'][Math.floor(side / 3)]} ${'xyz'[axis]} of the section box`,
                    value: box[side],
                    move: (/** @type {number} */ metres) => {
                        const next = [...(panel.kept.box ?? box)];
                        // A box keeps its sides in order.
                        next[side] = side < 3 ? Math.min(next[side] + metres, next[side + 3]) : Math.max(next[side] + metres, next[axis]);
                        panel.kept = { ...panel.kept, box: next };
                    },
                });
            }
        }
        planes.forEach(([normal, distance], index) => {
            const middle = [0, 1, 2].map((axis) => (min.getComponent(axis) + max.getComponent(axis)) / 2);
            const off = distance - normal.reduce((sum, value, axis) => sum + value * (middle[axis] + panel.origin[axis]), 0);
            found.push({
                at: middle.map((value, axis) => value + normal[axis] * off),
                along: normal,
                label: `Plane ${index + 1}`,
                value: distance,
                move: (/** @type {number} */ metres) => {
                    const next = panel.kept.planes.map((plane, at) => (at === index ? [plane[0], plane[1] + metres] : plane));
                    panel.kept = { ...panel.kept, planes: /** @type {[number[], number][]} */ (next) };
                },
            });
        });
        return found;
    }

    draw() {
        const { panel } = this;
        const isSeen = panel.isOpen && panel.kept.on;
        const movable = isSeen ? this.movable : [];
        this.canvas.viewpoint.camera.updateMatrixWorld();
        this.outline.setAttribute('d', isSeen && panel.kept.box ? this.boxPath(panel.kept.box) : '');
        while (this.handles.length > movable.length) this.handles.pop()?.remove();
        while (this.handles.length < movable.length) this.handles.push(this.handle(this.handles.length));
        movable.forEach(({ at, along, label, value }, index) => {
            const handle = this.handles[index];
            const place = this.seen(at);
            const tip = this.seen(at.map((side, axis) => side + along[axis] * 0.1));
            handle.style.display = place && tip ? '' : 'none';
            if (!place || !tip) return;
            const way = (Math.atan2(tip[1] - place[1], tip[0] - place[0]) * 180) / Math.PI;
            handle.setAttribute('transform', `translate(${place[0].toFixed(1)} ${place[1].toFixed(1)}) rotate(${way.toFixed(1)})`);
            handle.setAttribute('aria-label', `${label}, metres`);
            handle.setAttribute('aria-valuenow', value.toFixed(2));
        });
    }

    /** @param {number[]} box */
    boxPath(box) {
        const { origin } = this.panel;
        const corners = CORNERS.map((corner) => this.seen(corner.map((greater, axis) => box[axis + 3 * greater] - origin[axis])));
        return EDGES.map(([from, to]) => {
            const [a, b] = [corners[from], corners[to]];
            return a && b ? `M${a[0].toFixed(1)} ${a[1].toFixed(1)}L${b[0].toFixed(1)} ${b[1].toFixed(1)}` : '';
        }).join('');
    }

    /** @param {number} index of what it moves */
    handle(index) {
        const handle = svg('g', { class: 'section-handle', tabindex: 0, role: 'slider' });
        handle.append(
            svg('path', { d: 'M-17 0L17 0', class: 'ground' }),
            svg('path', { d: 'M-17 0L17 0M12 -4L17 0L12 4M-12 -4L-17 0L-12 4' }),
            svg('circle', { r: 6 }),
        );
        handle.addEventListener('pointerdown', (event) => this.drag(index, handle, event));
        handle.addEventListener('keydown', (event) => {
            const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[event.key];
            if (!way) return;
            event.preventDefault();
            event.stopPropagation();
            this.movable[index]?.move(way * (event.shiftKey ? 1 : 0.1));
            this.panel.sendSoon();
            this.panel.show();
        });
        this.element.append(handle);
        return handle;
    }

    /** @param {number} index @param {SVGElement} handle @param {PointerEvent} event */
    drag(index, handle, event) {
        if (event.button !== 0) return;
        event.preventDefault();
        event.stopPropagation();
        handle.setPointerCapture(event.pointerId);
        handle.focus();
        let [x, y] = [event.clientX, event.clientY];
        const { panel } = this;
        panel.dragging = true;
        const move = (/** @type {PointerEvent} */ to) => {
            const what = this.movable[index];
            const [place, tip] = [this.seen(what.at), this.seen(what.at.map((side, axis) => side + what.along[axis]))];
            if (!place || !tip) return;
            const way = [tip[0] - place[0], tip[1] - place[1]];
            // Metres per pixel along the handle; one that points at the eye moves nothing.
            const square = Math.max(1, way[0] ** 2 + way[1] ** 2);
            what.move(((to.clientX - x) * way[0] + (to.clientY - y) * way[1]) / square);
            [x, y] = [to.clientX, to.clientY];
            panel.show(true);
        };
        const end = () => {
            handle.removeEventListener('pointermove', move);
            panel.dragging = false;
            panel.isAhead = true;
            panel.show();
            panel.send();
        };
        handle.addEventListener('pointermove', move);
        handle.addEventListener('pointerup', end, { once: true });
        handle.addEventListener('pointercancel', end, { once: true });
    }
}

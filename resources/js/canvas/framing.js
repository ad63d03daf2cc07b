import { Box3, Vector3 } from 'three';

/** What the camera is made to look at, beside whatever floats over the canvas. */
export class Framing {
    /**
     * @param {HTMLElement} element what the canvas and all that floats over it lie in
     * @param {HTMLCanvasElement} surface
     * @param {import('./camera.js').Viewpoint} viewpoint
     * @param {import('./placements.js').Placements} placements
     */
    constructor(element, surface, viewpoint, placements) {
        this.element = element;
        this.surface = surface;
        this.viewpoint = viewpoint;
        this.placements = placements;
        /** Whether the camera has a place of its own by now. */
        this.framed = false;
    }

    /** Tells the camera what floats over the canvas at its sides, so that nothing is framed behind it. */
    lookAround() {
        const all = this.surface.getBoundingClientRect();
        const place = (/** @type {string} */ selector) => {
            const box = this.element.querySelector(selector)?.getBoundingClientRect();
            return box && box.width > 0 ? box : null;
        };
        const part = (/** @type {number} */ covered, /** @type {number} */ of) => Math.min(0.3, Math.max(0.01, covered / of));
        const bottom = Math.min(...['.parked', '.card'].map((selector) => place(selector)?.top ?? all.bottom));
        const right = Math.min(...['.tools', '.legend'].map((selector) => place(selector)?.left ?? all.right));
        this.viewpoint.free = {
            left: 0.01,
            top: part((place('.region-tools')?.bottom ?? all.top) - all.top, all.height),
            right: part(all.right - right, all.width),
            bottom: part(all.bottom - bottom, all.height),
        };
    }

    /** @param {boolean} [atOnce] */
    all(atOnce) {
        if (this.viewpoint.all.isEmpty()) return;
        this.framed = true;
        this.lookAround();
        this.viewpoint.fit(this.viewpoint.all, atOnce);
    }

    /** @param {number[] | null} box least and greatest x, y, z in metres */
    box(box) {
        if (!box) return;
        this.lookAround();
        this.viewpoint.fit(this.roomy(box, 0));
    }

    /** @param {number} number of an object */
    object(number) {
        const box = new Box3().union(this.placements.bounds((index) => this.placements.object[index] === number));
        if (box.isEmpty()) return;
        this.lookAround();
        this.viewpoint.fit(box);
    }

    /**
     * A box and some of its surroundings.
     * @param {number[]} box
     * @param {number} around how much of them to show at most, in the box's own sizes
     */
    roomy(box, around) {
        const framed = new Box3().setFromArray(box);
        // What is small shows more of what is around it; a light or a camera is a point and gets a little room.
        const size = Math.max(...framed.getSize(new Vector3()).toArray());
        const whole = this.viewpoint.all.isEmpty() ? size : this.viewpoint.all.getSize(new Vector3()).length();
        const room = Math.min(size * around, Math.max(size * 0.25, whole * 0.06));
        return framed.expandByScalar(Math.max(room, size < 0.5 ? 0.75 : 0));
    }
}

import { Vector4 } from 'three';

/** The corners of a box by bits: 1 for greatest x, 2 for y, 4 for z. */
const EDGES = [
    [0, 1],
    [2, 3],
    [4, 5],
    [6, 7],
    [0, 2],
    [1, 3],
    [4, 6],
    [5, 7],
    [0, 4],
    [1, 5],
    [2, 6],
    [3, 7],
];
/** Clip coordinates nearer than this are behind the camera. */
const NEAR = 1e-3;

/** Marks the hit that the camera was led to: a frame around its bounding box, drawn over whatever stands in front of it. */
export class Marker {
    /** @param {import('../canvas/canvas.js').Canvas} canvas @param {SVGElement} element */
    constructor(canvas, element) {
        this.canvas = canvas;
        this.element = element;
        this.path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
        this.ground = /** @type {SVGPathElement} */ (this.path.cloneNode());
        this.ground.classList.add('ground');
        /** @type {number[] | null} */
        this.box = null;
        this.element.append(this.ground, this.path);
        canvas.element.addEventListener('shelf:sight', () => this.draw());
    }

    /** @param {number[] | null} box least and greatest x, y, z in metres */
    mark(box) {
        this.box = box;
        this.draw();
    }

    draw() {
        const { element, viewpoint } = this.canvas;
        const drawn = this.box ? outline(this.box, viewpoint.camera, element.clientWidth, element.clientHeight) : '';
        for (const path of [this.ground, this.path]) path.setAttribute('d', drawn);
    }
}

/**
 * The edges of a box as the camera sees them, as an SVG path in pixels; what is behind the camera is cut off.
 * @param {number[]} box least and greatest x, y, z in metres
 * @param {import('three').Camera} camera
 * @param {number} width
 * @param {number} height
 */
export function outline(box, camera, width, height) {
    camera.updateMatrixWorld();
    const corners = Array.from({ length: 8 }, (_, corner) =>
        new Vector4(box[corner & 1 ? 3 : 0], box[corner & 2 ? 4 : 1], box[corner & 4 ? 5 : 2], 1)
            .applyMatrix4(camera.matrixWorldInverse)
            .applyMatrix4(camera.projectionMatrix),
    );
    const place = (/** @type {Vector4} */ { x, y, w }) =>
        `${(((x / w + 1) / 2) * width).toFixed(1)} ${(((1 - y / w) / 2) * height).toFixed(1)}`;
    return EDGES.map(([a, b]) => {
        let [from, to] = [corners[a], corners[b]];
        if (from.w < NEAR && to.w < NEAR) return '';
        if (from.w < NEAR) [from, to] = [to, from];
        if (to.w < NEAR) to = from.clone().lerp(to, (from.w - NEAR) / (from.w - to.w));
        return `M${place(from)}L${place(to)}`;
    }).join('');
}

import { Vector4 } from 'three';

/** Picks of more objects than this show themselves. */
const MOST_PICKED = 2000;
/** Marks at most. */
const MOST = 300;
/** Something picked that shows in fewer pixels than this has a mark. */
const FEW = 8;
/** Pixels across, below which something is too small to be seen. */
const SMALL = 5;
/** Marks that would stand closer than this, pixels, are one. */
const APART = 9;

/**
 * Where something is in the picture.
 * @param {ArrayLike<number>} sphere centre and radius, metres
 * @param {number} index of the placement
 * @param {import('three').Camera} camera
 * @param {number} width pixels
 * @param {number} height
 * @returns {{x: number, y: number, across: number} | null} null behind the camera or beside the picture
 */
export function placeOf(sphere, index, camera, width, height) {
    const [x, y, z, radius] = [0, 1, 2, 3].map((at) => sphere[index * 4 + at]);
    const point = new Vector4(x, y, z, 1).applyMatrix4(camera.matrixWorldInverse).applyMatrix4(camera.projectionMatrix);
    if (point.w <= 1e-6) return null;
    const place = { x: ((point.x / point.w + 1) / 2) * width, y: ((1 - point.y / point.w) / 2) * height };
    if (place.x < 0 || place.y < 0 || place.x > width || place.y > height) return null;
    return { ...place, across: (radius * camera.projectionMatrix.elements[5] * height) / point.w };
}

/**
 * How many pixels show each picked object.
 * @param {Uint8Array[]} pictures four bytes a pixel: object number, with the highest bit of the third for glass
 * @param {ArrayLike<number>} pick 1 by object number
 * @param {number} [each] pixels of the page that each of the pictures' is
 * @returns {Map<number, number>}
 */
export function seenOf(pictures, pick, each = 1) {
    /** @type {Map<number, number>} */
    const seen = new Map();
    for (const bytes of pictures)
        for (let at = 0; at < bytes.length; at += 4) {
            const number = bytes[at] | (bytes[at + 1] << 8) | ((bytes[at + 2] & 127) << 16);
            if (number > 0 && pick[number] === 1) seen.set(number, (seen.get(number) ?? 0) + each);
        }
    return seen;
}

/**
 * Leaves out places beside one that is there already.
 * @param {{x: number, y: number}[]} places
 */
export function apart(places) {
    /** @type {{x: number, y: number}[]} */
    const kept = [];
    for (const place of places)
        if (kept.every(({ x, y }) => Math.max(Math.abs(x - place.x), Math.abs(y - place.y)) >= APART)) kept.push(place);
    return kept;
}

/** A mark on everything picked that is too small to be seen, or behind something. */
export class PickMarks {
    /** @param {import('./canvas.js').Canvas} canvas @param {SVGElement} element */
    constructor(canvas, element) {
        this.canvas = canvas;
        this.element = element;
        /** @type {number[]} placements of what is picked and hardly seen */
        this.hardly = [];
        canvas.element.addEventListener('shelf:sight', () => this.draw());
        canvas.element.addEventListener('shelf:picked', () => this.look());
        canvas.element.addEventListener('shelf:drawn', (event) => {
            if (/** @type {CustomEvent} */ (event).detail.done) this.look();
        });
    }

    /** Finds what is hardly seen, a moment after the picture is whole. */
    look() {
        clearTimeout(this.looking);
        this.looking = setTimeout(() => {
            const { canvas } = this;
            const picked = canvas.pickedPlacements(MOST_PICKED);
            const seen = picked.length === 0 ? null : canvas.seen();
            this.hardly =
                seen === null
                    ? []
                    : picked
                          .filter((index) => (seen.get(canvas.placements.object[index]) ?? 0) < FEW || this.isSmall(index))
                          .slice(0, MOST);
            this.draw();
        }, 120);
    }

    /** @param {number} index of a placement */
    isSmall(index) {
        const place = this.place(index);
        return place !== null && place.across < SMALL;
    }

    /** @param {number} index of a placement */
    place(index) {
        const { placements, viewpoint, element } = this.canvas;
        return placeOf(placements.sphere, index, viewpoint.camera, element.clientWidth, element.clientHeight);
    }

    draw() {
        this.canvas.viewpoint.camera.updateMatrixWorld();
        const places = this.hardly.map((index) => this.place(index)).filter((place) => place !== null);
        const rings = apart(places).flatMap((place) => {
            const ring = document.createElementNS('http://www.w3.org/2000/svg', 'circle');
            ring.setAttribute('cx', place.x.toFixed(1));
            ring.setAttribute('cy', place.y.toFixed(1));
            ring.setAttribute('r', '4.5');
            const ground = /** @type {SVGElement} */ (ring.cloneNode());
            ground.classList.add('ground');
            return [ground, ring];
        });
        this.element.replaceChildren(...rings);
    }
}

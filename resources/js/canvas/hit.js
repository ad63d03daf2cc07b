import { Matrix4, Ray, Vector3 } from 'three';

/** What a whole number of a quantized vertex stands for at most. */
const FULL = 32767;

/** Where in a pixel a click is tried: at its middle first. The picture is drawn there, or, at a rim, close by. */
const TRIED = [
    [0.5, 0.5],
    [0.1, 0.1],
    [0.9, 0.1],
    [0.1, 0.9],
    [0.9, 0.9],
];

/**
 * The place of an object that a pixel shows.
 * @param {import('./canvas.js').Canvas} canvas
 * @param {number} object that the pixel shows
 * @param {number} x pixels from the left
 * @param {number} y pixels from the top
 * @returns {number[] | null} metres as the canvas counts; null where all of the pixel is past it
 */
export function placeUnder(canvas, object, x, y) {
    for (const [right, down] of TRIED) {
        const place = hitOf(canvas, object, Math.floor(x) + right, Math.floor(y) + down);
        if (place) return place;
    }
    return null;
}

/**
 * Where a click on an object meets it: on the nearest of its triangles as they are drawn, or on its box where none is here.
 * @param {import('./canvas.js').Canvas} canvas
 * @param {number} object
 * @param {number} x pixels from the left
 * @param {number} y pixels from the top
 * @returns {number[] | null} metres as the canvas counts; null where the click goes past it
 */
export function hitOf({ viewpoint: { camera }, element, placements, painter }, object, x, y) {
    camera.updateMatrixWorld();
    const [right, up] = [(x / element.clientWidth) * 2 - 1, 1 - (y / element.clientHeight) * 2];
    const from = new Vector3(right, up, -1).unproject(camera);
    const ray = new Ray(from, new Vector3(right, up, 1).unproject(camera).sub(from));
    const isCut = (/** @type {number} */ far) => {
        const at = ray.at(far, new Vector3());
        return painter.look.cuts.some(([a, b, c, distance]) => a * at.x + b * at.y + c * at.z > distance);
    };
    let nearest = Infinity;
    for (let index = 0; index < placements.count; index++) {
        if (placements.object[index] !== object) continue;
        const facts = placements.facts[placements.mesh[index]];
        const inverse = inverseOf(placements, index);
        // How far along is the same in the mesh's own space, for as long as the way is not made one long.
        const own = ray.origin.clone().applyMatrix4(inverse);
        const way = wayIn(inverse, ray.direction);
        const pieces = (facts.levels[painter.detail.level[index]]?.pieces ?? []).filter(({ page }) => page.kind === 'triangles');
        const found = pieces.length > 0 ? meets(own, way, pieces, facts.scale) : meetsBox(own, way, facts.half);
        for (const far of found) if (far >= 0 && far < nearest && !isCut(far)) nearest = far;
    }
    return nearest === Infinity ? null : ray.at(nearest, new Vector3()).toArray();
}

/** @param {import('./placements.js').Placements} placements @param {number} index of a placement @returns {Matrix4} */
function inverseOf(placements, index) {
    const rows = /** @type {Float32Array} */ (placements.place.image.data).subarray(index * 16, index * 16 + 12);
    return new Matrix4()
        .fromArray([...rows, 0, 0, 0, 1])
        .transpose()
        .invert();
}

/** @param {Matrix4} inverse @param {Vector3} way @returns {Vector3} not made one long */
function wayIn({ elements: m }, { x, y, z }) {
    return new Vector3(m[0] * x + m[4] * y + m[8] * z, m[1] * x + m[5] * y + m[9] * z, m[2] * x + m[6] * y + m[10] * z);
}

/**
 * @param {Vector3} from
 * @param {Vector3} way
 * @param {import('./pages.js').Piece[]} pieces
 * @param {number[]} scale of quantized vertices
 * @returns {number[]} how far along the triangles are met, from either side
 */
function meets(from, way, pieces, scale) {
    const found = [];
    const [a, b, c] = [new Vector3(), new Vector3(), new Vector3()];
    const [ab, ac, across, off, turned] = Array.from({ length: 5 }, () => new Vector3());
    for (const { page, start, count } of pieces) {
        const { array: vertices } = page.geometry.getAttribute('position');
        const indices = /** @type {import('three').BufferAttribute} */ (page.geometry.index).array;
        const corner = (/** @type {Vector3} */ into, /** @type {number} */ at) =>
            into.set(
                (vertices[indices[at] * 4] / FULL) * scale[0],
                (vertices[indices[at] * 4 + 1] / FULL) * scale[1],
                (vertices[indices[at] * 4 + 2] / FULL) * scale[2],
            );
        for (let at = start; at < start + count; at += 3) {
            corner(a, at);
            ab.subVectors(corner(b, at + 1), a);
            ac.subVectors(corner(c, at + 2), a);
            across.crossVectors(way, ac);
            const slope = ab.dot(across);
            if (slope === 0) continue;
            off.subVectors(from, a);
            const u = off.dot(across) / slope;
            turned.crossVectors(off, ab);
            const v = way.dot(turned) / slope;
            if (u >= 0 && v >= 0 && u + v <= 1) found.push(ac.dot(turned) / slope);
        }
    }
    return found;
}

/**
 * @param {Vector3} from
 * @param {Vector3} way
 * @param {number[]} half sizes of the box around zero
 * @returns {number[]} where it is entered
 */
function meetsBox(from, way, half) {
    let [enters, leaves] = [-Infinity, Infinity];
    for (const axis of /** @type {const} */ ([0, 1, 2])) {
        const [at, pace] = [from.getComponent(axis), way.getComponent(axis)];
        if (pace === 0 && Math.abs(at) > half[axis]) return [];
        if (pace === 0) continue;
        const [one, other] = [(-half[axis] - at) / pace, (half[axis] - at) / pace];
        enters = Math.max(enters, Math.min(one, other));
        leaves = Math.min(leaves, Math.max(one, other));
    }
    return enters <= leaves ? [Math.max(0, enters)] : [];
}

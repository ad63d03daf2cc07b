import { Matrix4, Vector3 } from 'three';
import { packed, Raster } from './raster.js';

/** Milliseconds that one draft takes at most, and boxes that it has however long they take. */
const MOST_MS = 60;
const LEAST = 200;

/** How far in front of the nearest plane a corner must be, before the division. */
const NEAREST = 1e-9;

/** The corners of each face of a box, one bit for each axis: along x, y and z, first the lower side of each. */
const FACES = [
    [0, 2, 6, 4],
    [1, 3, 7, 5],
    [0, 1, 5, 4],
    [2, 3, 7, 6],
    [0, 1, 3, 2],
    [4, 5, 7, 6],
];

/**
 * What is seen until the graphics card is ready, which may take a browser seconds: the biggest objects as boxes, drawn without it, where
 * they stand and in their colours. It lies over the canvas and lets the pointer through.
 */
export class Draft {
    /** @param {HTMLCanvasElement} surface */
    constructor(surface) {
        this.board = document.createElement('canvas');
        this.board.className = 'draft';
        this.board.setAttribute('aria-hidden', 'true');
        surface.after(this.board);
        // In the page's own memory: the card is what is not ready.
        this.pen = this.board.getContext('2d', { willReadFrequently: true });
        this.raster = new Raster(1, 1);
        this.boxes = new Boxes();
    }

    /** @param {number} width @param {number} height */
    resize(width, height) {
        this.board.width = width;
        this.board.height = height;
        this.raster = new Raster(width, height);
    }

    /**
     * @param {import('./placements.js').Placements} placements
     * @param {import('./look.js').Look} look
     * @param {import('./order.js').Order} order
     * @param {any} camera
     * @returns {number} boxes that were drawn
     */
    draw(placements, look, order, camera) {
        const { raster } = this;
        const drawn = this.boxes.draw(raster, placements, look, order, camera);
        const bytes = new Uint8ClampedArray(/** @type {ArrayBuffer} */ (raster.pixels.buffer));
        this.pen?.putImageData(new ImageData(bytes, raster.width, raster.height), 0, 0);
        return drawn;
    }

    /** @param {number} x @param {number} y @returns {number} object number, 0 for none */
    numberAt(x, y) {
        const { width, height, numbers } = this.raster;
        return x < 0 || y < 0 || x >= width || y >= height ? 0 : numbers[Math.floor(y) * width + Math.floor(x)];
    }

    end() {
        this.board.remove();
    }
}

/**
 * Boxes around objects, seen through a camera, as the shaders would light them. Thousands are drawn in a few hundredths of a second, so
 * nothing is allocated on the way.
 */
export class Boxes {
    constructor() {
        this.matrix = new Matrix4();
        this.eye = new Vector3();
        /** Of each corner: x, y, z, w before the division, then where it is in the picture and its depth. */
        this.seen = new Float64Array(8 * 7);
        /** A normal along each axis, outwards on the upper side. */
        this.normals = new Float64Array(9);
        /** Half an edge along each axis. */
        this.edges = new Float64Array(9);
        this.colour = new Float64Array(3);
        this.shape = new Float64Array(3 * 6);
    }

    /**
     * @param {Raster} raster
     * @param {import('./placements.js').Placements} placements
     * @param {import('./look.js').Look} look
     * @param {import('./order.js').Order} order
     * @param {any} camera
     * @returns {number} boxes that were drawn
     */
    draw(raster, placements, look, order, camera) {
        const until = performance.now() + MOST_MS;
        raster.clear(look.backdrop);
        order.sort(placements, look.states, camera, raster.height, look.cuts);
        this.matrix.multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse);
        camera.getWorldPosition(this.eye);
        // In parallel everything is seen from the same side.
        this.way = camera.isOrthographicCamera ? camera.getWorldDirection(new Vector3()) : null;
        const light = new Light(look);
        let drawn = 0;
        for (let next = 0; next < order.count; next++) {
            if (drawn > LEAST && (next & 63) === 0 && performance.now() > until) break;
            const index = order.list[next];
            const rung = look.states[placements.object[index]] & 15;
            // What is seen through hides nothing.
            if (rung === 0 || rung === 2) continue;
            const facts = placements.facts[placements.mesh[index]];
            light.colour(this.colour, facts.colour, placements.object[index], rung === 1);
            this.box(
                raster,
                /** @type {Float32Array} */ (placements.place.image.data),
                index * 16,
                facts.half,
                light,
                placements.object[index],
            );
            drawn++;
        }
        return drawn;
    }

    /**
     * @param {Raster} raster
     * @param {Float32Array} m transforms, three rows of four each
     * @param {number} at where this one begins
     * @param {number[]} half half the sides of the box
     * @param {Light} light
     * @param {number} number of the object
     */
    box(raster, m, at, half, light, number) {
        const { edges, normals, eye, way } = this;
        for (let axis = 0; axis < 3; axis++) for (let row = 0; row < 3; row++) edges[axis * 3 + row] = m[at + row * 4 + axis] * half[axis];
        const before = this.corners(m[at + 3], m[at + 7], m[at + 11], raster.width, raster.height);
        /** Faces that face the eye, a bit each. */
        let fronts = 0;
        for (let axis = 0; axis < 3; axis++) {
            const [u, v, n] = [((axis + 1) % 3) * 3, ((axis + 2) % 3) * 3, axis * 3];
            let x = edges[u + 1] * edges[v + 2] - edges[u + 2] * edges[v + 1];
            let y = edges[u + 2] * edges[v] - edges[u] * edges[v + 2];
            let z = edges[u] * edges[v + 1] - edges[u + 1] * edges[v];
            // Outwards, also of what is mirrored.
            const length = (Math.sqrt(x * x + y * y + z * z) || 1) * (x * edges[n] + y * edges[n + 1] + z * edges[n + 2] < 0 ? -1 : 1);
            normals[n] = x /= length;
            normals[n + 1] = y /= length;
            normals[n + 2] = z /= length;
            const reach = x * edges[n] + y * edges[n + 1] + z * edges[n + 2];
            const ahead = way
                ? x * way.x + y * way.y + z * way.z
                : x * (m[at + 3] - eye.x) + y * (m[at + 7] - eye.y) + z * (m[at + 11] - eye.z);
            // The lower side faces the other way.
            for (let side = 0; side < 2; side++) {
                const front = way ? (side === 1 ? ahead < 0 : ahead > 0) : side === 1 ? ahead + reach < 0 : ahead - reach > 0;
                if (front) fronts |= 1 << (axis * 2 + side);
            }
        }
        for (let face = 0; face < 6; face++) {
            const front = ((fronts >> face) & 1) === 1;
            // From within a box, or where the nearest plane cuts it open, its faces are seen from behind.
            if (!front && before && fronts > 0) continue;
            this.face(
                raster,
                face,
                before,
                light.on(this.colour, normals, (face >> 1) * 3, (face & 1) === (front ? 1 : 0) ? 1 : -1),
                number,
            );
        }
    }

    /**
     * Puts the corners of a box into the picture.
     * @param {number} x its middle
     * @param {number} y
     * @param {number} z
     * @param {number} width pixels
     * @param {number} height pixels
     * @returns {boolean} whether all are in front
     */
    corners(x, y, z, width, height) {
        const { edges, seen } = this;
        const e = this.matrix.elements;
        let before = true;
        for (let corner = 0; corner < 8; corner++) {
            const [a, b, c] = [corner & 1 ? 1 : -1, corner & 2 ? 1 : -1, corner & 4 ? 1 : -1];
            const px = x + a * edges[0] + b * edges[3] + c * edges[6];
            const py = y + a * edges[1] + b * edges[4] + c * edges[7];
            const pz = z + a * edges[2] + b * edges[5] + c * edges[8];
            const to = corner * 7;
            for (let row = 0; row < 4; row++) seen[to + row] = e[row] * px + e[row + 4] * py + e[row + 8] * pz + e[row + 12];
            const w = seen[to + 3];
            if (seen[to + 2] + w <= NEAREST) before = false;
            seen[to + 4] = (seen[to] / w + 1) * 0.5 * width;
            seen[to + 5] = (1 - seen[to + 1] / w) * 0.5 * height;
            seen[to + 6] = seen[to + 2] / w;
        }
        return before;
    }

    /**
     * @param {Raster} raster
     * @param {number} face
     * @param {boolean} before whether all of the box is in front
     * @param {number} colour
     * @param {number} number of the object
     */
    face(raster, face, before, colour, number) {
        const { seen, shape } = this;
        const corners = FACES[face];
        if (before) {
            for (let at = 0; at < 4; at++)
                for (let value = 0; value < 3; value++) shape[at * 3 + value] = seen[corners[at] * 7 + 4 + value];
            return raster.fill(shape, 12, colour, number);
        }
        // What is behind the nearest plane is cut off.
        let count = 0;
        const put = (/** @type {number[]} */ [x, y, z, w]) => {
            shape[count++] = (x / w + 1) * 0.5 * raster.width;
            shape[count++] = (1 - y / w) * 0.5 * raster.height;
            shape[count++] = z / w;
        };
        for (let at = 0; at < 4; at++) {
            const from = [...seen.subarray(corners[(at + 3) & 3] * 7, corners[(at + 3) & 3] * 7 + 4)];
            const to = [...seen.subarray(corners[at] * 7, corners[at] * 7 + 4)];
            const [a, b] = [from[2] + from[3] - NEAREST, to[2] + to[3] - NEAREST];
            if (a > 0 !== b > 0) put(from.map((value, row) => value + ((to[row] - value) * a) / (a - b)));
            if (b > 0) put(to);
        }
        if (count > 6) raster.fill(shape, count, colour, number);
    }
}

/** How the shaders light what they draw, and which colours they give. */
export class Light {
    /** @param {import('./look.js').Look} look */
    constructor({ shared, screen }) {
        const list = (/** @type {any} */ { x, y, z }) => [x, y, z];
        this.sky = list(shared.skyLight.value);
        this.ground = list(shared.groundLight.value);
        this.sun = list(shared.sunLight.value);
        this.way = list(shared.sunWay.value);
        this.fill = shared.boxFill.value.toArray();
        this.grape = screen.grape.value.toArray();
        this.tints = /** @type {Uint8Array} */ (shared.tints.value.image.data);
        /** @type {Uint8Array} */
        this.picks = screen.picks.value.image.data;
        this.lit = [0, 0, 0];
    }

    /**
     * @param {Float64Array} to red, green, blue, squared
     * @param {number} own colour of the mesh
     * @param {number} number of the object
     * @param {boolean} asBox whether a box is what it is to be
     */
    colour(to, own, number, asBox) {
        const tint = number * 4 + 3 < this.tints.length ? this.tints[number * 4 + 3] / 255 : 0;
        const picked = number < this.picks.length && this.picks[number] > 0;
        for (let channel = 0; channel < 3; channel++) {
            const plain = ((own >>> (channel * 8)) & 255) / 255;
            const shown = plain + (tint > 0 ? (this.tints[number * 4 + channel] / 255 - plain) * tint : 0);
            to[channel] = picked ? this.grape[channel] ** 2 : shown * shown;
            if (asBox) to[channel] += (this.fill[channel] ** 2 - to[channel]) * 0.72;
        }
    }

    /**
     * @param {Float64Array} colour squared
     * @param {Float64Array} normals
     * @param {number} n where the normal begins
     * @param {number} way 1, or -1 for the opposite normal
     */
    on(colour, normals, n, way) {
        const up = normals[n + 2] * way * 0.5 + 0.5;
        const sun = Math.max(0, (normals[n] * this.way[0] + normals[n + 1] * this.way[1] + normals[n + 2] * this.way[2]) * way);
        for (let channel = 0; channel < 3; channel++) {
            const ground = this.ground[channel];
            this.lit[channel] = Math.sqrt(colour[channel] * (ground + (this.sky[channel] - ground) * up + this.sun[channel] * sun));
        }
        return packed(this.lit[0], this.lit[1], this.lit[2]);
    }
}

import { Box3, DataTexture, FloatType, NearestFilter, RGBAFormat, Vector3 } from 'three';

export const RECORD = 56;
export const MESH = 40;
const WIDTH = 1024;

/**
 * Everything that the server said may be drawn: where each object stands and which mesh it shows, in flat arrays and in the
 * textures that the shaders read.
 *
 * A placement takes four texels: the three rows of its transform, then object number, mesh slot, 0, 0.
 * A mesh takes three texels: the scale of its quantized vertices, then half the size of its box, then its colour. The middle of its box is
 * its zero.
 */
export class Placements {
    constructor() {
        this.count = 0;
        this.capacity = 0;
        /** @type {Uint32Array} object number by placement */
        this.object = new Uint32Array(0);
        /** @type {Uint32Array} mesh slot by placement */
        this.mesh = new Uint32Array(0);
        /** @type {Float32Array} centre and radius by placement */
        this.sphere = new Float32Array(0);
        this.place = dataTexture(WIDTH, 4);
        this.meshes = dataTexture(WIDTH, 4);
        /** @type {Map<number, number>} slot by mesh number */
        this.slots = new Map();
        /** @type {MeshFacts[]} by slot */
        this.facts = [];
        /** @type {Map<number, number[]>} placements by object number */
        this.byObject = new Map();
        this.grow(4096);
    }

    /** @param {number} wanted placements */
    grow(wanted) {
        if (wanted <= this.capacity) return;
        this.capacity = Math.max(wanted, this.capacity * 2);
        this.object = extended(this.object, new Uint32Array(this.capacity));
        this.mesh = extended(this.mesh, new Uint32Array(this.capacity));
        this.sphere = extended(this.sphere, new Float32Array(this.capacity * 4));
        this.place = grown(this.place, this.capacity * 4);
    }

    /**
     * @param {ArrayBuffer} buffer parts left, two counts, mesh rows, records: little-endian, as the server packs them
     * @returns {number} parts that the whole has
     */
    read(buffer) {
        const head = new DataView(buffer);
        const meshes = head.getUint32(4, true);
        const records = head.getUint32(8, true);
        for (let index = 0; index < meshes; index++) this.readMesh(new DataView(buffer, 12 + index * MESH, MESH));
        const start = 12 + meshes * MESH;
        this.grow(this.count + records);
        const numbers = new Uint32Array(buffer.slice(start));
        const floats = new Float32Array(numbers.buffer);
        const known = new Set();
        for (let index = 0; index < records; index++) {
            const at = index * 14;
            const object = numbers[at];
            // An object comes whole: the first of its records tells whether it is here already.
            if (this.byObject.has(object) && !known.has(object)) continue;
            const slot = this.slots.get(numbers[at + 1]);
            if (slot === undefined) continue;
            known.add(object);
            this.add(object, slot, floats, at + 2);
        }
        this.place.needsUpdate = true;
        this.meshes.needsUpdate = true;
        return head.getUint32(0, true);
    }

    /** @param {DataView} row */
    readMesh(row) {
        const number = row.getUint32(0, true);
        if (this.slots.has(number)) return;
        const b = [4, 5, 6, 7, 8, 9].map((at) => row.getFloat32(at * 4, true));
        const slot = this.facts.length;
        this.slots.set(number, slot);
        const half = [b[3], b[4], b[5]];
        const colour = row.getUint32(12, true);
        this.facts.push({
            number,
            pack: row.getUint32(4, true),
            triangles: row.getUint32(8, true),
            colour,
            half,
            scale: half,
            pieces: null,
            edges: null,
            asked: false,
        });
        this.meshes = grown(this.meshes, (slot + 1) * 3);
        const data = /** @type {Float32Array} */ (this.meshes.image.data);
        data.set([...half, 0, ...half, 0, ...[0, 8, 16, 24].map((shift) => ((colour >>> shift) & 255) / 255)], slot * 12);
    }

    /**
     * How far the largest value of a mesh's quantized vertices reaches along each axis.
     * @param {number} slot
     * @param {number[]} scale metres
     */
    setScale(slot, scale) {
        this.facts[slot].scale = scale;
        /** @type {Float32Array} */ (this.meshes.image.data).set(scale, slot * 12);
        this.meshes.needsUpdate = true;
    }

    /**
     * @param {number} object
     * @param {number} slot
     * @param {Float32Array} m holding the transform, row by row
     * @param {number} at
     */
    add(object, slot, m, at) {
        const index = this.count++;
        const { half: h } = this.facts[slot];
        this.object[index] = object;
        this.mesh[index] = slot;
        const data = /** @type {Float32Array} */ (this.place.image.data);
        for (let n = 0; n < 12; n++) data[index * 16 + n] = m[at + n];
        data[index * 16 + 12] = object;
        data[index * 16 + 13] = slot;
        let square = 0;
        for (let row = 0; row < 3; row++) {
            const r = at + row * 4;
            this.sphere[index * 4 + row] = m[r + 3];
            const reach = Math.abs(m[r]) * h[0] + Math.abs(m[r + 1]) * h[1] + Math.abs(m[r + 2]) * h[2];
            square += reach * reach;
        }
        this.sphere[index * 4 + 3] = Math.sqrt(square);
        const others = this.byObject.get(object);
        if (others) others.push(index);
        else this.byObject.set(object, [index]);
    }

    /**
     * The box around the placements that the test lets through.
     * @param {(placement: number) => boolean} test
     */
    bounds(test) {
        const box = new Box3();
        const point = new Vector3();
        const data = /** @type {Float32Array} */ (this.place.image.data);
        for (let index = 0; index < this.count; index++) {
            if (!test(index)) continue;
            const { half: h } = this.facts[this.mesh[index]];
            for (const sign of [-1, 1]) {
                const reach = [0, 1, 2].map((row) => {
                    const r = index * 16 + row * 4;
                    return sign * (Math.abs(data[r]) * h[0] + Math.abs(data[r + 1]) * h[1] + Math.abs(data[r + 2]) * h[2]);
                });
                box.expandByPoint(
                    point.set(
                        this.sphere[index * 4] + reach[0],
                        this.sphere[index * 4 + 1] + reach[1],
                        this.sphere[index * 4 + 2] + reach[2],
                    ),
                );
            }
        }
        return box;
    }
}

/**
 * @typedef {object} MeshFacts
 * @property {number} number
 * @property {number} pack
 * @property {number} triangles
 * @property {number} colour
 * @property {number[]} half
 * @property {number[]} scale of its quantized vertices, metres
 * @property {import('./pages.js').Piece[] | null} pieces once its pack is here
 * @property {import('./pages.js').Piece[] | null} edges once a ghost needs them
 * @property {boolean} asked
 */

/**
 * @template {Float32Array | Uint32Array} T
 * @param {T} from
 * @param {T} to
 * @returns {T}
 */
function extended(from, to) {
    to.set(from);
    return to;
}

/**
 * @param {number} width
 * @param {number} height
 */
function dataTexture(width, height) {
    const texture = new DataTexture(new Float32Array(width * height * 4), width, height, RGBAFormat, FloatType);
    texture.minFilter = texture.magFilter = NearestFilter;
    texture.needsUpdate = true;
    return texture;
}

/**
 * @param {DataTexture} texture
 * @param {number} texels
 */
function grown(texture, texels) {
    const rows = Math.ceil(texels / WIDTH);
    if (rows <= texture.image.height) return texture;
    const larger = dataTexture(WIDTH, Math.max(rows, texture.image.height * 2));
    /** @type {Float32Array} */ (larger.image.data).set(/** @type {Float32Array} */ (texture.image.data));
    texture.dispose();
    return larger;
}

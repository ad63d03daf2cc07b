import { Box3, DataTexture, FloatType, NearestFilter, RGBAFormat, Vector3 } from 'three';

const MESH = 28;
const FORM = 40;
/** Placements come from a whole number of steps, turns and scales from 16 bits. */
const STEPS = 8192;
const FAR = 0x80000000;
const SHARED = 4;
const THIN = 0.05;
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
        /** @type {Map<number, Float32Array>} the nine floats that many placements share, by number */
        this.forms = new Map();
        /** @type {Uint32Array} by object number: its first placement, counted from 1, 0 for none */
        this.first = new Uint32Array(4096);
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
     * @param {ArrayBuffer} buffer as the server packs it: parts of the whole, counts of meshes, forms and placements; these
     * @returns {number} parts that the whole has
     */
    read(buffer) {
        const head = new DataView(buffer);
        const [parts, meshes, forms, count] = [0, 4, 8, 12].map((at) => head.getUint32(at, true));
        let start = 16;
        for (const end = start + meshes * MESH; start < end; start += MESH) this.readMesh(new DataView(buffer, start, MESH));
        for (const end = start + forms * FORM; start < end; start += FORM) {
            const form = new Float32Array(12);
            for (let at = 0; at < 9; at++) form[at + Math.floor(at / 3)] = head.getFloat32(start + 4 + at * 4, true);
            this.forms.set(head.getUint32(start, true), form);
        }
        this.grow(this.count + count);
        const read = new Planes(new Uint8Array(buffer, start), count);
        const m = new Float32Array(12);
        const before = this.count;
        for (let index = 0; index < count; index++) {
            const object = read.uint32(0, index);
            // An object comes whole: the first of its placements tells whether it is here already.
            if (this.has(object) && this.first[object] <= before) continue;
            const slot = this.slots.get(read.uint32(4, index));
            if (slot === undefined) continue;
            const form = read.uint32(8, index);
            if ((form & ~FAR) < SHARED) read.turned(m, index, form & 3, this.facts[slot].half);
            else m.set(/** @type {Float32Array} */ (this.forms.get(form & ~FAR)));
            for (let row = 0; row < 3; row++) {
                const bits = read.int32(12 + row * 4, index);
                m[row * 4 + 3] = form >= FAR ? float(bits) : bits / STEPS;
            }
            this.add(object, slot, m, 0);
        }
        this.place.needsUpdate = true;
        this.meshes.needsUpdate = true;
        return parts;
    }

    /** @param {DataView} row */
    readMesh(row) {
        const number = row.getUint32(0, true);
        if (this.slots.has(number)) return;
        const slot = this.facts.length;
        this.slots.set(number, slot);
        const half = [16, 20, 24].map((at) => row.getFloat32(at, true));
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
        if (object >= this.first.length) this.first = extended(this.first, new Uint32Array(object * 2));
        if (this.first[object] === 0) this.first[object] = this.count;
    }

    /**
     * Whether an object has come.
     * @param {number} object
     */
    has(object) {
        return object < this.first.length && this.first[object] > 0;
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

/** Numbers whose bytes stand apart, each byte with those of its kind. */
class Planes {
    /** @param {Uint8Array} bytes @param {number} count */
    constructor(bytes, count) {
        this.bytes = bytes;
        this.count = count;
    }

    /** @param {number} plane @param {number} index */
    int16(plane, index) {
        const at = plane * this.count + index;
        return ((this.bytes[at] | (this.bytes[at + this.count] << 8)) << 16) >> 16;
    }

    /** @param {number} plane @param {number} index */
    int32(plane, index) {
        return (this.int16(plane, index) & 0xffff) | (this.int16(plane + 2, index) << 16);
    }

    /** @param {number} plane @param {number} index */
    uint32(plane, index) {
        return this.int32(plane, index) >>> 0;
    }

    /**
     * Works out the nine floats of a turn and three scales.
     * @param {Float32Array} m
     * @param {number} index
     * @param {number} missing which component of the quaternion is not sent, its largest
     * @param {number[]} half half the sides of the mesh's box
     */
    turned(m, index, missing, half) {
        let left = 1;
        for (let component = 0, plane = 24; component < 4; component++) {
            if (component === missing) continue;
            quaternion[component] = (this.int16(plane, index) / 32767) * Math.SQRT1_2;
            left -= quaternion[component] ** 2;
            plane += 2;
        }
        quaternion[missing] = Math.sqrt(Math.max(0, left));
        const [x, y, z, w] = quaternion;
        const a = (this.int16(30, index) * 1e-4) / Math.max(half[0], THIN);
        const b = (this.int16(32, index) * 1e-4) / Math.max(half[1], THIN);
        const c = (this.int16(34, index) * 1e-4) / Math.max(half[2], THIN);
        m[0] = a * (1 - 2 * (y * y + z * z));
        m[1] = b * 2 * (x * y - z * w);
        m[2] = c * 2 * (x * z + y * w);
        m[4] = a * 2 * (x * y + z * w);
        m[5] = b * (1 - 2 * (x * x + z * z));
        m[6] = c * 2 * (y * z - x * w);
        m[8] = a * 2 * (x * z - y * w);
        m[9] = b * 2 * (y * z + x * w);
        m[10] = c * (1 - 2 * (x * x + y * y));
    }
}

const quaternion = [0, 0, 0, 0];
const bits = new DataView(new ArrayBuffer(4));

/** @param {number} number */
function float(number) {
    bits.setInt32(0, number);
    return bits.getFloat32(0);
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

const MESH = 28;
const FORM = 40;
/** Placements come from a whole number of steps, turns and scales from 16 bits. */
const STEPS = 8192;
const FAR = 0x80000000;
const SHARED = 4;
const THIN = 0.05;

/**
 * What an answer of placements comes to. The transforms take sixteen floats each, as the shaders read them: three rows, then object number,
 * mesh slot, 0, 0.
 * @typedef {object} Read
 * @property {number} parts that the whole has
 * @property {MeshRow[]} meshes that were not known before; each gets the next slot
 * @property {Uint32Array} object number by placement
 * @property {Uint32Array} mesh slot by placement
 * @property {Float32Array} place transforms
 * @property {Float32Array} sphere centre and radius by placement
 */

/**
 * @typedef {object} MeshRow
 * @property {number} number
 * @property {number} pack
 * @property {number} triangles
 * @property {number} colour
 * @property {number[]} half half the sides of its box
 */

/**
 * Works out of the server's answers where each object stands. It needs nothing of the page, so it runs beside it; what one answer says
 * once, the next may build on.
 */
export class PlacementReader {
    constructor() {
        /** @type {Map<number, number>} slot by mesh number */
        this.slots = new Map();
        /** @type {number[][]} half the sides of a mesh's box, by slot */
        this.halves = [];
        /** @type {Map<number, Float32Array>} the nine floats that many placements share, by number */
        this.forms = new Map();
        /** @type {Set<number>} objects that have come */
        this.here = new Set();
    }

    /**
     * @param {ArrayBuffer} buffer as the server packs it: parts of the whole, counts of meshes, forms and placements; these
     * @param {boolean} [anew] whether objects count that have come before
     * @returns {Read}
     */
    read(buffer, anew = false) {
        const head = new DataView(buffer);
        const [parts, meshes, forms, count] = [0, 4, 8, 12].map((at) => head.getUint32(at, true));
        let start = 16;
        const found = [];
        for (const end = start + meshes * MESH; start < end; start += MESH) {
            const row = meshRow(new DataView(buffer, start, MESH));
            if (this.slots.has(row.number)) continue;
            this.slots.set(row.number, this.halves.length);
            this.halves.push(row.half);
            found.push(row);
        }
        for (const end = start + forms * FORM; start < end; start += FORM) {
            const form = new Float32Array(12);
            for (let at = 0; at < 9; at++) form[at + Math.floor(at / 3)] = head.getFloat32(start + 4 + at * 4, true);
            this.forms.set(head.getUint32(start, true), form);
        }
        return { parts, meshes: found, ...this.placements(new Planes(new Uint8Array(buffer, start), count), count, anew) };
    }

    /** @param {Planes} read @param {number} count @param {boolean} anew */
    placements(read, count, anew) {
        const object = new Uint32Array(count);
        const mesh = new Uint32Array(count);
        const place = new Float32Array(count * 16);
        const sphere = new Float32Array(count * 4);
        const m = new Float32Array(12);
        const coming = new Set();
        let kept = 0;
        for (let index = 0; index < count; index++) {
            const number = read.uint32(0, index);
            // An object comes whole: it is here already, or comes with this answer.
            if (this.here.has(number) !== anew) continue;
            const slot = this.slots.get(read.uint32(4, index));
            if (slot === undefined) continue;
            const half = this.halves[slot];
            const form = read.uint32(8, index);
            if ((form & ~FAR) < SHARED) read.turned(m, index, form & 3, half);
            else m.set(/** @type {Float32Array} */ (this.forms.get(form & ~FAR)));
            let square = 0;
            for (let row = 0; row < 3; row++) {
                const bits = read.int32(12 + row * 4, index);
                const r = row * 4;
                m[r + 3] = form >= FAR ? float(bits) : bits / STEPS;
                sphere[kept * 4 + row] = m[r + 3];
                const reach = Math.abs(m[r]) * half[0] + Math.abs(m[r + 1]) * half[1] + Math.abs(m[r + 2]) * half[2];
                square += reach * reach;
            }
            sphere[kept * 4 + 3] = Math.sqrt(square);
            place.set(m, kept * 16);
            place[kept * 16 + 12] = number;
            place[kept * 16 + 13] = slot;
            object[kept] = number;
            mesh[kept] = slot;
            coming.add(number);
            kept++;
        }
        for (const number of coming) this.here.add(number);
        return {
            object: object.subarray(0, kept),
            mesh: mesh.subarray(0, kept),
            place: place.subarray(0, kept * 16),
            sphere: sphere.subarray(0, kept * 4),
        };
    }
}

/** @param {DataView} row @returns {MeshRow} */
function meshRow(row) {
    return {
        number: row.getUint32(0, true),
        pack: row.getUint32(4, true),
        triangles: row.getUint32(8, true),
        colour: row.getUint32(12, true),
        half: [16, 20, 24].map((at) => row.getFloat32(at, true)),
    };
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

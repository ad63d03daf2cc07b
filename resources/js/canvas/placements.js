import { Box3, DataTexture, FloatType, NearestFilter, RGBAFormat, Vector3 } from 'three';

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
        /** @type {ReturnType<typeof import('./versions.js').versionsIn>} coarser versions by mesh number */
        this.versions = new Map();
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

    /** Takes in what came. @param {import('./reader.js').Read} read */
    append({ meshes, object, mesh, place, sphere }) {
        for (const row of meshes) this.addMesh(row);
        const { count } = this;
        this.grow(count + object.length);
        this.object.set(object, count);
        this.mesh.set(mesh, count);
        this.sphere.set(sphere, count * 4);
        /** @type {Float32Array} */ (this.place.image.data).set(place, count * 16);
        for (const number of object) {
            this.count++;
            if (number >= this.first.length) this.first = extended(this.first, new Uint32Array(number * 2));
            if (this.first[number] === 0) this.first[number] = this.count;
        }
        this.place.needsUpdate = true;
        this.meshes.needsUpdate = true;
    }

    /**
     * Takes in what came anew of objects that are here: each stands where it did, with as many placements.
     * @param {import('./reader.js').Read} read
     * @returns {number[]} the placements
     */
    replace({ meshes, object, mesh, place, sphere }) {
        for (const row of meshes) this.addMesh(row);
        const found = [];
        let at = -1;
        for (let index = 0; index < object.length; index++) {
            at = index > 0 && object[index] === object[index - 1] ? at + 1 : this.first[object[index]] - 1;
            if (this.object[at] !== object[index]) continue;
            this.mesh[at] = mesh[index];
            this.sphere.set(sphere.subarray(index * 4, index * 4 + 4), at * 4);
            /** @type {Float32Array} */ (this.place.image.data).set(place.subarray(index * 16, index * 16 + 16), at * 16);
            found.push(at);
        }
        this.place.needsUpdate = true;
        this.meshes.needsUpdate = true;
        return found;
    }

    /** @param {import('./reader.js').MeshRow} row */
    addMesh(row) {
        const { half, colour } = row;
        const slot = this.facts.length;
        this.slots.set(row.number, slot);
        const facts = { ...row, scale: half, coarse: 0, levels: [levelOf(row.pack, row.triangles, 0)] };
        this.facts.push(facts);
        this.giveVersions(facts);
        this.meshes = grown(this.meshes, (slot + 1) * 3);
        const data = /** @type {Float32Array} */ (this.meshes.image.data);
        data.set([...half, 0, ...half, 0, ...[0, 8, 16, 24].map((shift) => ((colour >>> shift) & 255) / 255)], slot * 12);
    }

    /** Bytes on the graphics card. */
    get bytes() {
        return [this.place, this.meshes].reduce((sum, { image }) => sum + /** @type {Float32Array} */ (image.data).byteLength, 0);
    }

    /** Takes in which coarser versions there are. @param {ReturnType<typeof import('./versions.js').versionsIn>} versions by mesh number */
    setVersions(versions) {
        this.versions = versions;
        for (const facts of this.facts) this.giveVersions(facts);
    }

    /** @param {MeshFacts} facts */
    giveVersions(facts) {
        const known = this.versions.get(facts.number);
        if (!known) return;
        const reach = Math.hypot(...facts.half) || 1e-6;
        facts.coarse = known.coarse;
        for (const { pack, triangles, error } of known.versions.slice(facts.levels.length - 1))
            facts.levels.push(levelOf(pack, triangles, error / reach));
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

/**
 * @typedef {object} MeshFacts
 * @property {number} number
 * @property {number} pack
 * @property {number} triangles
 * @property {number} colour
 * @property {number[]} half
 * @property {number[]} scale of its quantized vertices, metres
 * @property {number} coarse the level that does for the rung Coarse, 0 where there is none but the mesh itself
 * @property {Level[]} levels the mesh itself, then its coarser versions, the finest first
 */

/**
 * @typedef {object} Level
 * @property {number} pack
 * @property {number} triangles
 * @property {number} rough how far it is off, in shares of the mesh's reach
 * @property {import('./pages.js').Piece[] | null} pieces once its pack is here
 * @property {import('./pages.js').Piece[] | null} edges once a ghost needs them
 */

/**
 * @param {number} pack
 * @param {number} triangles
 * @param {number} rough
 * @returns {Level}
 */
function levelOf(pack, triangles, rough) {
    return { pack, triangles, rough, pieces: null, edges: null };
}

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

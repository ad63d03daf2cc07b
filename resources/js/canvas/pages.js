import {
    BufferAttribute,
    BufferGeometry,
    DataTexture,
    LineSegments,
    Mesh,
    NearestFilter,
    Points,
    RGIntegerFormat,
    Sphere,
    UnsignedIntType,
} from 'three';

const VERTICES = 262144;
const INDICES = 786432;

/**
 * Where a piece of a mesh stands on the graphics card.
 * @typedef {object} Piece
 * @property {Page} page
 * @property {number} start first index
 * @property {number} count indices
 * @property {number} material number, 0 for none
 * @property {number} triangles
 */

/**
 * What is put on a page; four entries of position for each vertex, the last unused.
 * @typedef {object} Source
 * @property {Int16Array} position
 * @property {Int8Array | null} normal
 * @property {Float32Array | null} uv
 * @property {Uint8Array | null} colour
 * @property {Uint16Array | Uint32Array} index
 * @property {number} material
 */

/**
 * One large vertex and index buffer that many meshes share, and a list of what to draw from it: each entry one piece at one
 * placement, all entries in one call.
 */
export class Page {
    /** @param {'triangles' | 'lines' | 'points'} kind @param {string} shelf what it is for */
    constructor(kind, shelf) {
        this.kind = kind;
        this.shelf = shelf;
        /** The last picture that needed it. */
        this.picture = 0;
        /** @type {Set<import('./placements.js').Level>} whose pieces are here */
        this.tenants = new Set();
        this.vertices = 0;
        this.indices = 0;
        this.geometry = new BufferGeometry();
        this.geometry.setAttribute('position', new BufferAttribute(new Int16Array(VERTICES * 4), 4, true));
        this.geometry.setAttribute('normal', new BufferAttribute(new Int8Array(VERTICES * 4), 4, true));
        this.geometry.setAttribute('uv', new BufferAttribute(new Float32Array(VERTICES * 2), 2));
        this.geometry.setAttribute('color', new BufferAttribute(new Uint8Array(VERTICES * 4), 4, true));
        this.geometry.setIndex(new BufferAttribute(new Uint32Array(INDICES), 1));
        this.geometry.boundingSphere = new Sphere(undefined, Infinity);
        this.object = Object.assign(
            kind === 'triangles' ? new Mesh(this.geometry) : kind === 'lines' ? new LineSegments(this.geometry) : new Points(this.geometry),
            {
                isBatchedMesh: true,
                _matricesTexture: null,
                _colorsTexture: null,
                _indirectTexture: null,
                _multiDrawStarts: new Int32Array(1024),
                _multiDrawCounts: new Int32Array(1024),
                _multiDrawCount: 0,
            },
        );
        this.object.frustumCulled = false;
        this.object.matrixAutoUpdate = false;
        /** Placement and material by entry. */
        this.entries = entryTexture(1024);
    }

    /**
     * @param {number} vertices
     * @param {number} indices
     */
    hasRoom(vertices, indices) {
        return this.vertices === 0 || (this.vertices + vertices <= VERTICES && this.indices + indices <= INDICES);
    }

    /**
     * @param {Source} source
     * @returns {Piece}
     */
    add({ position, normal, uv, colour, index, material }) {
        const count = position.length / 4;
        if (this.vertices === 0 && (count > VERTICES || index.length > INDICES)) this.enlarge(count, index.length);
        const first = this.vertices;
        write(this.geometry.getAttribute('position'), position, first * 4);
        if (normal) write(this.geometry.getAttribute('normal'), normal, first * 4);
        if (uv) write(this.geometry.getAttribute('uv'), uv, first * 2);
        write(this.geometry.getAttribute('color'), colour ?? new Uint8Array(count * 4).fill(255), first * 4);
        const shifted = new Uint32Array(index.length);
        for (let at = 0; at < index.length; at++) shifted[at] = index[at] + first;
        write(/** @type {BufferAttribute} */ (this.geometry.index), shifted, this.indices);
        const piece = {
            page: this,
            start: this.indices,
            count: index.length,
            material,
            triangles: this.kind === 'triangles' ? index.length / 3 : 0,
        };
        this.vertices += count;
        this.indices += index.length;
        return piece;
    }

    /** A mesh that is larger than a page gets a page of its own size. */
    enlarge(/** @type {number} */ vertices, /** @type {number} */ indices) {
        this.geometry.setAttribute('position', new BufferAttribute(new Int16Array(vertices * 4), 4, true));
        this.geometry.setAttribute('normal', new BufferAttribute(new Int8Array(vertices * 4), 4, true));
        this.geometry.setAttribute('uv', new BufferAttribute(new Float32Array(vertices * 2), 2));
        this.geometry.setAttribute('color', new BufferAttribute(new Uint8Array(vertices * 4), 4, true));
        this.geometry.setIndex(new BufferAttribute(new Uint32Array(indices), 1));
    }

    clear() {
        this.object._multiDrawCount = 0;
    }

    /** Bytes on the graphics card. */
    get bytes() {
        const { position, normal, uv, color } = this.geometry.attributes;
        const arrays = [position, normal, uv, color, this.geometry.index].map((attribute) => /** @type {any} */ (attribute).array);
        return arrays.reduce((sum, array) => sum + array.byteLength, 0);
    }

    dispose() {
        this.geometry.dispose();
        this.entries.dispose();
    }

    /**
     * @param {number} placement
     * @param {Piece} piece
     */
    draw(placement, piece) {
        const at = this.object._multiDrawCount++;
        if (at >= this.object._multiDrawStarts.length) this.makeRoom();
        this.object._multiDrawStarts[at] = piece.start * 4;
        this.object._multiDrawCounts[at] = piece.count;
        const data = /** @type {Uint32Array} */ (this.entries.image.data);
        data[at * 2] = placement;
        data[at * 2 + 1] = piece.material;
    }

    makeRoom() {
        const wanted = this.object._multiDrawStarts.length * 2;
        for (const name of /** @type {const} */ (['_multiDrawStarts', '_multiDrawCounts'])) {
            const larger = new Int32Array(wanted);
            larger.set(this.object[name]);
            this.object[name] = larger;
        }
        const larger = entryTexture(wanted);
        /** @type {Uint32Array} */ (larger.image.data).set(/** @type {Uint32Array} */ (this.entries.image.data));
        this.entries.dispose();
        this.entries = larger;
    }

    ready() {
        this.entries.needsUpdate = true;
        return this.object._multiDrawCount > 0;
    }
}

/** @param {number} entries */
function entryTexture(entries) {
    const width = Math.min(1024, entries);
    const height = Math.ceil(entries / width);
    const texture = new DataTexture(new Uint32Array(width * height * 2), width, height, RGIntegerFormat, UnsignedIntType);
    texture.internalFormat = 'RG32UI';
    texture.minFilter = texture.magFilter = NearestFilter;
    texture.needsUpdate = true;
    return texture;
}

/**
 * @param {any} attribute
 * @param {ArrayLike<number>} values
 * @param {number} offset
 */
function write(attribute, values, offset) {
    attribute.array.set(values, offset);
    attribute.addUpdateRange(offset, values.length);
    attribute.needsUpdate = true;
}

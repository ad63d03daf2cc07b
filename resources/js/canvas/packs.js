import { BufferAttribute, BufferGeometry, EdgesGeometry } from 'three';
import { Page } from './pages.js';

const AT_ONCE = 6;

/** Times that a pack is asked for again. */
const TRIES = 3;

const KINDS = /** @type {const} */ ({ 0: 'points', 1: 'lines', 4: 'triangles' });

/** Fetches packs in the order of need, takes them apart, and puts their meshes on pages. */
export class Packs {
    /**
     * @param {string} address of the packs
     * @param {import('./placements.js').Placements} placements
     * @param {() => void} arrived
     */
    constructor(address, placements, arrived) {
        this.address = address;
        this.placements = placements;
        this.arrived = arrived;
        /** @type {Page[]} */
        this.pages = [];
        /** @type {Map<number, number>} how much each missing pack would add to the picture */
        this.wanted = new Map();
        /** @type {Set<number>} */
        this.here = new Set();
        /** @type {Set<number>} */
        this.coming = new Set();
        /** @type {Map<number, number>} tries by pack that failed */
        this.failed = new Map();
        /** @type {{number: number, level: number, make: (slot: number) => void}[]} what came before anything that shows it */
        this.waiting = [];
        /** Packs wait until it is known which coarser versions there are. */
        this.held = false;
        /** Counts the pictures, so that pages know when they were last needed. */
        this.picture = 0;
    }

    /** Bytes on the graphics card. */
    get bytes() {
        return this.pages.reduce((sum, page) => sum + page.bytes, 0);
    }

    /**
     * Gives back pages that recent pictures did not need, the one that was needed longest ago first.
     * @param {number} most bytes that may be kept
     */
    giveBack(most) {
        const spare = this.pages.filter((page) => page.picture < this.picture - 1).sort((a, b) => a.picture - b.picture);
        let bytes = this.bytes;
        for (const page of spare) {
            if (bytes <= most) return;
            bytes -= page.bytes;
            this.pages.splice(this.pages.indexOf(page), 1);
            for (const level of page.tenants) {
                level.pieces = level.edges = null;
                this.here.delete(level.pack);
            }
            page.dispose();
        }
    }

    /** Forgets what was wanted: the next picture says anew. */
    startWanting() {
        this.wanted.clear();
    }

    /**
     * @param {number} pack
     * @param {number} gain
     */
    want(pack, gain) {
        if (!this.here.has(pack) && !this.coming.has(pack)) this.wanted.set(pack, (this.wanted.get(pack) ?? 0) + gain);
    }

    /** Whether something that was wanted could not be fetched, however often it was tried. */
    get isLacking() {
        return [...this.failed].some(([pack, tries]) => tries > TRIES && !this.here.has(pack));
    }

    get missing() {
        return this.wanted.size + this.coming.size;
    }

    fetchNext() {
        while (!this.held && this.coming.size < AT_ONCE && this.wanted.size > 0) {
            let best = 0;
            let most = -1;
            for (const [pack, gain] of this.wanted) {
                if (gain > most) [best, most] = [pack, gain];
            }
            this.wanted.delete(best);
            if ((this.failed.get(best) ?? 0) > TRIES) continue;
            this.coming.add(best);
            this.fetch(best);
        }
    }

    /** @param {number} pack */
    async fetch(pack) {
        try {
            const response = await fetch(`${this.address}/${pack}`);
            if (!response.ok) throw new Error(String(response.status));
            this.open(await response.arrayBuffer());
            this.here.add(pack);
        } catch {
            this.failed.set(pack, (this.failed.get(pack) ?? 0) + 1);
        } finally {
            this.coming.delete(pack);
            this.arrived();
        }
    }

    /** @param {ArrayBuffer} buffer binary glTF */
    open(buffer) {
        const jsonLength = new DataView(buffer).getUint32(12, true);
        const gltf = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 20, jsonLength)));
        const start = 28 + jsonLength;
        const view = (/** @type {any} */ Type, /** @type {number} */ index, /** @type {number} */ length) =>
            new Type(buffer, start + gltf.bufferViews[gltf.accessors[index].bufferView].byteOffset, length);
        for (const node of gltf.nodes) {
            const { mesh, version = 0 } = node.extras;
            const slot = this.placements.slots.get(mesh);
            const make = (/** @type {number} */ at) => this.place(at, version, node, gltf, view);
            if (slot === undefined || !this.placements.facts[slot].levels[version])
                this.waiting.push({ number: mesh, level: version, make });
            else if (!this.placements.facts[slot].levels[version].pieces) make(slot);
        }
    }

    /** Gives meshes that came before their placements, and versions that came before they were known, to them. */
    settle() {
        this.waiting = this.waiting.filter(({ number, level, make }) => {
            const slot = this.placements.slots.get(number);
            if (slot === undefined || !this.placements.facts[slot].levels[level]) return true;
            if (!this.placements.facts[slot].levels[level].pieces) make(slot);
            return false;
        });
    }

    /** Puts a level of a mesh on pages. */
    place(
        /** @type {number} */ slot,
        /** @type {number} */ version,
        /** @type {any} */ node,
        /** @type {any} */ gltf,
        /** @type {any} */ view,
    ) {
        this.placements.setScale(slot, node.scale);
        const level = this.placements.facts[slot].levels[version];
        const pages = version === 0 ? 'fine' : 'coarse';
        level.pieces = this.pieces(gltf.meshes[node.mesh].primitives, node.scale, gltf, view, pages);
        for (const { page } of level.pieces) page.tenants.add(level);
    }

    /**
     * @param {any[]} primitives
     * @param {number[]} scale the node's
     * @param {any} gltf
     * @param {any} view
     * @param {string} shelf what is needed at other times lies on other pages
     * @returns {import('./pages.js').Piece[]}
     */
    pieces(primitives, scale, gltf, view, shelf) {
        return primitives.map((primitive) => {
            const { POSITION, NORMAL, TEXCOORD_0, COLOR_0 } = primitive.attributes;
            const vertices = gltf.accessors[POSITION].count;
            const indices = gltf.accessors[primitive.indices];
            const source = {
                position: view(Int16Array, POSITION, vertices * 4),
                normal:
                    NORMAL === undefined
                        ? null
                        : gltf.accessors[NORMAL].componentType === 5120
                          ? view(Int8Array, NORMAL, vertices * 4)
                          : unscaled(view(Int16Array, NORMAL, vertices * 4), scale),
                uv: TEXCOORD_0 === undefined ? null : view(Float32Array, TEXCOORD_0, vertices * 2),
                colour: COLOR_0 === undefined ? null : view(Uint8Array, COLOR_0, vertices * 4),
                index: view(indices.componentType === 5123 ? Uint16Array : Uint32Array, primitive.indices, indices.count),
                material: primitive.extras?.material ?? 0,
            };
            return this.page(KINDS[/** @type {0 | 1 | 4} */ (primitive.mode)], vertices, indices.count, shelf).add(source);
        });
    }

    /**
     * @param {'triangles' | 'lines' | 'points'} kind
     * @param {number} vertices
     * @param {number} indices
     * @param {string} shelf
     */
    page(kind, vertices, indices, shelf) {
        let page = this.pages.find((one) => one.kind === kind && one.shelf === shelf && one.hasRoom(vertices, indices));
        if (!page) {
            page = new Page(kind, shelf);
            page.picture = this.picture;
            this.pages.push(page);
        }
        return page;
    }

    /**
     * The sharp edges of a level of a mesh, for ghosts.
     * @param {import('./placements.js').MeshFacts} facts
     * @param {import('./placements.js').Level} level
     */
    edges(facts, level) {
        if (level.edges || !level.pieces) return level.edges ?? [];
        level.edges = [];
        const steps = facts.scale.map((side) => 32767 * (Math.max(...facts.scale) / side));
        for (const piece of level.pieces) {
            if (piece.page.kind !== 'triangles' || piece.triangles > 30000) continue;
            const index = /** @type {Uint32Array} */ (piece.page.geometry.index?.array).subarray(piece.start, piece.start + piece.count);
            const all = /** @type {Int16Array} */ (piece.page.geometry.getAttribute('position').array);
            const first = index.reduce((least, value) => Math.min(least, value), Infinity);
            const last = index.reduce((most, value) => Math.max(most, value), 0);
            const plain = new Float32Array((last - first + 1) * 3);
            for (let vertex = first; vertex <= last; vertex++)
                for (let axis = 0; axis < 3; axis++) plain[(vertex - first) * 3 + axis] = all[vertex * 4 + axis] / steps[axis];
            const geometry = new BufferGeometry();
            geometry.setAttribute('position', new BufferAttribute(plain, 3));
            geometry.setIndex(
                new BufferAttribute(
                    index.map((value) => value - first),
                    1,
                ),
            );
            const lines = new EdgesGeometry(geometry, 28).getAttribute('position').array;
            if (lines.length === 0) continue;
            const position = new Int16Array((lines.length / 3) * 4);
            for (let vertex = 0; vertex < lines.length / 3; vertex++)
                for (let axis = 0; axis < 3; axis++) position[vertex * 4 + axis] = Math.round(lines[vertex * 3 + axis] * steps[axis]);
            const count = position.length / 4;
            const page = this.page('lines', count, count, 'edges');
            page.tenants.add(level);
            level.edges.push(
                page.add({
                    position,
                    normal: null,
                    uv: null,
                    colour: null,
                    index: Uint32Array.from({ length: count }, (_, at) => at),
                    material: 0,
                }),
            );
        }
        return level.edges;
    }
}

/**
 * Normals of a node whose scale differs by axis: glTF has them scaled by it beforehand.
 * @param {Int16Array} normals four entries each
 * @param {number[]} scale
 */
export function unscaled(normals, scale) {
    const plain = new Int8Array(normals.length);
    for (let at = 0; at < normals.length; at += 4) {
        const [x, y, z] = [normals[at] / scale[0], normals[at + 1] / scale[1], normals[at + 2] / scale[2]];
        const length = Math.hypot(x, y, z) || 1;
        plain.set([Math.round((127 * x) / length), Math.round((127 * y) / length), Math.round((127 * z) / length)], at);
    }
    return plain;
}

import { BufferAttribute, BufferGeometry, EdgesGeometry } from 'three';
import { Page } from './pages.js';

const AT_ONCE = 6;
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
        /** @type {Map<number, (slot: number) => void>} meshes that came before anything that shows them */
        this.waiting = new Map();
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

    get missing() {
        return this.wanted.size + this.coming.size;
    }

    fetchNext() {
        while (this.coming.size < AT_ONCE && this.wanted.size > 0) {
            let best = 0;
            let most = -1;
            for (const [pack, gain] of this.wanted) {
                if (gain > most) [best, most] = [pack, gain];
            }
            this.wanted.delete(best);
            if ((this.failed.get(best) ?? 0) > 3) continue;
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
            const slot = this.placements.slots.get(node.extras.mesh);
            if (slot === undefined || this.placements.facts[slot].pieces) {
                if (slot === undefined) this.loose(node.extras.mesh, gltf, node, view);
                continue;
            }
            this.place(slot, node, gltf, view);
        }
    }

    /** A mesh whose placements are not here yet: kept until they come. */
    loose(/** @type {number} */ number, /** @type {any} */ gltf, /** @type {any} */ node, /** @type {any} */ view) {
        this.waiting.set(number, (slot) => this.place(slot, node, gltf, view));
    }

    /** Gives meshes that came before their placements to them. */
    settle() {
        for (const [number, make] of this.waiting) {
            const slot = this.placements.slots.get(number);
            if (slot === undefined) continue;
            if (!this.placements.facts[slot].pieces) make(slot);
            this.waiting.delete(number);
        }
    }

    /** Puts a mesh on pages. */
    place(/** @type {number} */ slot, /** @type {any} */ node, /** @type {any} */ gltf, /** @type {any} */ view) {
        this.placements.setScale(slot, node.scale);
        this.placements.facts[slot].pieces = this.pieces(gltf.meshes[node.mesh].primitives, node.scale, gltf, view);
    }

    /**
     * @param {any[]} primitives
     * @param {number[]} scale the node's
     * @param {any} gltf
     * @param {any} view
     * @returns {import('./pages.js').Piece[]}
     */
    pieces(primitives, scale, gltf, view) {
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
            return this.page(KINDS[/** @type {0 | 1 | 4} */ (primitive.mode)], vertices, indices.count).add(source);
        });
    }

    /**
     * @param {'triangles' | 'lines' | 'points'} kind
     * @param {number} vertices
     * @param {number} indices
     */
    page(kind, vertices, indices) {
        let page = this.pages.find((candidate) => candidate.kind === kind && candidate.hasRoom(vertices, indices));
        if (!page) {
            page = new Page(kind);
            this.pages.push(page);
        }
        return page;
    }

    /**
     * The sharp edges of a mesh, for ghosts.
     * @param {import('./placements.js').MeshFacts} facts
     */
    edges(facts) {
        if (facts.edges || !facts.pieces) return facts.edges ?? [];
        facts.edges = [];
        const steps = facts.scale.map((side) => 32767 * (Math.max(...facts.scale) / side));
        for (const piece of facts.pieces) {
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
            facts.edges.push(
                this.page('lines', count, count).add({
                    position,
                    normal: null,
                    uv: null,
                    colour: null,
                    index: Uint32Array.from({ length: count }, (_, at) => at),
                    material: 0,
                }),
            );
        }
        return facts.edges;
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

/** A list of placements that are all drawn alike in one call, as boxes or as dots. It grows as it needs to. */
export class Placed {
    /**
     * @param {import('three').BufferGeometry} geometry with an attribute of placements
     * @param {new (array: Uint32Array, size: number) => import('three').BufferAttribute} Attribute
     */
    constructor(geometry, Attribute) {
        this.geometry = geometry;
        this.Attribute = Attribute;
        this.count = 0;
        this.array = /** @type {Uint32Array} */ (geometry.getAttribute('placement').array);
    }

    /** @param {number} placement */
    add(placement) {
        if (this.count >= this.array.length) {
            const larger = new Uint32Array(this.array.length * 2);
            larger.set(this.array);
            this.geometry.setAttribute('placement', new this.Attribute(larger, 1));
            this.array = larger;
        }
        this.array[this.count++] = placement;
    }

    /** Draws what was added since it was last cleared. */
    ready() {
        this.geometry.getAttribute('placement').needsUpdate = this.count > 0;
        const geometry = /** @type {any} */ (this.geometry);
        if (geometry.isInstancedBufferGeometry) geometry.instanceCount = this.count;
        else geometry.setDrawRange(0, this.count);
    }

    clear() {
        this.count = 0;
    }
}

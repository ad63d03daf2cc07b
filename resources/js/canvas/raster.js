/** Fills flat shapes without the graphics card, the nearest on top, and knows which object each pixel shows. */
export class Raster {
    /** @param {number} width pixels @param {number} height pixels */
    constructor(width, height) {
        this.width = width;
        this.height = height;
        /** Red, green, blue and opacity, a byte each. */
        this.pixels = new Uint32Array(width * height);
        this.depth = new Float32Array(width * height);
        /** Object number by pixel, 0 for none. */
        this.numbers = new Uint32Array(width * height);
    }

    /** @param {{r: number, g: number, b: number}[]} backdrop bands from below, 0 to 1 */
    clear(backdrop) {
        this.depth.fill(Infinity);
        this.numbers.fill(0);
        for (let y = 0; y < this.height; y++) {
            const { r, g, b } = backdrop[Math.floor(((this.height - 1 - y) / this.height) * backdrop.length)];
            this.pixels.fill(packed(r, g, b), y * this.width, (y + 1) * this.width);
        }
    }

    /**
     * Fills a convex shape.
     * @param {ArrayLike<number>} corners x and y in pixels from the upper left, and depth; one after the other
     * @param {number} count numbers that are the corners
     * @param {number} colour
     * @param {number} number of the object
     */
    fill(corners, count, colour, number) {
        // The plane of the shape: how depth changes along x and along y.
        let nx = 0;
        let ny = 0;
        let nz = 0;
        let top = Infinity;
        let bottom = -Infinity;
        for (let at = 0, last = count - 3; at < count; last = at, at += 3) {
            nx += (corners[last + 1] - corners[at + 1]) * (corners[last + 2] + corners[at + 2]);
            ny += (corners[last + 2] - corners[at + 2]) * (corners[last] + corners[at]);
            nz += (corners[last] - corners[at]) * (corners[last + 1] + corners[at + 1]);
            if (corners[at + 1] < top) top = corners[at + 1];
            if (corners[at + 1] > bottom) bottom = corners[at + 1];
        }
        if (Math.abs(nz) < 1e-6) return;
        const across = -nx / nz;
        const down = -ny / nz;
        const rest = corners[2] - across * corners[0] - down * corners[1];
        const { width, pixels, depth, numbers } = this;
        const end = Math.min(this.height - 1, Math.ceil(bottom - 0.5) - 1);
        for (let y = Math.max(0, Math.ceil(top - 0.5)); y <= end; y++) {
            const middle = y + 0.5;
            let left = Infinity;
            let right = -Infinity;
            for (let at = 0, last = count - 3; at < count; last = at, at += 3) {
                const y1 = corners[last + 1];
                const y2 = corners[at + 1];
                if (y1 > middle === y2 > middle) continue;
                const x = corners[last] + ((corners[at] - corners[last]) * (middle - y1)) / (y2 - y1);
                if (x < left) left = x;
                if (x > right) right = x;
            }
            const first = Math.max(0, Math.ceil(left - 0.5));
            const stop = Math.min(width - 1, Math.ceil(right - 0.5) - 1);
            let z = rest + across * (first + 0.5) + down * middle;
            for (let at = y * width + first, to = y * width + stop; at <= to; at++, z += across) {
                if (z >= depth[at]) continue;
                depth[at] = z;
                pixels[at] = colour;
                numbers[at] = number;
            }
        }
    }
}

/** @param {number} r @param {number} g @param {number} b 0 to 1 */
export function packed(r, g, b) {
    return (0xff000000 | (byte(b) << 16) | (byte(g) << 8) | byte(r)) >>> 0;
}

/** @param {number} value 0 to 1 */
function byte(value) {
    return value <= 0 ? 0 : value >= 1 ? 255 : (value * 255 + 0.5) | 0;
}

import { Frustum, Matrix4, Vector3 } from 'three';

const STEPS = 256;

/** Sorts placements by how large they stand in the picture, largest first, without allocating. */
export class Order {
    constructor() {
        this.list = new Uint32Array(0);
        this.bucket = new Uint8Array(0);
        this.size = new Float32Array(0);
        this.count = 0;
        this.frustum = new Frustum();
        this.matrix = new Matrix4();
        this.eye = new Vector3();
    }

    /**
     * @param {import('./placements.js').Placements} placements
     * @param {Uint8Array} states rung by object number
     * @param {any} camera in perspective or parallel
     * @param {number} height of the picture in pixels
     * @param {number[][]} [cuts] planes that cut: normal and distance
     */
    sort(placements, states, camera, height, cuts = []) {
        const { count, sphere, object } = placements;
        if (this.list.length < count) {
            this.list = new Uint32Array(placements.capacity);
            this.bucket = new Uint8Array(placements.capacity);
            this.size = new Float32Array(placements.capacity);
        }
        this.frustum.setFromProjectionMatrix(this.matrix.multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse));
        const planes = this.frustum.planes.map(({ normal, constant }) => [normal.x, normal.y, normal.z, constant]);
        const { x, y, z } = camera.getWorldPosition(this.eye);
        // Pixels that a sphere of radius 1 at distance 1 covers from its middle to its rim; in parallel, at any distance.
        const parallel = camera.isOrthographicCamera === true;
        const scale = parallel
            ? (height * camera.zoom) / (camera.top - camera.bottom)
            : height / (2 * Math.tan((camera.fov * Math.PI) / 360));
        const starts = new Uint32Array(STEPS + 1);
        next: for (let index = 0; index < count; index++) {
            this.bucket[index] = 255;
            if ((states[object[index]] & 15) === 0) continue;
            const at = index * 4;
            const cx = sphere[at];
            const cy = sphere[at + 1];
            const cz = sphere[at + 2];
            const radius = sphere[at + 3];
            for (let plane = 0; plane < 6; plane++) {
                const p = planes[plane];
                if (p[0] * cx + p[1] * cy + p[2] * cz + p[3] < -radius) continue next;
            }
            for (let cut = 0; cut < cuts.length; cut++) {
                const p = cuts[cut];
                if (p[0] * cx + p[1] * cy + p[2] * cz - p[3] > radius) continue next;
            }
            const distance = parallel ? 1 : Math.max(1e-3, Math.sqrt((cx - x) ** 2 + (cy - y) ** 2 + (cz - z) ** 2) - radius * 0.7);
            const pixels = (radius / distance) * scale;
            if (pixels < 0.35) continue;
            this.size[index] = pixels;
            const bucket = Math.max(0, Math.min(254, 200 - Math.floor(Math.log2(pixels) * 12)));
            this.bucket[index] = bucket;
            starts[bucket + 1]++;
        }
        for (let bucket = 0; bucket < STEPS; bucket++) starts[bucket + 1] += starts[bucket];
        this.count = starts[STEPS];
        for (let index = 0; index < count; index++) {
            if (this.bucket[index] !== 255) this.list[starts[this.bucket[index]]++] = index;
        }
    }
}

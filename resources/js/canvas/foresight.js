import { OrthographicCamera, PerspectiveCamera, Vector3 } from 'three';
import { BOX, Detail } from './detail.js';
import { Order } from './order.js';

/**
 * A camera that stands where a sight says, to reckon with; nothing is drawn through it.
 * @param {import('./camera.js').Sight} sight
 * @param {number} aspect of the picture
 * @param {number} far metres
 */
export function cameraAt(sight, aspect, far) {
    const tall = sight.tall ?? 0;
    const camera =
        tall > 0
            ? new OrthographicCamera((-tall / 2) * aspect, (tall / 2) * aspect, tall / 2, -tall / 2, -far, far)
            : new PerspectiveCamera(sight.fov, aspect, Math.max(0.02, far / 20000), far);
    camera.up.fromArray(sight.up ?? [0, 0, 1]);
    camera.position.fromArray(sight.eye);
    camera.lookAt(new Vector3().fromArray(sight.target));
    camera.updateProjectionMatrix();
    camera.updateMatrixWorld();
    return camera;
}

/**
 * Asks for the packs of a picture before it is wanted.
 * @param {import('./canvas.js').Canvas} canvas whose picture is finished
 * @param {Uint8Array} states rung by object number that it will have
 * @param {import('./camera.js').Sight} sight where it will be seen from
 * @param {number[][]} cuts
 * @returns {number} packs that are asked for
 */
export function foresee({ painter, packs, placements, viewpoint }, states, sight, cuts) {
    const order = new Order();
    const detail = new Detail();
    const { triangles, calls } = painter.budget;
    order.sort(placements, states, cameraAt(sight, viewpoint.aspect, viewpoint.deep.far), painter.height, cuts);
    detail.fit(placements, states, order, { triangles, calls, weight: Infinity }, false);
    for (let next = 0; next < order.count; next++) {
        const index = order.list[next];
        const level = detail.wanted[index];
        const { levels } = placements.facts[placements.mesh[index]];
        if (level < BOX && !levels[level].pieces) packs.want(levels[level].pack, order.size[index] ** 2);
    }
    const count = packs.wanted.size;
    packs.fetchNext();
    return count;
}

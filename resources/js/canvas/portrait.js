import { Matrix4, PerspectiveCamera, Vector3 } from 'three';
import { Light } from './draft.js';
import { Raster } from './raster.js';

/** Triangles that a portrait has at most; what is beyond that is left out, the smallest first. */
const MOST = 60000;
/** Milliseconds that it takes at most. */
const MOST_MS = 120;
const FIELD = 32;

/**
 * The pick alone, drawn without the graphics card from the geometry that is here: the picture that the canvas shows is left as it is.
 * @param {import('./canvas.js').Canvas} canvas
 * @param {number} width pixels
 * @param {number} height
 * @returns {string} a data address; empty when nothing that is picked draws anything
 */
export function portraitOf({ placements, pick, painter, viewpoint }, width, height) {
    const chosen = [];
    for (let index = 0; index < placements.count; index++) if (pick[placements.object[index]] === 1) chosen.push(index);
    if (chosen.length === 0) return '';
    const isChosen = new Set(chosen);
    const box = placements.bounds((index) => isChosen.has(index));
    const raster = new Raster(width * 2, height * 2);
    raster.clear(painter.look.backdrop);
    const light = new Light(painter.look);
    // The pick has its own colours here: nothing else is in the picture.
    light.picks = new Uint8Array(0);
    const camera = cameraOn(box, viewpoint.get(), width / height);
    const until = performance.now() + MOST_MS;
    let left = MOST;
    chosen.sort((a, b) => placements.sphere[b * 4 + 3] - placements.sphere[a * 4 + 3]);
    for (const index of chosen) {
        if (left <= 0 || performance.now() > until) break;
        left -= drawPlacement(raster, placements, painter.look, light, camera, index);
    }
    return addressOf(raster, width, height);
}

/**
 * From the side that the canvas looks from, far enough to see all of a box.
 * @param {import('three').Box3} box
 * @param {{eye: number[], target: number[]}} sight
 * @param {number} aspect
 */
function cameraOn(box, { eye, target }, aspect) {
    const middle = box.getCenter(new Vector3());
    const radius = Math.max(1e-3, box.getSize(new Vector3()).length() / 2);
    const way = new Vector3(...eye).sub(new Vector3(...target)).normalize();
    const camera = new PerspectiveCamera(FIELD, aspect, radius / 50, radius * 20);
    camera.up.set(0, 0, 1);
    if (Math.abs(way.z) > 0.995) camera.up.set(0, 1, 0);
    camera.position.copy(middle).addScaledVector(way, (radius / Math.sin((FIELD * Math.PI) / 360)) * 1.02);
    camera.lookAt(middle);
    camera.updateMatrixWorld();
    return camera;
}

/**
 * @param {Raster} raster
 * @param {import('./placements.js').Placements} placements
 * @param {import('./look.js').Look} look
 * @param {Light} light
 * @param {PerspectiveCamera} camera
 * @param {number} index of a placement
 * @returns {number} triangles
 */
function drawPlacement(raster, placements, look, light, camera, index) {
    const data = /** @type {Float32Array} */ (placements.place.image.data);
    const at = index * 16;
    const facts = placements.facts[placements.mesh[index]];
    const world = new Matrix4().fromArray([...data.subarray(at, at + 12), 0, 0, 0, 1]).transpose();
    const seen = new Matrix4().multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse);
    let triangles = 0;
    for (const { page, start, count, material } of facts.levels.find(({ pieces }) => pieces)?.pieces ?? []) {
        if (page.kind !== 'triangles') continue;
        const order = /** @type {Uint32Array} */ (page.geometry.index?.array);
        const position = /** @type {Int16Array} */ (page.geometry.getAttribute('position').array);
        const colour = new Float64Array(3);
        light.colour(colour, look.surfaces.get(material)?.[0] ?? facts.colour, placements.object[index], false);
        drawTriangles(raster, order.subarray(start, start + count), position, facts.scale, world, seen, camera.position, light, colour);
        triangles += count / 3;
    }
    return triangles + 1;
}

const CORNERS = [new Vector3(), new Vector3(), new Vector3()];

/**
 * @param {Raster} raster
 * @param {Uint32Array} order vertices of the triangles
 * @param {Int16Array} position of the vertices, four entries each
 * @param {number[]} scale metres
 * @param {Matrix4} world
 * @param {Matrix4} seen from the world to the picture
 * @param {Vector3} eye
 * @param {Light} light
 * @param {Float64Array} colour squared
 */
function drawTriangles(raster, order, position, scale, world, seen, eye, light, colour) {
    const shape = new Float64Array(9);
    const normal = new Float64Array(3);
    const [a, b, c] = CORNERS;
    const edge = new Vector3();
    for (let first = 0; first + 2 < order.length; first += 3) {
        for (let corner = 0; corner < 3; corner++) {
            const vertex = order[first + corner] * 4;
            CORNERS[corner]
                .set(
                    (position[vertex] / 32767) * scale[0],
                    (position[vertex + 1] / 32767) * scale[1],
                    (position[vertex + 2] / 32767) * scale[2],
                )
                .applyMatrix4(world);
        }
        const facing = edge.subVectors(b, a).cross(new Vector3().subVectors(c, a));
        const length = facing.length();
        if (length === 0) continue;
        const side = facing.dot(new Vector3().subVectors(a, eye)) > 0 ? -1 : 1;
        normal.set([facing.x / length, facing.y / length, facing.z / length]);
        for (let corner = 0; corner < 3; corner++) {
            const { x, y, z } = CORNERS[corner].applyMatrix4(seen);
            shape[corner * 3] = (x + 1) * 0.5 * raster.width;
            shape[corner * 3 + 1] = (1 - y) * 0.5 * raster.height;
            shape[corner * 3 + 2] = z;
        }
        raster.fill(shape, 9, light.on(colour, normal, 0, side), 1);
    }
}

/** Half as large, so that edges are smooth. @param {Raster} raster @param {number} width @param {number} height */
function addressOf(raster, width, height) {
    const whole = document.createElement('canvas');
    [whole.width, whole.height] = [raster.width, raster.height];
    const bytes = new Uint8ClampedArray(/** @type {ArrayBuffer} */ (raster.pixels.buffer));
    whole.getContext('2d')?.putImageData(new ImageData(bytes, raster.width, raster.height), 0, 0);
    const board = document.createElement('canvas');
    [board.width, board.height] = [width, height];
    const pen = board.getContext('2d');
    if (pen) {
        pen.imageSmoothingQuality = 'high';
        pen.drawImage(whole, 0, 0, width, height);
    }
    return board.toDataURL('image/png');
}

import { Vector4 } from 'three';

/**
 * Where a place is in the picture.
 * @param {import('./canvas.js').Canvas} canvas
 * @param {number[]} place metres as the canvas counts
 * @returns {[number, number] | null} pixels from the top left; null behind the camera
 */
export function spotOf({ viewpoint: { camera }, element: { clientWidth, clientHeight } }, [x, y, z]) {
    camera.updateMatrixWorld();
    const point = new Vector4(x, y, z, 1).applyMatrix4(camera.matrixWorldInverse).applyMatrix4(camera.projectionMatrix);
    if (point.w <= 1e-6) return null;
    return [((point.x / point.w + 1) / 2) * clientWidth, ((1 - point.y / point.w) / 2) * clientHeight];
}

import { cutsOf } from '../bench/cuts.js';
import { linesOf } from '../bench/edges.js';
import { inflated } from '../bench/inflated.js';
import { coloursOf } from '../bench/tint.js';

/**
 * What the server says of a step.
 * @typedef {object} Step
 * @property {number} revision of the project
 * @property {number} view its number
 * @property {string} name
 * @property {string} note
 * @property {string} states
 * @property {import('../canvas/camera.js').Sight | null} camera
 * @property {(import('../bench/cuts.js').Kept & {origin: number[]}) | null} section
 * @property {{codes: string, colours: string[]} | null} tint
 * @property {{codes: string, entries: {colour: string, line: number}[]} | null} edges
 * @property {{says: string, layers: [string, number][]}} [leaves] what a picture of it leaves out
 */

/**
 * Shows on a canvas what a step shows.
 * @param {import('../canvas/canvas.js').Canvas} canvas
 * @param {Step} step
 * @param {string} faces the address of its cut faces
 * @param {() => boolean} isStill whether the step is still wanted
 * @returns {Promise<boolean>} false where its cut faces could not be had
 */
export async function stage(canvas, { states, tint, edges, section }, faces, isStill) {
    const cuts = section ? cutsOf(section, section.origin) : [];
    const [rungs, codes, lines] = await Promise.all([states, tint?.codes, edges?.codes].map(unpacked));
    if (!isStill()) return true;
    canvas.setState(rungs, new Uint8Array(0));
    canvas.setTint(tint ? coloursOf(codes, tint.colours) : null);
    canvas.setLines(edges ? linesOf(wide(lines), edges.entries) : null);
    canvas.setCuts(cuts, false);
    canvas.setCaps(new ArrayBuffer(8));
    if (cuts.length === 0) return true;
    const response = await fetch(faces).catch(() => null);
    const bytes = response?.ok ? await response.arrayBuffer() : null;
    if (bytes && isStill()) canvas.setCaps(bytes);
    return bytes !== null;
}

/** @param {string | undefined} bytes */
async function unpacked(bytes) {
    return bytes === undefined ? new Uint8Array(0) : inflated(bytes);
}

/** @param {Uint8Array} bytes two for each number */
function wide(bytes) {
    return new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.length >> 1);
}

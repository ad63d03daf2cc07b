import { cutsOf } from '../bench/cuts.js';
import { linesOf } from '../bench/edges.js';
import { inflated } from '../bench/inflated.js';
import { coloursOf } from '../bench/tint.js';

/**
 * What the server says of a step.
 * @typedef {object} Step
 * @property {number} revision of the project
 * @property {string} name
 * @property {string} note
 * @property {string} states
 * @property {import('../canvas/camera.js').Sight | null} camera
 * @property {(import('../bench/cuts.js').Kept & {origin: number[]}) | null} section
 * @property {{codes: string, colours: string[]} | null} tint
 * @property {{codes: string, entries: {colour: string, line: number}[]} | null} edges
 */

/**
 * Shows on a canvas what a step shows.
 * @param {import('../canvas/canvas.js').Canvas} canvas
 * @param {Step} step
 * @param {string} faces the address of its cut faces
 * @param {() => boolean} isStill whether the step is still wanted when they have come
 */
export async function stage(canvas, { states, tint, edges, section }, faces, isStill) {
    const cuts = section ? cutsOf(section, section.origin) : [];
    canvas.setState(await inflated(states), new Uint8Array(0));
    canvas.setTint(tint ? coloursOf(await inflated(tint.codes), tint.colours) : null);
    canvas.setLines(edges ? linesOf(wide(await inflated(edges.codes)), edges.entries) : null);
    canvas.setCuts(cuts, false);
    canvas.setCaps(new ArrayBuffer(8));
    if (cuts.length === 0) return;
    const response = await fetch(faces).catch(() => null);
    if (response?.ok && isStill()) canvas.setCaps(await response.arrayBuffer());
}

/** @param {Uint8Array} bytes two for each number */
function wide(bytes) {
    return new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.length >> 1);
}

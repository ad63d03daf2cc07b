import { inflated } from './inflated.js';

/** How the edges of objects are drawn: the line styles of their layers and tags. */
export class Edges {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.stamp = '';
        /** How the whole canvas draws them. */
        this.mode = 'own';
    }

    /** @param {string} mode */
    turn(mode) {
        if (mode === this.mode) return;
        this.mode = mode;
        this.bench.canvas.setEdges(mode);
    }

    /** @param {string} stamp changes whenever lines may have changed; empty where nothing has any */
    async read(stamp) {
        if (stamp === this.stamp) return undefined;
        this.stamp = stamp;
        if (stamp === '') return this.bench.canvas.setLines(null);
        const edges = await this.bench.server.json('/edges');
        if (!edges || stamp !== this.stamp) return undefined;
        const bytes = await inflated(edges.codes);
        const codes = new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.length >> 1);
        return this.bench.canvas.setLines(linesOf(codes, edges.entries));
    }
}

/**
 * @param {Uint16Array} codes by object number: the entry, counted from 1, 0 for none
 * @param {{colour: string, line: number}[]} entries
 * @returns {Uint8Array} red, green, blue and line style by object number
 */
export function linesOf(codes, entries) {
    const styles = entries.map(({ colour, line }) => [...[1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16)), line]);
    const lines = new Uint8Array(codes.length * 4);
    for (let number = 0; number < codes.length; number++) if (codes[number] > 0) lines.set(styles[codes[number] - 1], number * 4);
    return lines;
}

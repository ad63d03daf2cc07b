import { DOT } from './detail.js';

/** Hears that objects have got other meshes, as when a coarser one was put in place of one that was too fine, and has them drawn so. */
export class Meshed {
    /** @param {import('./canvas.js').Canvas} canvas */
    constructor(canvas) {
        this.canvas = canvas;
        /** How often objects have got other meshes, as far as is known; 0 before anything is. */
        this.times = -1;
        /** Whether it was heard while objects were on their way: some of those have come with what they had before. */
        this.early = false;
        this.asking = Promise.resolve();
    }

    /** @param {number} times */
    hear(times) {
        const changed = this.times >= 0 && times !== this.times;
        this.times = times;
        if (changed && this.canvas.loading) this.early = true;
        else if (changed) this.ask();
    }

    /** Everything is here. */
    loaded() {
        if (this.early) this.ask();
        this.early = false;
    }

    /** One after the other: what was asked first must not come last. */
    ask() {
        this.asking = this.asking.then(() => this.follow()).catch(() => undefined);
    }

    async follow() {
        const { arriving, placements, painter } = this.canvas;
        const meshes = await arriving.meshes();
        const changed = changedIn(placements, meshes);
        for (let at = 0; at < changed.length; at += 100000)
            await arriving.some(changed.subarray(at, at + 100000), (read) => {
                for (const index of placements.replace(read)) painter.detail.level[index] = DOT;
            });
        this.canvas.packs.settle();
        this.canvas.stale = true;
    }
}

/**
 * @param {import('./placements.js').Placements} placements
 * @param {Uint32Array} meshes by object number
 * @returns {Uint32Array} numbers of the objects that are drawn with another mesh than they should be
 */
export function changedIn(placements, meshes) {
    const changed = new Set();
    for (let index = 0; index < placements.count; index++) {
        const number = placements.object[index];
        const wanted = meshes[number] ?? 0;
        if (wanted > 0 && placements.facts[placements.mesh[index]].number !== wanted) changed.add(number);
    }
    return Uint32Array.from(changed);
}

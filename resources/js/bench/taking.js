import { inflated } from './inflated.js';

const LABELS = { part: 'Part', group: 'Group', outermost: 'Outermost group' };

/** What a click takes: the part, the group that it is in, or the outermost group; and the group that somebody stepped into. */
export class Taking {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        /** @type {keyof typeof LABELS} */
        this.mode = 'part';
        /** Groups that were stepped into, the deepest last. @type {{number: number, name: string}[]} */
        this.steps = [];
        this.revision = -1;
        /** What has been asked for about it last. @type {Promise<any>} */
        this.settled = Promise.resolve();
    }

    get inside() {
        return this.steps[this.steps.length - 1]?.number ?? 0;
    }

    /** What the server needs to take the same. */
    get values() {
        return { take: this.mode, inside: this.inside };
    }

    /** @param {keyof typeof LABELS} mode */
    choose(mode) {
        this.mode = mode;
        this.steps = [];
        return this.settle();
    }

    next() {
        const modes = /** @type {(keyof typeof LABELS)[]} */ (Object.keys(LABELS));
        return this.choose(modes[(modes.indexOf(this.mode) + 1) % modes.length]);
    }

    /** A click there takes what is in the group from now on. @param {number} number @param {string} name */
    stepInto(number, name) {
        this.mode = 'outermost';
        this.steps.push({ number, name });
        return this.settle();
    }

    /** @returns {boolean} whether there was a group to step out of */
    stepOut() {
        if (this.steps.length === 0) return false;
        this.steps.pop();
        this.settle();
        return true;
    }

    /** Objects came or went: what is taken has changed. @param {number} revision */
    hears(revision) {
        if (this.mode !== 'part' && revision !== this.revision) this.settle();
    }

    /**
     * What a click on a part takes, as the page says it: who clicks sooner than that is known waits for it.
     * @param {number} part
     * @returns {Promise<number>}
     */
    async takenBy(part) {
        const { settled } = this;
        await settled;
        // Something else may have been asked for meanwhile.
        if (settled !== this.settled) return this.takenBy(part);
        return this.bench.canvas.takenBy(part);
    }

    settle() {
        return (this.settled = this.ask());
    }

    async ask() {
        const label = /** @type {HTMLElement} */ (document.getElementById('taking'));
        const step = this.steps[this.steps.length - 1];
        label.textContent = step ? `In ${step.name}` : LABELS[this.mode];
        this.revision = this.bench.revisions?.revision ?? -1;
        if (this.mode === 'part') return this.bench.canvas.setTakes(null);
        const { mode, inside } = this;
        const answer = await this.bench.server.json(`/takes?take=${mode}&inside=${inside}`);
        if (!answer || mode !== this.mode || inside !== this.inside) return undefined;
        const bytes = await inflated(answer.taken);
        return this.bench.canvas.setTakes(new Uint32Array(bytes.buffer, bytes.byteOffset, bytes.length >> 2));
    }

    /** @param {HTMLElement} from */
    open(from) {
        this.bench.menus.back = from;
        this.bench.menus.show(
            from,
            undefined,
            /** @type {(keyof typeof LABELS)[]} */ (Object.keys(LABELS)).map((mode) => [
                `A click takes the ${LABELS[mode].toLowerCase()}`,
                this.mode === mode && this.steps.length === 0 ? '✓' : '',
                () => this.choose(mode),
            ]),
        );
    }
}

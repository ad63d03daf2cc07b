/** Has answers of placements read beside the page, in the order in which they come. */
export class Reading {
    constructor() {
        this.worker = new Worker(new URL('./readingbeside.js', import.meta.url), { type: 'module' });
        /** @type {{resolve: (read: any) => void, reject: (error: Error) => void}[]} */
        this.waiting = [];
        this.worker.addEventListener('message', ({ data }) => this.waiting.shift()?.resolve(data));
        const fail = () => {
            for (const { reject } of this.waiting.splice(0)) reject(new Error('Placements could not be read.'));
        };
        this.worker.addEventListener('error', fail);
        this.worker.addEventListener('messageerror', fail);
    }

    /**
     * @param {ArrayBuffer} buffer given away
     * @param {boolean} anew whether objects count that have come before
     * @returns {Promise<import('./reader.js').Read>}
     */
    of(buffer, anew) {
        return new Promise((resolve, reject) => {
            this.waiting.push({ resolve, reject });
            this.worker.postMessage({ buffer, anew }, [buffer]);
        });
    }
}

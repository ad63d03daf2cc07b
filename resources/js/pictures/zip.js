import { Zip, ZipPassThrough } from 'fflate';

/** A zip that grows file by file. Its files are pictures, which do not get any smaller: they are put in as they are. */
export class Bundle {
    constructor() {
        /** @type {Uint8Array<ArrayBuffer>[]} */
        this.parts = [];
        /** @type {Error | null} */
        this.wrong = null;
        this.zip = new Zip((wrong, bytes) => {
            if (wrong) this.wrong = wrong;
            else this.parts.push(/** @type {Uint8Array<ArrayBuffer>} */ (bytes));
        });
    }

    /** @param {string} name @param {Blob} file */
    async add(name, file) {
        const entry = new ZipPassThrough(name);
        this.zip.add(entry);
        entry.push(new Uint8Array(await file.arrayBuffer()), true);
        if (this.wrong) throw this.wrong;
    }

    /** @returns {Blob} the whole */
    end() {
        this.zip.end();
        if (this.wrong) throw this.wrong;
        return new Blob(this.parts, { type: 'application/zip' });
    }
}

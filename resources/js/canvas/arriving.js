import { Reading } from './reading.js';
import { versionsIn } from './versions.js';

/** Milliseconds for which the next objects wait until the first have been seen. */
const SEEN_MS = 2500;

/** Fetches what is drawn: placements of objects, the biggest first, and pictures of materials. Packs of meshes are fetched by need. */
export class Arriving {
    /**
     * @param {HTMLElement} element hears `shelf:drawn`, and is told `shelf:failed` with the answer when something could not be fetched
     * @param {import('./canvas.js').Settings} settings
     * @param {(read: import('./reader.js').Read) => void} came
     */
    constructor(element, settings, came) {
        this.element = element;
        this.settings = settings;
        this.came = came;
        // The biggest objects are asked for before anything else is set up.
        this.early = fetch(`${settings.records}?part=0`);
        this.reading = new Reading();
    }

    /** Everything that is on show. @param {() => void} first what is done once the biggest objects are here */
    async all(first) {
        let parts = (await this.read(this.early))?.parts ?? 0;
        first();
        // The next ones would keep the first from being seen.
        const seen = new Promise((resolve) => this.element.addEventListener('shelf:drawn', resolve, { once: true }));
        await Promise.race([seen, new Promise((resolve) => setTimeout(resolve, SEEN_MS))]);
        for (let part = 1; part <= parts; part++) parts = (await this.read(fetch(`${this.settings.records}?part=${part}`)))?.parts ?? parts;
    }

    /**
     * Objects that were not on show.
     * @param {Uint32Array} numbers
     * @param {(read: import('./reader.js').Read) => void} [again] what becomes of them where all of them have come before
     */
    some(numbers, again) {
        return this.read(
            fetch(this.settings.records, {
                method: 'POST',
                body: /** @type {any} */ (numbers),
                headers: { 'X-CSRF-TOKEN': this.settings.csrf, 'Content-Type': 'application/octet-stream' },
            }),
            again,
        );
    }

    /** @param {Promise<Response>} asked @param {(read: import('./reader.js').Read) => void} [again] */
    async read(asked, again) {
        let response = null;
        try {
            response = await asked;
            if (!response.ok) return void this.fail(response);
            const read = await this.reading.of(await response.arrayBuffer(), again !== undefined);
            (again ?? this.came)(read);
            return read;
        } catch {
            this.fail(null);
        }
    }

    /** @param {Response | null} response nothing when there was none */
    fail(response) {
        this.element.dispatchEvent(new CustomEvent('shelf:failed', { detail: { response }, bubbles: true }));
    }

    /** @returns {Promise<ReturnType<typeof versionsIn>>} coarser versions by mesh number; none where they cannot be had now */
    async versions() {
        try {
            const response = await fetch(this.settings.versions);
            return versionsIn(response.ok ? await response.arrayBuffer() : new ArrayBuffer(0));
        } catch {
            return new Map();
        }
    }

    /** @returns {Promise<Uint32Array>} the mesh that each object is drawn with, by object number */
    async meshes() {
        const response = await fetch(this.settings.meshes);
        if (!response.ok) throw new Error(String(response.status));
        return new Uint32Array(await response.arrayBuffer());
    }

    /** @returns {Promise<Map<number, ImageBitmap>>} pictures of materials by number; one that cannot be shown is missing */
    async pictures() {
        const wanted = new Set(
            Object.values(this.settings.materials)
                .flatMap(([, picture, , , , , relief]) => [picture, relief])
                .filter((picture) => picture !== null),
        );
        const pictures = new Map();
        await Promise.all(
            [...wanted].map(async (number) => {
                try {
                    const response = await fetch(`${this.settings.textures}/${number}`);
                    if (response.ok) pictures.set(number, await createImageBitmap(await response.blob()));
                } catch {
                    // A texture that cannot be shown leaves its material's colour.
                }
            }),
        );
        return pictures;
    }
}

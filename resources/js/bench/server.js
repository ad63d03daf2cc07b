import { htmx } from '../htmx.js';
import { whileBusy } from './busy.js';
import { explain } from './failures.js';

/** Asks the server to do something; it answers with the parts of the workbench that changed, and htmx puts them in place. */
export class Server {
    /**
     * @param {string} base address of the workbench
     * @param {() => Record<string, string | number>} windowNow what the ledger shows, so that the answer can bring it up to date
     */
    constructor(base, windowNow) {
        this.base = base;
        this.windowNow = windowNow;
        /** Name of this window, see {@link OwnWindow}. */
        this.window = '';
        /** Requests run one after another: each starts from what the one before left behind. @type {Promise<any>} */
        this.last = Promise.resolve();
    }

    /**
     * @param {'GET' | 'POST' | 'PATCH' | 'DELETE'} method
     * @param {string} path below the workbench's address
     * @param {Record<string, any>} [values]
     * @returns {Promise<number>} the answer's status, 0 when there was none
     */
    ask(method, path, values = {}) {
        // One that fails must not keep those behind it waiting.
        this.last = this.last.catch(() => 0).then(() => this.send(method, path, values));
        return this.last;
    }

    /**
     * @param {string} method
     * @param {string} path
     * @param {Record<string, any>} values
     */
    async send(method, path, values) {
        // A source of its own: htmx lets one request wait per source and drops others.
        const source = document.createElement('span');
        source.hidden = true;
        document.body.append(source);
        let status = 0;
        source.addEventListener('htmx:after:request', (event) => (status = /** @type {CustomEvent} */ (event).detail.ctx.response.status));
        document.body.classList.add('asking');
        try {
            const answer = htmx.ajax(method, this.base + path, {
                source,
                target: '#message',
                swap: 'none',
                values: { ...this.windowNow(), ...values },
            });
            await whileBusy('Working', answer, method === 'GET' ? undefined : () => this.waiting());
        } finally {
            source.remove();
            document.body.classList.remove('asking');
        }
        return status;
    }

    /** Whose change somebody's own waits for, in words; "" where it does not. */
    async waiting() {
        const response = await fetch(`${this.base}/waiting`, { headers: { Accept: 'application/json' } }).catch(() => null);
        return response?.ok ? String((await response.json()).says) : '';
    }

    /**
     * A piece of HTML, for a dialog.
     * @param {string} path
     */
    async html(path) {
        const response = await this.fetch(path, { headers: { 'HX-Request': 'true' } });
        return response?.text() ?? null;
    }

    /** Bytes, for the canvas, and how much was left out of them. @param {string} path @returns {Promise<[ArrayBuffer, number] | null>} */
    async binary(path) {
        const response = await this.fetch(path, {});
        return response ? [await response.arrayBuffer(), Number(response.headers.get('X-Left') ?? 0)] : null;
    }

    /**
     * A question whose answer is data. Lists are sent entry by entry.
     * @param {string} path
     * @param {Record<string, any>} values
     */
    async post(path, values) {
        const body = new URLSearchParams();
        for (const [name, value] of Object.entries(values))
            for (const each of Array.isArray(value) ? value : [value]) body.append(name, String(each));
        const token = /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content;
        const response = await this.fetch(path, { method: 'POST', body, headers: { Accept: 'application/json', 'X-CSRF-TOKEN': token } });
        return response?.json() ?? null;
    }

    /** A piece of HTML that follows from something longer than an address. @param {string} path @param {Record<string, string>} values */
    async htmlOf(path, values) {
        const token = /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content;
        const response = await this.fetch(path, {
            method: 'POST',
            body: new URLSearchParams(values),
            headers: { 'HX-Request': 'true', 'X-CSRF-TOKEN': token },
        });
        return response?.text() ?? null;
    }

    /** @param {string} path */
    async json(path) {
        const response = await this.fetch(path, { headers: { Accept: 'application/json' } });
        return response?.json() ?? null;
    }

    /** @param {string} path @param {RequestInit} how @returns {Promise<Response | null>} nothing when it failed; the page then says why */
    async fetch(path, how) {
        const headers = { ...how.headers, ...(this.window === '' ? {} : { 'X-Window': this.window }) };
        const response = await fetch(this.base + path, { ...how, headers }).catch(() => null);
        if (response?.ok) return response;
        await explain(response);
        return null;
    }
}

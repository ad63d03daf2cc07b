import { noteWindow } from '../wayback.js';

/**
 * Each window has its own lens, columns, sorting, folding, width, line and camera. The server remembers them under the window's name, which
 * stands in the address, so that they are there again when it is loaded anew; a window that was doubled takes a name of its own.
 */
export class OwnWindow {
    /**
     * @param {import('./server.js').Server} server
     * @param {string} line what the line of the window says when it is loaded
     */
    constructor(server, line) {
        this.line = line;
        this.server = server;
        this.name = document.body.dataset.window ?? '';
        /** Until the server knows of this window what another one begins with. @type {Promise<any>} */
        this.ready = Promise.resolve();
        if (this.name === '') return;
        this.write();
        const born = Math.random();
        const others = new BroadcastChannel(`windows:${server.base}`);
        others.addEventListener('message', ({ data }) => {
            if (data.asks === this.name && data.born !== born) others.postMessage({ taken: this.name, for: data.born });
            else if (data.for === born && data.taken === this.name) this.ready = this.part();
        });
        others.postMessage({ asks: this.name, born });
    }

    /** Takes a name of its own, and begins as the window of which this is a copy. */
    part() {
        const like = this.name;
        this.name = Array.from(crypto.getRandomValues(new Uint8Array(6)), (byte) => byte.toString(16).padStart(2, '0')).join('');
        this.write();
        return this.tell({ like });
    }

    /** The line is this window's own. @param {string} line */
    keepLine(line) {
        if (this.name === '' || line === this.line) return;
        this.line = line;
        this.ready = this.ready.then(() => this.tell({ line }));
    }

    /** @param {Record<string, string>} values */
    tell(values) {
        const token = /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content;
        const headers = { 'X-CSRF-TOKEN': token, Accept: 'application/json' };
        return this.server.fetch('/ledger/window', { method: 'POST', headers, body: new URLSearchParams(values) });
    }

    write() {
        const address = new URL(location.href);
        address.searchParams.set('w', this.name);
        address.searchParams.delete('like');
        history.replaceState(history.state, '', address);
        noteWindow(this.server.base, this.name);
        this.server.window = this.name;
        const headers = JSON.parse(document.body.getAttribute('hx-headers:inherited') ?? '{}');
        document.body.setAttribute('hx-headers:inherited', JSON.stringify({ ...headers, 'X-Window': this.name }));
    }
}

/** What this window remembers; what the last one remembered where it has nothing yet. @param {string} entry */
export function remembered(entry) {
    return sessionStorage.getItem(entry) ?? localStorage.getItem(entry);
}

/** Remembers something for this window, and for the next new one. @param {string} entry @param {string} value */
export function remember(entry, value) {
    sessionStorage.setItem(entry, value);
    localStorage.setItem(entry, value);
}

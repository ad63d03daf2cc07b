import { posted } from '../posted.js';
import { save } from '../save.js';
import { explain, tooLarge } from './failures.js';

/** Bytes that a file may have at most; the server takes no more. */
const MOST = 64_000_000;

/**
 * Saves views as BCF, and says what the format could not take along.
 *
 * @param {import('./workbench.js').Workbench} bench
 * @param {string} as "2.1" or "3.0"
 * @param {string[]} [keys] of views and folders; none means all
 */
export async function writeBcf(bench, as, keys = []) {
    const query = new URLSearchParams({ as, ...(keys.length > 0 ? { keys: keys.join(',') } : {}) });
    const response = await fetch(`${bench.server.base}/bcf?${query}`, { headers: { 'HX-Request': 'true' } }).catch(() => null);
    if (!response?.ok) return explain(response);
    const name = nameOf(response);
    save(await response.blob(), name);
    const remarks = JSON.parse(decodeURIComponent(response.headers.get('X-Remarks') ?? '[]'));
    return bench.say([`Saved ${name}.`, ...remarks].join(' '));
}

/** Asks for a BCF file, and reads its viewpoints as views. @param {import('./workbench.js').Workbench} bench */
export function readBcf(bench) {
    const input = Object.assign(document.createElement('input'), { type: 'file', accept: '.bcf,.bcfzip' });
    input.addEventListener('change', async () => {
        const file = input.files?.[0];
        if (!file || tooLarge(file, MOST)) return;
        const body = new FormData();
        body.append('file', file);
        const response = await posted(`${bench.server.base}/bcf`, body);
        if (!response?.ok) return explain(response);
        const { says, remarks } = await response.json();
        await bench.server.ask('GET', '/pulse', { revision: 0, desk: 0 });
        bench.say([says, ...remarks].join(' '));
    });
    input.click();
}

/** @param {Response} response */
function nameOf(response) {
    const said = response.headers.get('Content-Disposition') ?? '';
    const name = /filename\*=utf-8''([^;]+)/i.exec(said)?.[1];
    return name ? decodeURIComponent(name) : (/filename="?([^";]+)"?/.exec(said)?.[1] ?? 'views.bcf');
}

import { posted, sayRefused, valuesOf } from '../posted.js';
import { explain } from './failures.js';

/**
 * Links for people without an account, and what these have said.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} dialog
 */
export function listenToSharing(bench, dialog) {
    dialog.addEventListener('submit', (event) => {
        const form = /** @type {HTMLFormElement} */ (event.target);
        if (form.id !== 'share-new') return;
        event.preventDefault();
        make(bench, form);
    });
    dialog.addEventListener('change', async ({ target }) => {
        if (!(target instanceof HTMLInputElement) || !target.dataset.mayComment) return;
        const isDone = await send(bench, `/share-links/${target.dataset.mayComment}/change`, { may_comment: target.checked ? '1' : '' });
        if (!isDone) target.checked = !target.checked;
    });
    dialog.addEventListener('click', async (event) => {
        const on = /** @type {Element} */ (event.target);
        const button = /** @type {HTMLElement | null} */ (on.closest('[data-copy], [data-revoke], [data-settle], [data-said-at]'));
        if (!button) return;
        const { copy, revoke, back = '', settle, done = '1', saidAt, by = '', words = '' } = button.dataset;
        const view = Number(dialog.dataset.view);
        if (copy) await copied(bench, copy);
        if (revoke && (await send(bench, `/share-links/${revoke}/revoke`, { back }))) await openSharing(bench);
        if (settle && (await send(bench, `/comments/${settle}/settle`, { done }))) await openComments(bench, view);
        if (saidAt) {
            bench.dialogs.close();
            await bench.commentMark.show(view, JSON.parse(saidAt), by, words);
        }
    });
}

/**
 * @param {import('./workbench.js').Workbench} bench
 * @param {string[]} [keys] of folders and views; all without them
 * @param {number} [made] id of a link whose address is shown
 */
export function openSharing(bench, keys = [], made = 0) {
    const asked = new URLSearchParams({
        ...(keys.length > 0 ? { keys: keys.join(',') } : {}),
        ...(made > 0 ? { made: String(made) } : {}),
    });
    return bench.openDialog(`/share-links?${asked}`);
}

/** @param {import('./workbench.js').Workbench} bench @param {number} view */
export async function openComments(bench, view) {
    bench.dialogs.element.dataset.view = String(view);
    await bench.openDialog(`/comments?view=${view}`);
}

/** @param {import('./workbench.js').Workbench} bench @param {HTMLFormElement} form */
async function make(bench, form) {
    const response = await posted(`${bench.server.base}/share-links`, valuesOf(form));
    if (!response?.ok) return sayRefused(form, response);
    const { address, id } = await response.json();
    const { keys } = /** @type {{keys: string}} */ (Object.fromEntries(valuesOf(form)));
    await openSharing(bench, keys === 'all' ? [] : keys.split(','), id);
    await copied(bench, address);
}

/** @param {import('./workbench.js').Workbench} bench @param {string} address */
async function copied(bench, address) {
    try {
        await navigator.clipboard.writeText(address);
        bench.say('The link is copied.');
    } catch {
        bench.say(address);
    }
}

/**
 * @param {import('./workbench.js').Workbench} bench
 * @param {string} path
 * @param {Record<string, string>} values
 * @returns {Promise<boolean>}
 */
async function send(bench, path, values) {
    const response = await posted(bench.server.base + path, new URLSearchParams(values));
    if (!response?.ok) {
        await explain(response);
        return false;
    }
    bench.say((await response.json()).says);
    return true;
}

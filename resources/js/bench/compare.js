/**
 * The dialog that compares two states: another pair, a bar between their pictures, what only one has picked, and both in the canvas.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} dialog
 */
export function listenToCompare(bench, dialog) {
    const formOf = (/** @type {EventTarget | null} */ target) =>
        /** @type {HTMLElement | null} */ (target instanceof Element ? target.closest('[data-compare]') : null);
    dialog.addEventListener('change', ({ target }) => {
        const form = formOf(target);
        if (!form || !(target instanceof HTMLSelectElement) || !target.matches('[data-compare-choose]')) return;
        openCompare(bench, { ...pairOf(form), [target.name]: target.value }, target.id);
    });
    dialog.addEventListener('input', ({ target }) => {
        if (!(target instanceof HTMLInputElement) || !target.matches('[data-compare-cut]')) return;
        /** @type {HTMLElement | null} */ (dialog.querySelector('.compare-stack'))?.style.setProperty('--cut', `${target.value}%`);
    });
    dialog.addEventListener('click', (event) => {
        const form = formOf(event.target);
        const on = /** @type {Element} */ (event.target);
        const pick = /** @type {HTMLElement | null} */ (on.closest('[data-compare-pick]'));
        if (!form || (!pick && !on.closest('[data-compare-tint]'))) return;
        const pair = pairOf(form);
        const mode = event.shiftKey ? 'add' : event.altKey ? 'remove' : 'replace';
        if (pick) bench.server.ask('POST', '/compare/pick', { ...pair, which: pick.dataset.comparePick, mode });
        else bench.server.ask('POST', '/compare', pair);
        bench.dialogs.close();
    });
}

/** @param {HTMLElement} form @returns {Record<string, string>} */
function pairOf({ dataset: { first = '', second = '' } }) {
    return { first, second };
}

/**
 * @param {import('./workbench.js').Workbench} bench
 * @param {Record<string, string>} [pair]
 * @param {string} [focus] id of what has the focus then
 */
export async function openCompare(bench, pair = {}, focus = '') {
    await bench.openDialog(`/compare?${new URLSearchParams(pair)}`);
    if (focus !== '') document.getElementById(focus)?.focus();
}

import { sentenceOf } from './failures.js';

const EVERY = 400;

/**
 * Lightening, in the weight panel: asks for rungs that fit, says how far that is, shows what it loses, and applies it or gives it back.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} panel
 */
export function listenToLightening(bench, panel) {
    const find = (/** @type {string} */ what) => /** @type {HTMLElement | null} */ (panel.querySelector(what));
    const keyShown = () => find('[data-lightening]')?.dataset.lightening ?? '';
    /** Counts what was asked for: what comes late is not shown any more. */
    let turn = 0;

    panel.addEventListener('submit', async (event) => {
        const form = /** @type {HTMLFormElement} */ (event.target);
        if (!form.matches('[data-lighten-ask]')) return;
        event.preventDefault();
        const asked = ++turn;
        const { html, error } = await ask(bench, '/lighten', valuesOf(bench, form));
        if (asked !== turn || !form.isConnected) return;
        const line = /** @type {HTMLElement} */ (form.querySelector('.error'));
        line.hidden = error === '';
        line.textContent = error;
        if (html !== '') show(html);
    });

    panel.addEventListener('input', ({ target }) => {
        const input = /** @type {HTMLInputElement} */ (target);
        if (input.matches('[data-lighten-slide]')) /** @type {HTMLInputElement} */ (find('#lighten-triangles')).value = input.value;
        if (input.matches('#lighten-triangles')) /** @type {HTMLInputElement} */ (find('[data-lighten-slide]')).value = input.value;
        if (input.matches('#lighten-from')) {
            const views = find('[data-lighten-views]');
            if (views) views.hidden = input.value !== 'views';
        }
        if (input.matches('[data-lighten-cut]')) find('.lighten-stack')?.style.setProperty('--cut', `${input.value}%`);
        if (input.matches('[data-lighten-lost]')) {
            /** @type {HTMLElement} */ (find('[data-picture=lost]')).hidden = !input.checked;
            /** @type {HTMLElement} */ (find('[data-picture=after]')).hidden = input.checked;
        }
    });

    panel.addEventListener('click', async (event) => {
        const button = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-lighten-do]'));
        if (!button) return;
        const { lightenDo: what, layer = '0' } = button.dataset;
        const key = keyShown();
        if (what === 'stop') {
            const html = await bench.server.htmlOf(`/lighten/${key}/stop`, {});
            if (html !== null && keyShown() === key) show(html);
            return;
        }
        const mode = event.shiftKey ? 'add' : event.altKey ? 'remove' : 'replace';
        const status = await bench.server.ask('POST', `/lighten/${key}/${what}`, what === 'pick' ? { layer, mode } : {});
        if (what === 'pick' || status !== 200 || keyShown() !== key) return;
        const html = await bench.server.html(`/lighten/${key}`);
        if (html === null || keyShown() !== key) return;
        show(html);
        find('.acts button')?.focus();
    });

    // One that was asked for before the panel was closed, or the page left, goes on.
    new MutationObserver(() => follow()).observe(panel, { childList: true });
    let followed = '';

    /** @param {string} html */
    function show(html) {
        const result = find('[data-lighten-result]');
        if (!result) return;
        result.innerHTML = html;
        followed = '';
        follow();
    }

    function follow() {
        const shown = find('[data-lightening]');
        const key = keyShown();
        if (!shown || shown.dataset.over === '1' || followed === key) return;
        followed = key;
        setTimeout(async () => {
            if (keyShown() !== key) return;
            const html = await bench.server.html(`/lighten/${key}`);
            followed = '';
            if (html !== null && keyShown() === key) show(html);
        }, EVERY);
    }
}

/** How many are picked, for what is to be kept. @param {import('./workbench.js').Workbench} bench @param {HTMLElement} panel */
export function hearPick(bench, panel) {
    const words = panel.querySelector('[data-lighten-keep]');
    const box = /** @type {HTMLInputElement | null} */ (panel.querySelector('[name=keep]'));
    if (!words || !box) return;
    const { picked } = bench;
    box.disabled = picked === 0;
    box.checked = box.checked && picked > 0;
    words.textContent = `keep what is picked${picked > 0 ? `: ${picked.toLocaleString('en')}` : ''}`;
}

/** @param {import('./workbench.js').Workbench} bench @param {HTMLFormElement} form @returns {Record<string, string>} */
function valuesOf(bench, form) {
    const values = Object.fromEntries([...new FormData(form)].map(([name, value]) => [name, String(value)]));
    const { viewpoint, element } = bench.canvas;
    const { clientWidth: width, clientHeight: height } = element;
    if (values.from === 'camera') values.camera = JSON.stringify({ ...viewpoint.get(), up: viewpoint.camera.up.toArray(), width, height });
    if (values.from === 'views') {
        const chosen = /** @type {NodeListOf<HTMLInputElement>} */ (form.querySelectorAll('[data-lighten-views] input:checked'));
        values.views = [...chosen].map((box) => box.value).join(',');
    }
    return values;
}

/**
 * @param {import('./workbench.js').Workbench} bench
 * @param {string} path
 * @param {Record<string, string>} values
 * @returns {Promise<{html: string, error: string}>} what is wrong with what was asked, in words
 */
async function ask(bench, path, values) {
    const token = /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content;
    const response = await fetch(bench.server.base + path, {
        method: 'POST',
        body: new URLSearchParams(values),
        headers: { 'HX-Request': 'true', 'X-CSRF-TOKEN': token },
    }).catch(() => null);
    const text = (await response?.text()) ?? '';
    if (response?.ok) return { html: text, error: '' };
    const own =
        response?.status === 422 ? new DOMParser().parseFromString(text, 'text/html').querySelector('.warns span')?.textContent : null;
    return { html: '', error: own ?? sentenceOf(response?.status ?? 0) };
}

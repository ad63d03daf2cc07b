import { sentenceOf } from './bench/failures.js';

/**
 * Sends something to the server and hears its answer as data.
 * @param {string} address
 * @param {URLSearchParams | FormData} body
 * @returns {Promise<Response | null>} null where there is no answer
 */
export function posted(address, body) {
    const token = /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content;
    return fetch(address, { method: 'POST', body, headers: { Accept: 'application/json', 'X-CSRF-TOKEN': token } }).catch(() => null);
}

/** What a form says. @param {HTMLFormElement} form @returns {URLSearchParams} */
export function valuesOf(form) {
    return new URLSearchParams([...new FormData(form)].map(([name, value]) => [name, String(value)]));
}

/**
 * Says in a form why it was refused, and goes to the field that is meant.
 * @param {HTMLFormElement} form with a line of the class "error"
 * @param {Response | null} response
 */
export async function sayRefused(form, response) {
    const text = (await response?.text()) ?? '';
    const line = /** @type {HTMLElement} */ (form.querySelector('.error'));
    const { sentence, field } = response?.status === 422 ? refusalIn(text) : { sentence: '', field: '' };
    line.textContent = sentence || sentenceOf(response?.status ?? 0);
    line.hidden = false;
    /** @type {HTMLElement | null} */ (form.querySelector(`[name="${CSS.escape(field)}"]`))?.focus();
}

/** Values that do not fit are refused as data, what cannot be done as part of a page. @param {string} text */
function refusalIn(text) {
    try {
        const said = JSON.parse(text);
        return { sentence: String(said.message ?? ''), field: Object.keys(said.errors ?? {})[0] ?? '' };
    } catch {
        const said = new DOMParser().parseFromString(text, 'text/html').querySelector('.warns');
        return {
            sentence: said?.querySelector('span')?.textContent ?? '',
            field: /** @type {HTMLElement | null} */ (said)?.dataset.field ?? '',
        };
    }
}

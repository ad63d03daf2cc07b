/**
 * Sends a model to the server with progress in bytes; the page may be dropped on anywhere.
 * @param {HTMLFormElement} form
 */
export function startUpload(form) {
    const file = /** @type {HTMLInputElement} */ (form.querySelector('input[type=file]'));
    const progress = /** @type {HTMLElement} */ (form.querySelector('.progress'));
    const bar = /** @type {HTMLElement} */ (progress.querySelector('i'));
    const words = /** @type {HTMLElement} */ (progress.querySelector('p'));
    const error = /** @type {HTMLElement} */ (form.querySelector('.error'));
    const sortBy = /** @type {HTMLSelectElement} */ (form.elements.namedItem('sort_by'));
    /** @type {XMLHttpRequest | null} */
    let request = null;

    const fail = (/** @type {string} */ sentence) => {
        progress.hidden = true;
        error.hidden = false;
        error.textContent = sentence;
        request = null;
        file.value = '';
    };
    const send = async (/** @type {Given[]} */ given) => {
        if (request) return fail('One file is on its way already; wait for it, or stop it.');
        error.hidden = true;
        const { model, complaint } = modelOf(given);
        if (!model) return fail(complaint);
        const body = new FormData(form);
        body.delete('file');
        const name = model.file.name;
        const bytes = put(body, model, given);
        progress.hidden = false;
        words.textContent = `Sending ${name}`;
        const full = await noRoom(form.action, bytes);
        if (full) return fail(full);
        request = transfer(form.action, body, {
            sent: (loaded, total) => {
                bar.style.width = `${(100 * loaded) / Math.max(1, total)}%`;
                words.textContent = `Sending ${name}: ${megabytes(loaded)} of ${megabytes(total)}`;
            },
            done: (answer) => (location.href = answer.page),
            failed: fail,
        });
    };

    file.addEventListener('change', () => {
        const chosen = [...(file.files ?? [])].map((one) => ({ file: one, path: one.name }));
        if (chosen.length > 0) send(chosen);
    });
    form.querySelector('[data-upload-stop]')?.addEventListener('click', () => request?.abort());
    form.addEventListener('submit', (event) => event.preventDefault());
    const showProperty = () => {
        for (const part of /** @type {NodeListOf<HTMLElement>} */ (form.querySelectorAll('[data-shown-for]')))
            part.hidden = part.dataset.shownFor !== sortBy.value;
    };
    sortBy.addEventListener('change', showProperty);
    showProperty();

    let depth = 0;
    addEventListener('dragenter', (event) => {
        if (!event.dataTransfer?.types.includes('Files')) return;
        depth++;
        form.classList.add('over');
    });
    addEventListener('dragleave', () => {
        depth = Math.max(0, depth - 1);
        if (depth === 0) form.classList.remove('over');
    });
    addEventListener('dragover', (event) => event.preventDefault());
    addEventListener('drop', async (event) => {
        event.preventDefault();
        depth = 0;
        form.classList.remove('over');
        if (!event.dataTransfer?.types.includes('Files')) return;
        const given = await dropped(event.dataTransfer);
        if (given.length > 0) send(given);
    });
}

/**
 * Puts the model, with what was given beside it, into what is sent.
 * @param {FormData} body
 * @param {Given} model
 * @param {Given[]} given
 * @returns {number} bytes
 */
export function put(body, model, given) {
    const parts = /\.gltf$/i.test(model.path) && given.length > 1 ? given : [];
    if (parts.length === 0) body.set('file', model.file);
    else for (const part of parts) body.append('parts[]', part.file, part.path);
    return (parts.length > 0 ? parts : [model]).reduce((sum, { file: { size } }) => sum + size, 0);
}

/**
 * Better to hear that there is no room before a file is sent than after.
 * @param {string} address where it is sent
 * @param {number} bytes
 * @returns {Promise<string>} why there is none, "" where there is
 */
export async function noRoom(address, bytes) {
    const room = await fetch(`${address}/room?bytes=${bytes}`, { headers: { Accept: 'application/json' } }).catch(() => null);
    return room?.status === 422 ? (firstError(parsed(await room.text())) ?? 'There is no room for this file.') : '';
}

/**
 * Sends a model.
 * @param {string} address
 * @param {FormData} body
 * @param {{sent: (loaded: number, total: number) => void, done: (answer: any) => void, failed: (sentence: string) => void}} on
 */
export function transfer(address, body, on) {
    const request = new XMLHttpRequest();
    request.open('POST', address);
    request.setRequestHeader('Accept', 'application/json');
    request.setRequestHeader('X-CSRF-TOKEN', /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content);
    request.upload.addEventListener('progress', ({ loaded, total }) => on.sent(loaded, total));
    request.addEventListener('load', () => {
        const answer = parsed(request.responseText);
        if (request.status === 200 && answer.page) on.done(answer);
        else
            on.failed(
                firstError(answer) ??
                    (request.status === 413 ? 'The file is larger than the server takes.' : 'The file could not be sent. Try again.'),
            );
    });
    request.addEventListener('error', () => on.failed('The connection broke while the file was sent. Try again.'));
    request.addEventListener('abort', () => on.failed('Stopped. Nothing was kept.'));
    request.send(body);
    return request;
}

/**
 * A file, and where it stands among those that were given with it.
 * @typedef {{file: File, path: string}} Given
 */

/**
 * The one model among the files.
 * @param {Given[]} given
 * @returns {{model?: Given, complaint: string}}
 */
export function modelOf(given) {
    const models = given.filter(({ path }) => /\.(glb|gltf|zip)$/i.test(path));
    if (models.length === 1) return { model: models[0], complaint: '' };
    const complaint =
        models.length > 1
            ? `These are ${models.length} models; take them in one after the other.`
            : given.length === 1
              ? `“${given[0].path}” is not a .glb, .gltf or .zip file.`
              : 'There is no .glb, .gltf or .zip file among these.';
    return { complaint };
}

/**
 * The files that were dropped, with those in folders.
 * @param {DataTransfer} transfer
 * @returns {Promise<Given[]>}
 */
export async function dropped(transfer) {
    const entries = [...transfer.items].map((item) => item.webkitGetAsEntry?.()).filter((entry) => entry !== null && entry !== undefined);
    if (entries.length === 0) return [...transfer.files].map((file) => ({ file, path: file.name }));
    /** @type {Given[]} */
    const given = [];
    const walk = async (/** @type {any} */ entry) => {
        if (entry.name.startsWith('.')) return;
        if (entry.isFile) {
            const file = await new Promise((done, failed) => entry.file(done, failed));
            given.push({ file, path: entry.fullPath.replace(/^\//, '') });
            return;
        }
        const reader = entry.createReader();
        for (;;) {
            const some = await new Promise((done, failed) => reader.readEntries(done, failed));
            if (some.length === 0) break;
            for (const each of some) await walk(each);
        }
    };
    for (const entry of entries) await walk(entry);
    return given;
}

/** @param {number} bytes */
export function megabytes(bytes) {
    return `${(bytes / 1e6).toFixed(1)} MB`;
}

/** @param {{errors?: Record<string, string[]>}} answer */
function firstError(answer) {
    return answer.errors ? Object.values(answer.errors)[0][0] : null;
}

/** @param {string} text @returns {{page?: string, errors?: Record<string, string[]>}} */
function parsed(text) {
    try {
        return JSON.parse(text);
    } catch {
        return {};
    }
}

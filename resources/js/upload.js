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
    const send = async (/** @type {File} */ chosen) => {
        if (request) return fail('One file is on its way already; wait for it, or stop it.');
        error.hidden = true;
        if (!/\.(glb|gltf|zip)$/i.test(chosen.name)) return fail(`“${chosen.name}” is not a .glb, .gltf or .zip file.`);
        const body = new FormData(form);
        body.set('file', chosen);
        progress.hidden = false;
        words.textContent = `Sending ${chosen.name}`;
        // Better to hear that there is no room before it is sent than after.
        const room = await fetch(`${form.action}/room?bytes=${chosen.size}`, { headers: { Accept: 'application/json' } }).catch(() => null);
        if (room?.status === 422) return fail(firstError(parsed(await room.text())) ?? 'There is no room for this file.');
        request = new XMLHttpRequest();
        request.open('POST', form.action);
        request.setRequestHeader('Accept', 'application/json');
        request.setRequestHeader('X-CSRF-TOKEN', /** @type {HTMLMetaElement} */ (document.querySelector('meta[name=csrf-token]')).content);
        request.upload.addEventListener('progress', ({ loaded, total }) => {
            bar.style.width = `${(100 * loaded) / Math.max(1, total)}%`;
            words.textContent = `Sending ${chosen.name}: ${megabytes(loaded)} of ${megabytes(total)}`;
        });
        request.addEventListener('load', () => {
            const answer = parsed(request?.responseText ?? '');
            if (request?.status === 200 && answer.page) location.href = answer.page;
            else
                fail(
                    firstError(answer) ??
                        (request?.status === 413 ? 'The file is larger than the server takes.' : 'The file could not be sent. Try again.'),
                );
        });
        request.addEventListener('error', () => fail('The connection broke while the file was sent. Try again.'));
        request.addEventListener('abort', () => fail('Stopped. Nothing was kept.'));
        request.send(body);
    };

    file.addEventListener('change', () => file.files?.[0] && send(file.files[0]));
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
    addEventListener('drop', (event) => {
        event.preventDefault();
        depth = 0;
        form.classList.remove('over');
        const files = event.dataTransfer?.files;
        if (!files || files.length === 0) return;
        if (files.length > 1) return fail('Drop one file at a time.');
        send(files[0]);
    });
}

/** @param {number} bytes */
function megabytes(bytes) {
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

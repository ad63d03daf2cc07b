/**
 * What an answer that is none of the application's own means, by its status, and what to do; 0 is no answer at all.
 * @type {Record<number, string>}
 */
const SENTENCES = {
    0: 'The server does not answer. What you did last may not have been kept: look once it is back, and try again.',
    401: 'You are signed out. Load the page anew to sign in; nothing that was answered is lost.',
    403: 'This is not yours to do.',
    404: 'This is not here any more, or not yours to see. Load the page anew to see what is.',
    413: 'This is more than the server takes at once. Try it with less.',
    419: 'You have been away for long. Load the page anew, then try again; nothing that was answered is lost.',
    429: 'Too much was asked in a short time. Wait a moment, then try again.',
    503: 'The database cannot be reached. Nothing that was answered is lost; try again in a moment.',
};

/**
 * Whether a file is larger than what is taken: said at once, in place of sending it.
 * @param {File} file
 * @param {number} most bytes
 */
export function tooLarge(file, most) {
    if (file.size <= most) return false;
    complain(`${file.name} has ${Math.ceil(file.size / 1e6)} MB; a file may have at most ${Math.floor(most / 1e6)}. Nothing was sent.`);
    return true;
}

/** Answers with a sentence of their own, as part of the page. */
const SPEAK = [422, 507];

/** @param {number} status */
export function sentenceOf(status) {
    return (
        SENTENCES[status] ??
        (status >= 500
            ? 'Something went wrong on the side of the server. It was logged; nothing that was answered is lost.'
            : 'The server refused this. Load the page anew, then try again.')
    );
}

/** @param {string} sentence */
export function warn(sentence) {
    const line = Object.assign(document.createElement('p'), { className: 'warns' });
    line.append(Object.assign(document.createElement('span'), { textContent: sentence }));
    document.getElementById('message')?.replaceChildren(line);
}

/**
 * Says why an answer failed.
 * @param {Response | null} response none when there was no answer
 */
export async function explain(response) {
    const status = response?.status ?? 0;
    const own =
        response && SPEAK.includes(status)
            ? new DOMParser().parseFromString(await response.text(), 'text/html').querySelector('.warns span')?.textContent
            : null;
    complain(own ?? sentenceOf(status));
}

/** Says what is wrong: in the dialog that asked, where one is open. @param {string} sentence */
function complain(sentence) {
    const place = /** @type {HTMLElement | null} */ (document.querySelector('dialog[open] .error'));
    if (place) Object.assign(place, { textContent: sentence, hidden: false });
    else warn(sentence);
}

const UNABLE =
    'This browser does not draw in three dimensions: WebGL 2 is off or missing. ' +
    'Switch its hardware acceleration on, or open the page in another one.';
const LOST = 'The graphics card has let the picture go. Nothing is lost: load the page anew to see it again.';

/** The browser cannot draw a model: the page says so and offers nothing that needs it. @param {HTMLElement} work */
export function sayUnable(work) {
    for (const part of work.children) /** @type {HTMLElement} */ (part).inert = part.id !== 'canvas';
    say(UNABLE);
}

/** Says it when the picture goes while somebody works. @param {HTMLCanvasElement} surface */
export function listenToLoss(surface) {
    surface.addEventListener('webglcontextlost', () => say(LOST));
}

/** Says in the place of the picture why there is none. @param {string} sentence */
function say(sentence) {
    const canvas = /** @type {HTMLElement} */ (document.getElementById('canvas'));
    const card = Object.assign(document.createElement('div'), { className: 'unable', role: 'alert' });
    const again = Object.assign(document.createElement('button'), {
        className: 'button',
        type: 'button',
        textContent: 'Load the page anew',
    });
    again.addEventListener('click', () => location.reload());
    card.append(Object.assign(document.createElement('p'), { textContent: sentence }), again);
    for (const part of canvas.children) /** @type {HTMLElement} */ (part).inert = true;
    canvas.classList.add('is-unable');
    canvas.append(card);
    again.focus();
}

/** Failed answers to htmx are said in words and put nowhere else. */
export function listenToFailures() {
    document.addEventListener('htmx:after:request', (event) => {
        const { status } = /** @type {CustomEvent} */ (event).detail.ctx.response;
        if (status < 400 || SPEAK.includes(status)) return;
        event.preventDefault();
        warn(sentenceOf(status));
    });
    document.addEventListener('htmx:error', (event) => {
        if (/** @type {CustomEvent} */ (event).detail.ctx) warn(sentenceOf(0));
    });
}

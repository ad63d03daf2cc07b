/** Milliseconds after which a person wonders whether anything happens. */
const PATIENCE = 450;

/** @type {Set<string[]>} what is under way and has been for long */
const long = new Set();

/**
 * Says in words that something is under way, once it takes longer than a moment.
 * @template T
 * @param {string} words for example "Looking for seat"
 * @param {Promise<T>} work
 * @returns {Promise<T>} the work
 */
export async function whileBusy(words, work) {
    const one = [words];
    const timer = setTimeout(() => {
        long.add(one);
        show();
    }, PATIENCE);
    try {
        return await work;
    } finally {
        clearTimeout(timer);
        if (long.delete(one)) show();
    }
}

/** The latest is what the person waits for. */
function show() {
    const place = document.getElementById('busy');
    if (!place) return;
    const [words] = [...long].pop() ?? [''];
    place.textContent = words === '' ? '' : `${words}…`;
    place.hidden = words === '';
}

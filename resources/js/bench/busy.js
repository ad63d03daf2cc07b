/** Milliseconds after which a person wonders whether anything happens. */
const PATIENCE = 450;

/** Milliseconds after which it is asked what somebody waits for. */
const AGAIN = 1000;

/** @type {Set<string[]>} what is under way and has been for long */
const long = new Set();

/**
 * Says in words that something is under way, once it takes longer than a moment.
 * @template T
 * @param {string} words for example "Looking for seat"
 * @param {Promise<T>} work
 * @param {() => Promise<string>} [ask] asked after a second, and again, for better words; "" for none
 * @returns {Promise<T>} the work
 */
export async function whileBusy(words, work, ask) {
    const one = [words];
    const timer = setTimeout(() => {
        long.add(one);
        show();
    }, PATIENCE);
    const asking = setInterval(async () => {
        one[0] = (await ask?.()) || words;
        if (long.has(one)) show();
    }, AGAIN);
    try {
        return await work;
    } finally {
        clearTimeout(timer);
        clearInterval(asking);
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

/** Characters that one system of files or another does not take, and those that turn the way of reading. */
const NOT_IN_FILES = /[\u0000-\u001f\u007f\u200e\u200f\u202a-\u202e\u2066-\u2069"*/:<>?\\|]+/g;

/** Names that one system keeps for itself. */
const KEPT = /^(con|prn|aux|nul|com\d|lpt\d)$/i;

/** Bytes of a name at most, with room for a number and an ending. */
const MOST = 200;

/**
 * A name as a file may have it.
 * @param {string} name
 * @returns {string} never empty
 */
export function fileName(name) {
    let kept = name.replace(NOT_IN_FILES, ' ').replace(/\s+/g, ' ').trim();
    while (new TextEncoder().encode(kept).length > MOST) kept = [...kept].slice(0, -1).join('');
    kept = kept.replace(/[. ]+$/, '').replace(/^[. ]+/, '');
    if (kept === '') return 'View';
    return KEPT.test(kept) ? `${kept} view` : kept;
}

/**
 * Names of files, each once, whatever the case: what comes again gets a number.
 * @param {string[]} names of views
 * @param {string} ending with its dot
 * @returns {string[]}
 */
export function fileNames(names, ending) {
    const taken = new Set();
    return names.map((name) => {
        const first = fileName(name);
        let kept = first;
        for (let number = 2; taken.has(kept.toLowerCase()); number++) kept = `${first} (${number})`;
        taken.add(kept.toLowerCase());
        return kept + ending;
    });
}

/**
 * How large a picture is.
 * @param {number} aspect width by height
 * @param {number} longer pixels of its longer side
 * @returns {[number, number]} pixels
 */
export function sizeOf(aspect, longer) {
    return aspect >= 1 ? [longer, Math.max(1, Math.round(longer / aspect))] : [Math.max(1, Math.round(longer * aspect)), longer];
}

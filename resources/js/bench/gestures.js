import { nestByKey } from './nesting.js';
import { listenToDrag } from './dragging.js';
import { markOf } from './rungmarks.js';

/**
 * Mouse and keyboard in the ledger: picking, folding, rungs, locks, renaming, filing by drag.
 * @param {import('./workbench.js').Workbench} bench
 */
export function listenToLedger(bench) {
    const { ledger } = bench;
    const rowOf = (/** @type {EventTarget | null} */ target) =>
        /** @type {HTMLElement | null} */ (target instanceof Element ? target.closest('.rows .row') : null);

    ledger.rows.addEventListener('click', (event) => {
        const row = rowOf(event.target);
        const on = /** @type {Element} */ (event.target);
        if (!row || on.closest('.rename')) return;
        const key = row.dataset.key ?? '';
        if (on.closest('button.fold')) return void ledger.fold(key, row.getAttribute('aria-expanded') !== 'true');
        if (on.closest('.choice')) return void bench.setRung([key], 5);
        if (markOf(on)) return;
        if (on.closest('button.count')) return void bench.pick({ keys: key, mode: pickMode(event) }, false);
        if (on.closest('.lock-button')) return void bench.setLock(keysFor(bench, key), (Number(row.dataset.lock) + 1) % 3);
        if (on.closest('.more-button')) return void bench.openRowMenu(row, /** @type {HTMLElement} */ (on.closest('.more-button')));
        choose(bench, row, event);
        ledger.focus(row);
    });
    ledger.rows.addEventListener('dblclick', (event) => {
        const row = rowOf(event.target);
        if (row && /** @type {Element} */ (event.target).closest('.label')) bench.rename(row);
    });
    ledger.rows.addEventListener('contextmenu', (event) => {
        const row = rowOf(event.target);
        if (!row) return;
        event.preventDefault();
        ledger.focus(row);
        bench.openRowMenu(row, null, event);
    });
    ledger.rows.addEventListener('keydown', (event) => {
        const row = rowOf(event.target);
        if (!row || /** @type {Element} */ (event.target).closest('.rename')) return;
        if (onKey(bench, row, event)) event.preventDefault();
    });
    // Whoever has scrolled away from the row with the keyboard goes on from there.
    document.addEventListener('keydown', (event) => {
        const move = event.target === document.body && ledger.keyboardAt >= 0 ? moveOf(ledger, event) : 0;
        if (move === 0 || event.shiftKey) return;
        ledger.focusPlace(ledger.keyboardAt + move);
        event.preventDefault();
    });
    listenToDrag(bench, rowOf);
}

/**
 * @param {import('./workbench.js').Workbench} bench
 * @param {string} key
 * @returns {string[]} the current rows when the row is one of them
 */
function keysFor(bench, key) {
    return bench.ledger.selected.has(key) ? [...bench.ledger.selected] : [key];
}

/**
 * A click on a row: an object becomes the pick, with Shift all between and with Ctrl besides; every other row becomes current, and the pick
 * stays what it is.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} row
 * @param {MouseEvent | KeyboardEvent} event
 */
function choose(bench, row, event) {
    const { ledger } = bench;
    const key = row.dataset.key ?? '';
    const more = event.ctrlKey || event.metaKey;
    if (event.shiftKey && ledger.anchor !== null) return chooseRange(bench, ledger.place(row), more);
    ledger.anchor = ledger.place(row);
    ledger.anchorKey = key;
    if (!key.startsWith('O')) return ledger.select(key, more);
    ledger.select('', false);
    return bench.pick({ keys: key, mode: more ? 'toggle' : 'replace' }, false);
}

/**
 * Rows from where the range starts: from an object on, the objects among them become the pick; from another row on, the other rows become
 * current.
 * @param {import('./workbench.js').Workbench} bench
 * @param {number} to
 * @param {boolean} more
 */
async function chooseRange(bench, to, more) {
    const { ledger } = bench;
    const span = `${ledger.anchor ?? to}-${to}`;
    if (ledger.anchorKey.startsWith('O')) return bench.pick({ span, mode: more ? 'add' : 'replace' }, false);
    ledger.rangeAsked = span;
    const asked = new URLSearchParams(Object.entries({ ...ledger.window, span }).map(([name, value]) => [name, String(value)]));
    const found = await bench.server.json(`/ledger/keys?${asked}`);
    // A later stretch may have been answered before this one.
    if (found && ledger.rangeAsked === span) ledger.selectAll(more ? [...ledger.selected, ...found.keys] : found.keys);
    return undefined;
}

/** @param {import('./ledger.js').Ledger} ledger @param {KeyboardEvent} event @returns {number} rows to move by; 0 for another key */
function moveOf(ledger, event) {
    const page = Math.max(1, Math.floor(ledger.scroll.clientHeight / 28) - 1);
    const moves = { ArrowDown: 1, ArrowUp: -1, PageDown: page, PageUp: -page, Home: -1e9, End: 1e9 };
    return event.altKey ? 0 : (moves[/** @type {keyof typeof moves} */ (event.key)] ?? 0);
}

/**
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} row
 * @param {KeyboardEvent} event
 * @returns {boolean} whether the key meant something
 */
function onKey(bench, row, event) {
    const { ledger } = bench;
    const key = row.dataset.key ?? '';
    const place = ledger.place(row);
    const move = moveOf(ledger, event);
    if (move !== 0) {
        if (!event.shiftKey) ledger.anchor = null;
        else if (ledger.anchor === null) [ledger.anchor, ledger.anchorKey] = [place, key];
        ledger.focusPlace(place + move).then((there) => event.shiftKey && chooseRange(bench, there, false));
        return true;
    }
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a') return (chooseAll(bench, key), true);
    if (event.altKey && event.shiftKey && event.key.startsWith('Arrow')) return moveByKey(bench, row, event.key);
    if (event.ctrlKey || event.metaKey || event.altKey) return false;
    if (/^[0-5]$/.test(event.key)) {
        // The rows of objects that are chosen are the pick.
        if (row.classList.contains('picked') && key.startsWith('O')) return (bench.command(`rung-${event.key}`), true);
        return (bench.setRung(ledger.target, Number(event.key)), true);
    }
    switch (event.key) {
        case 'ArrowRight':
            if (row.getAttribute('aria-expanded') === 'false') ((ledger.refocus = true), ledger.fold(key, true));
            else if (row.hasAttribute('aria-expanded')) ledger.focusPlace(place + 1);
            return true;
        case 'ArrowLeft':
            if (row.getAttribute('aria-expanded') === 'true') ((ledger.refocus = true), ledger.fold(key, false));
            else toParent(ledger, row);
            return true;
        case ' ':
        case 'Enter':
            if (!key.startsWith('O') && event.key === ' ') ledger.select(key, true);
            else bench.pick({ keys: key, mode: event.key === ' ' ? 'toggle' : pickMode(event) }, false);
            return true;
        case 'F2':
            return (/^[OLTFE]/.test(key) && bench.rename(row), true);
        case 'Delete':
            if (!key.startsWith('O')) return (bench.deleteRows(ledger.target), true);
            return (
                bench.may() && bench.server.ask('POST', '/objects/delete', row.classList.contains('picked') ? {} : { keys: key }),
                true
            );
        case 'o':
        case 'O':
            return event.altKey ? (bench.may() && bench.openDialog(`/output?keys=${ledger.target.join(',')}`), true) : false;
        case 'l':
        case 'L':
            // With Shift it is a command: each layer alone.
            if (event.shiftKey) return false;
            return (bench.setLock(ledger.target, (Number(row.dataset.lock) + 1) % 3), true);
        case 'y':
        case 'Y':
            return (bench.whyRows(ledger.target), true);
        case 'F10':
        case 'ContextMenu':
            if (event.key === 'F10' && !event.shiftKey) return false;
            return (bench.openRowMenu(row, /** @type {HTMLElement} */ (row.querySelector('.more-button'))), true);
        default:
            return false;
    }
}

/**
 * Every row: of objects the pick, of others those that are current.
 * @param {import('./workbench.js').Workbench} bench
 * @param {string} key of the row that the keyboard is on
 */
function chooseAll(bench, key) {
    const { ledger } = bench;
    [ledger.anchor, ledger.anchorKey] = [0, key];
    return chooseRange(bench, Math.max(0, ledger.shown.total - 1), false);
}

/** What an act that picks does to the pick: Shift adds, Alt takes away. @param {MouseEvent | KeyboardEvent} event */
function pickMode(event) {
    return event.shiftKey ? 'add' : event.altKey ? 'remove' : 'replace';
}

/** @param {import('./ledger.js').Ledger} ledger @param {HTMLElement} row */
function toParent(ledger, row) {
    const level = Number(row.getAttribute('aria-level'));
    let above = row.previousElementSibling;
    while (above && Number(above.getAttribute('aria-level')) >= level) above = above.previousElementSibling;
    if (above) ledger.focusPlace(ledger.place(/** @type {HTMLElement} */ (above)));
}

/**
 * A layer, tag, set or folder goes up or down among its siblings, into the one before it, or out of what it lies in.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} row
 * @param {string} arrow
 */
function moveByKey(bench, row, arrow) {
    const key = row.dataset.key ?? '';
    if (key.startsWith('O') && bench.ledger.lens === 'nesting') return nestByKey(bench, row, arrow);
    if (!/^[LTFE]/.test(key) || !bench.may()) return true;
    const level = Number(row.getAttribute('aria-level'));
    const near = (/** @type {'previousElementSibling' | 'nextElementSibling'} */ way, /** @type {number} */ wanted) => {
        for (let other = row[way]; other; other = other[way]) {
            const there = Number(other.getAttribute('aria-level'));
            if (there === wanted && /^[LTFE]/.test(/** @type {HTMLElement} */ (other).dataset.key ?? ''))
                return /** @type {HTMLElement} */ (other).dataset.key;
            if (there < wanted) return undefined;
        }
        return undefined;
    };
    const [where, mark] = {
        ArrowUp: ['before', near('previousElementSibling', level)],
        ArrowDown: ['after', near('nextElementSibling', level)],
        ArrowRight: ['into', near('previousElementSibling', level)],
        ArrowLeft: ['after', near('previousElementSibling', level - 1)],
    }[arrow] ?? ['into', undefined];
    if (mark) bench.server.ask('POST', '/rows/move', { keys: bench.ledger.target.join(','), where, mark });
    return true;
}

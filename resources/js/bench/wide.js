import { remembered } from './ownwindow.js';

/** Where a cell is. @typedef {{place: number, column: number}} At */

/**
 * The ledger widened over tags and sets: a click on a cell puts what the row stands for in or out, drawing over others gives all what the
 * first one got, Shift a whole rectangle; with the keyboard in a cell, arrow keys move, Shift extends, Space turns it, + puts in, - takes
 * out.
 * @param {import('./workbench.js').Workbench} bench
 */
export function listenToWide(bench) {
    const { ledger } = bench;
    // The answer that widens it or ends that may be overtaken by a later one: what counts is the head as it comes.
    let isWide = isWidened();
    new MutationObserver(() => {
        if (isWidened() === isWide) return;
        isWide = !isWide;
        widen(bench);
    }).observe(/** @type {HTMLElement} */ (document.getElementById('ledger-head')), { childList: true, subtree: true });
    /** Where a rectangle starts. @type {{place: number, column: number} | null} */
    let anchor = null;
    const cellOf = (/** @type {EventTarget | null} */ target) =>
        /** @type {HTMLElement | null} */ (target instanceof Element ? target.closest('.member') : null);

    /** A press on a cell, drawn over others: all get what the first one got. @type {{from: At, to: At, on: boolean} | null} */
    let stroke = null;
    const at = (/** @type {HTMLElement} */ cell) => ({ place: placeOf(bench, cell), column: columnOf(cell) });
    ledger.rows.addEventListener('pointerdown', (event) => {
        const cell = cellOf(event.target);
        if (!cell || event.button !== 0) return;
        event.preventDefault();
        cell.focus({ preventScroll: true });
        const here = at(cell);
        if (event.shiftKey && anchor) return void change(bench, rectangle(anchor, here), stateAt(bench, anchor) === 'in');
        anchor = here;
        stroke = { from: here, to: here, on: cell.dataset.state !== 'in' };
    });
    ledger.rows.addEventListener('pointerover', (event) => {
        const cell = stroke ? cellOf(event.target) : null;
        if (!stroke || !cell) return;
        stroke.to = at(cell);
        mark(bench, rectangle(stroke.from, stroke.to));
    });
    addEventListener('pointerup', () => {
        const done = stroke;
        stroke = null;
        if (done) change(bench, rectangle(done.from, done.to), done.on).then(() => mark(bench, null));
    });
    addEventListener('pointercancel', () => {
        stroke = null;
        mark(bench, null);
    });
    ledger.rows.addEventListener('dragstart', (event) => stroke && event.preventDefault(), true);
    ledger.rows.addEventListener(
        'click',
        (event) => {
            const cell = cellOf(event.target);
            if (!cell) return;
            event.stopPropagation();
            // Those that no pointer made.
            if (event.detail === 0) change(bench, rectangle(at(cell), at(cell)), cell.dataset.state !== 'in');
        },
        true,
    );
    ledger.rows.addEventListener(
        'keydown',
        (event) => {
            const cell = cellOf(event.target);
            const row = event.target instanceof Element ? event.target.closest('.row') : null;
            if (!cell) {
                if (event.key === 'ArrowRight' && event.ctrlKey && row) {
                    /** @type {HTMLElement | null} */ (row.querySelector('.member'))?.focus();
                    event.preventDefault();
                    event.stopPropagation();
                }
                return;
            }
            const here = { place: placeOf(bench, cell), column: columnOf(cell) };
            if (!onKey(event, here)) return;
            event.preventDefault();
            event.stopPropagation();
        },
        true,
    );

    /** @param {KeyboardEvent} event @param {{place: number, column: number}} here @returns {boolean} whether the key meant something */
    function onKey(event, here) {
        const move = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] }[event.key];
        if (move && !event.altKey && !event.ctrlKey) {
            anchor = event.shiftKey ? (anchor ?? here) : null;
            if (here.column + move[1] < 0) {
                const row = ledger.rows.querySelector(`[aria-rowindex="${here.place + 2}"]`);
                if (row instanceof HTMLElement) ledger.focus(row);
                return true;
            }
            focusCell(bench, here.place + move[0], here.column + move[1]).then((there) =>
                mark(bench, anchor ? rectangle(anchor, there) : null),
            );
            return true;
        }
        const state = stateAt(bench, here);
        const on = { ' ': state !== 'in', Enter: state !== 'in', '+': true, '-': false, Delete: false }[event.key];
        if (on === undefined) return false;
        change(bench, rectangle(anchor ?? here, here), on);
        return true;
    }
}

/** @param {{place: number, column: number}} from @param {{place: number, column: number}} to */
export function rectangle(from, to) {
    return {
        first: Math.min(from.place, to.place),
        last: Math.max(from.place, to.place),
        left: Math.min(from.column, to.column),
        right: Math.max(from.column, to.column),
    };
}

/** @param {import('./workbench.js').Workbench} bench @param {HTMLElement} cell */
function placeOf(bench, cell) {
    return bench.ledger.place(/** @type {HTMLElement} */ (cell.closest('.row')));
}

/** @param {HTMLElement} cell */
function columnOf(cell) {
    return [.../** @type {HTMLElement} */ (cell.closest('.row')).querySelectorAll('.member')].indexOf(cell);
}

/** @param {import('./workbench.js').Workbench} bench @param {{place: number, column: number}} at @returns {string} */
function stateAt(bench, { place, column }) {
    const cells = bench.ledger.rows.querySelector(`[aria-rowindex="${place + 2}"]`)?.querySelectorAll('.member');
    return /** @type {HTMLElement | undefined} */ (cells?.[column])?.dataset.state ?? 'out';
}

/** @param {import('./workbench.js').Workbench} bench @param {number} place @param {number} column */
async function focusCell(bench, place, column) {
    const { ledger } = bench;
    const there = await ledger.focusPlace(place);
    const cells = ledger.rows.querySelector(`[aria-rowindex="${there + 2}"]`)?.querySelectorAll('.member');
    const at = Math.max(0, Math.min((cells?.length ?? 1) - 1, column));
    /** @type {HTMLElement | undefined} */ (cells?.[at])?.focus();
    return { place: there, column: at };
}

/** @param {import('./workbench.js').Workbench} bench @param {ReturnType<typeof rectangle> | null} range */
function mark(bench, range) {
    for (const row of /** @type {NodeListOf<HTMLElement>} */ (bench.ledger.rows.querySelectorAll('.row'))) {
        const place = bench.ledger.place(row);
        row.querySelectorAll('.member').forEach((cell, column) => {
            const isIn = range && place >= range.first && place <= range.last && column >= range.left && column <= range.right;
            cell.classList.toggle('chosen', Boolean(isIn));
        });
    }
}

/** @param {import('./workbench.js').Workbench} bench @param {ReturnType<typeof rectangle>} range @param {boolean} on */
async function change(bench, range, on) {
    if (!bench.may()) return;
    const heads = /** @type {HTMLElement[]} */ ([...document.querySelectorAll('#ledger-head [data-member]')]);
    const columns = heads
        .slice(range.left, range.right + 1)
        .filter((head) => head.dataset.decided === '1')
        .map((head) => head.dataset.member);
    if (columns.length === 0) return bench.say('The rule of a live set says what is in it; change the rule.');
    await bench.server.ask('POST', '/memberships', { span: `${range.first}-${range.last}`, columns: columns.join(','), on: on ? 1 : 0 });
    mark(bench, null);
}

/** @param {import('./workbench.js').Workbench} bench @param {HTMLElement} dialog */
export function listenToWideDialog(bench, dialog) {
    dialog.addEventListener('click', async (event) => {
        const on = /** @type {Element} */ (event.target);
        const form = on.closest('[data-widen]');
        if (!form || !on.closest('[data-keep-wide], [data-all-wide], [data-end-wide]')) return;
        const all = /** @type {HTMLInputElement[]} */ ([...form.querySelectorAll('[type=checkbox]')]);
        const chosen = on.closest('[data-end-wide]')
            ? []
            : all.filter((box) => (on.closest('[data-all-wide]') ? box.value.startsWith('T') : box.checked));
        bench.dialogs.close();
        await bench.ledger.arrange({ over: chosen.map((box) => box.value).join(',') });
        widen(bench);
    });
}

function isWidened() {
    return document.querySelector('#ledger-head [data-member], #ledger-head [data-view-head]') !== null;
}

/** The columns of tags and sets are taken away. @param {import('./workbench.js').Workbench} bench */
export async function narrowAgain(bench) {
    await bench.ledger.arrange({ over: '' });
    widen(bench);
}

/** Gives the ledger the room that its columns take, as far as there is any. @param {import('./workbench.js').Workbench} bench */
export function widen(bench) {
    if (bench.isAlone) return;
    const { width } = bench.ledger.rowsNow;
    const room = isWidened() ? Math.min(innerWidth - 340, Number(width) + 40) : 0;
    const kept = Number(remembered('ledger-width')) || 496;
    document.documentElement.style.setProperty('--ledger', `${Math.max(kept, room)}px`);
}

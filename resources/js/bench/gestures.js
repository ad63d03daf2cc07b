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
        const rung = on.closest('.rung');
        if (rung) return void bench.setRung(keysFor(bench, key), rungAt(/** @type {HTMLElement} */ (rung), event, Number(row.dataset.own)));
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
 * @returns {string[]} the selected layers when the row is one of them
 */
function keysFor(bench, key) {
    return bench.ledger.selected.has(key) ? [...bench.ledger.selected] : [key];
}

/**
 * Which rung a click on a mark means: the bar under the pointer; the lowest one again hides.
 * @param {HTMLElement} mark
 * @param {MouseEvent} event
 * @param {number} own
 */
function rungAt(mark, event, own) {
    if (event.detail === 0) return own === 0 ? 5 : 0;
    const { left, width } = /** @type {Element} */ (mark.querySelector('svg')).getBoundingClientRect();
    const bar = Math.max(1, Math.min(5, Math.floor(((event.clientX - left) / width) * 5) + 1));
    return bar === 1 && own === 1 ? 0 : bar;
}

/**
 * A click on a row: an object becomes the pick, a layer becomes selected.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} row
 * @param {MouseEvent | KeyboardEvent} event
 */
function choose(bench, row, event) {
    const { ledger } = bench;
    const key = row.dataset.key ?? '';
    const more = event.ctrlKey || event.metaKey;
    if (event.shiftKey && ledger.anchor !== null) {
        bench.pick({ span: `${ledger.anchor}-${ledger.place(row)}`, mode: more ? 'add' : 'replace' });
        return;
    }
    ledger.anchor = ledger.place(row);
    if (!key.startsWith('O')) ledger.select(key, more);
    else {
        ledger.selected.clear();
        bench.pick({ keys: key, mode: more ? 'toggle' : 'replace' }, false);
    }
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
        if (event.shiftKey) ledger.anchor ??= place;
        else ledger.anchor = null;
        ledger.focusPlace(place + move).then((there) => {
            if (event.shiftKey) bench.pick({ span: `${ledger.anchor}-${there}`, mode: 'replace' }, false);
        });
        return true;
    }
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'a')
        return (bench.pick({ span: `0-${Math.max(0, ledger.shown.total - 1)}`, mode: 'replace' }, false), true);
    if (event.ctrlKey || event.metaKey || event.altKey) return false;
    if (/^[0-5]$/.test(event.key)) return (bench.setRung(ledger.target, Number(event.key)), true);
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
            else bench.pick({ keys: key, mode: event.key === ' ' ? 'toggle' : 'replace' }, false);
            return true;
        case 'F2':
            return ((key.startsWith('O') || key.startsWith('L')) && bench.rename(row), true);
        case 'Delete':
            return (key.startsWith('L') && bench.deleteLayer(Number(key.slice(1))), true);
        case 'l':
        case 'L':
            return (bench.setLock(ledger.target, (Number(row.dataset.lock) + 1) % 3), true);
        case 'y':
        case 'Y':
            return (key.startsWith('O') && bench.why(Number(key.slice(1))), true);
        case 'F10':
        case 'ContextMenu':
            if (event.key === 'F10' && !event.shiftKey) return false;
            return (bench.openRowMenu(row, /** @type {HTMLElement} */ (row.querySelector('.more-button'))), true);
        default:
            return false;
    }
}

/** @param {import('./ledger.js').Ledger} ledger @param {HTMLElement} row */
function toParent(ledger, row) {
    const level = Number(row.getAttribute('aria-level'));
    let above = row.previousElementSibling;
    while (above && Number(above.getAttribute('aria-level')) >= level) above = above.previousElementSibling;
    if (above) ledger.focusPlace(ledger.place(/** @type {HTMLElement} */ (above)));
}

/** @param {import('./workbench.js').Workbench} bench @param {(target: EventTarget | null) => HTMLElement | null} rowOf */
function listenToDrag(bench, rowOf) {
    const { ledger } = bench;
    /** @type {{keys: string, count: number} | null} */
    let dragged = null;
    let over = /** @type {HTMLElement | null} */ (null);
    const mark = (/** @type {HTMLElement | null} */ row) => {
        if (over === row) return;
        over?.classList.remove('drop');
        over = row;
        if (row && dragged) {
            const what = dragged.count === 1 ? '1 object' : `${dragged.count.toLocaleString('en')} objects`;
            row.dataset.drop = `File ${what} under ${row.dataset.name}`;
            row.classList.add('drop');
        }
    };
    ledger.rows.addEventListener('dragstart', (event) => {
        const row = rowOf(event.target);
        const key = row?.dataset.key ?? '';
        if (!row || !key.startsWith('O')) return event.preventDefault();
        // Dragging a picked object drags the whole pick.
        dragged = row.classList.contains('picked') ? { keys: '', count: bench.picked } : { keys: key, count: 1 };
        event.dataTransfer?.setData('text/plain', row.dataset.name ?? '');
        if (event.dataTransfer) event.dataTransfer.effectAllowed = 'move';
    });
    ledger.rows.addEventListener('dragover', (event) => {
        const row = rowOf(event.target);
        if (!dragged || !row?.classList.contains('is-layer')) return mark(null);
        event.preventDefault();
        mark(row);
    });
    ledger.rows.addEventListener('drop', (event) => {
        if (!dragged || !over) return;
        event.preventDefault();
        bench.server.ask('POST', '/file', { layer: over.dataset.key?.slice(1), keys: dragged.keys });
        mark(null);
        dragged = null;
    });
    ledger.rows.addEventListener('dragend', () => {
        mark(null);
        dragged = null;
    });
}

import { Unfolded } from './unfolded.js';

/** Pixels of pointer movement that still are a click. */
const STILL = 4;
/** Milliseconds in which a second click on the same mark takes back the first, whatever else holds the row. */
const QUICK = 700;

/**
 * What a mark says: rungs by number, -1 where nothing is set or what is set is no rung.
 * @typedef {{own: number, effect: number, isMixed: boolean}} Look
 */

/**
 * The rung marks of desk, pictures, views and pick. A click anywhere on one hides, one more gives back what was set before; drawing over
 * several gives all what the first one got; a modified click shows only this. It shows at once, before the server has answered, and the
 * next click counts from what is seen.
 */
export class RungMarks {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.unfolded = new Unfolded(bench, this);
        /** What marks show until the server has answered. @type {Map<string, {look: Look, asked: number}>} */
        this.ahead = new Map();
        this.asked = 0;
        /** @type {{mark: HTMLElement, act: string, x: number, y: number, from: Cell, to: Cell, event: PointerEvent} | null} */
        this.stroke = null;
        /** @type {{id: string, act: string, wasOwn: boolean, at: number} | null} */
        this.last = null;
        const { element, ledger } = bench;
        element.addEventListener('pointerdown', (event) => this.down(event));
        // A click that no pointer made: by keyboard, or by a program that reads the screen.
        element.addEventListener('click', (event) => {
            const mark = markOf(event.target);
            if (!mark) return;
            event.stopPropagation();
            if (event.detail === 0) this.click(mark, event);
        });
        addEventListener('pointermove', (event) => this.move(event));
        addEventListener('pointerup', (event) => this.up(event));
        addEventListener('pointercancel', () => this.leave());
        addEventListener('keydown', (event) => {
            if (event.key === 'Escape' && this.stroke) this.leave();
        });
        element.addEventListener('dragstart', (event) => this.stroke && event.preventDefault(), true);
        ledger.rows.addEventListener('shelf:settled', () => this.showAll());
    }

    /** @param {PointerEvent} event */
    down(event) {
        const mark = markOf(event.target);
        if (!mark || event.button !== 0) return;
        // Blocks of cells are chosen with Shift.
        if (mark.matches('.cell-button') && event.shiftKey) return;
        event.preventDefault();
        this.unfolded.clicked(mark);
        const here = cellOf(mark, this.bench);
        this.stroke = { mark, act: this.actOf(mark), x: event.clientX, y: event.clientY, from: here, to: here, event };
    }

    /** @param {PointerEvent} event */
    move(event) {
        const { stroke } = this;
        if (!stroke || !stroke.from.row) return;
        const there = this.under(event, stroke);
        if (there.place === stroke.to.place && there.column === stroke.to.column) return;
        const before = this.swept(stroke);
        stroke.to = there;
        const now = this.swept(stroke);
        for (const mark of before) if (!now.includes(mark)) mark.classList.remove('swept');
        for (const mark of now) mark.classList.toggle('swept', now.length > 1);
        for (const mark of new Set([...before, ...now])) this.show(mark, now.length > 1 && now.includes(mark) ? stroke.act : '');
    }

    /**
     * Which mark of the same kind is beside the pointer.
     * @param {PointerEvent} event
     * @param {{from: Cell, to: Cell}} stroke
     * @returns {Cell}
     */
    under(event, { from, to }) {
        const { ledger } = this.bench;
        const { top } = ledger.rows.getBoundingClientRect();
        const rows = ledger.rows.querySelectorAll('.row');
        const at = Math.max(0, Math.min(rows.length - 1, Math.floor((event.clientY - top) / 28)));
        const row = /** @type {HTMLElement | undefined} */ (rows[at]);
        const cell = event.target instanceof Element ? event.target.closest('.cell-button') : null;
        const column = from.isView && cell instanceof HTMLElement ? (cell.dataset.col ?? to.column) : to.column;
        return row ? { ...from, row, place: ledger.place(row), column } : to;
    }

    /** The marks that a stroke goes over, those that it does not change left out. @param {{from: Cell, to: Cell}} stroke */
    swept({ from, to }) {
        const { ledger } = this.bench;
        const columns = this.columnsBetween(from, to);
        const [first, last] = [Math.min(from.place, to.place), Math.max(from.place, to.place)];
        return /** @type {HTMLElement[]} */ ([...ledger.rows.querySelectorAll('.row')])
            .filter((row) => ledger.place(row) >= first && ledger.place(row) <= last)
            .flatMap((row) => columns.map((column) => markIn(row, column)))
            .filter((mark) => mark !== null && !mark.hasAttribute('disabled') && !isFixed(mark) && mark.dataset.says !== 'none');
    }

    /** @param {Cell} from @param {Cell} to */
    columnsBetween(from, to) {
        if (!from.isView) return [from.column];
        const keys = this.bench.grid.keys;
        const [a, b] = [keys.indexOf(from.column), keys.indexOf(to.column)];
        return keys.slice(Math.min(a, b), Math.max(a, b) + 1);
    }

    /** @param {PointerEvent} event */
    up(event) {
        const { stroke } = this;
        if (!stroke) return;
        const swept = stroke.from.row ? this.swept(stroke) : [];
        const isClick = swept.length <= 1 && Math.hypot(event.clientX - stroke.x, event.clientY - stroke.y) <= 10 * STILL;
        this.stroke = null;
        for (const mark of this.bench.element.querySelectorAll('.swept')) mark.classList.remove('swept');
        if (this.unfolded.tookOver) return void this.showAll();
        if (isClick && stroke.mark.isConnected) this.click(stroke.mark, stroke.event);
        else if (isClick) this.clickAt(stroke);
        else if (swept.length > 0) this.turn(swept, stroke.act, this.columnsBetween(stroke.from, stroke.to));
    }

    /** The row was replaced while the button was down. @param {{from: Cell, event: PointerEvent}} stroke */
    clickAt({ from, event }) {
        const mark = from.key === '' ? null : markIn(this.bench.ledger.row(from.key), from.column);
        if (mark) this.click(mark, event);
    }

    /** Nothing is turned after all. */
    leave() {
        this.stroke = null;
        for (const mark of this.bench.element.querySelectorAll('.swept')) mark.classList.remove('swept');
        this.showAll();
    }

    /** @param {HTMLElement} mark @param {MouseEvent} event */
    click(mark, event) {
        const { column, key } = cellOf(mark, this.bench);
        if (mark.hasAttribute('disabled')) return;
        if (isFixed(mark)) return void this.unfolded.open(mark);
        if (mark.dataset.says === 'none') return this.bench.say('That view keeps no rungs of this row.');
        if (column === 'D' && (event.ctrlKey || event.metaKey || event.altKey)) return void this.only(key);
        const act = this.actOf(mark);
        const id = idOf(mark, this.bench);
        this.last = { id, act, wasOwn: this.lookOf(mark).own === 0, at: performance.now() };
        const selected = this.bench.ledger.selected;
        const rows = key !== '' && selected.has(key) ? [...selected] : [key];
        const marks = rows.map((each) => (each === key ? mark : markIn(this.bench.ledger.row(each), column)));
        this.turn(/** @type {HTMLElement[]} */ (marks.filter(Boolean)), act, [column], rows);
    }

    /** Shows only what a row stands for, or all again. @param {string} key */
    only(key) {
        return this.bench.server.ask('POST', '/isolate', { keys: key, turn: 1 });
    }

    /** What a click on a mark does now. @param {HTMLElement} mark @returns {'hide' | 'back'} */
    actOf(mark) {
        const look = this.seen(mark);
        const { last } = this;
        const isQuick = last !== null && last.id === idOf(mark, this.bench) && performance.now() - last.at < QUICK;
        if (isQuick && last.act === 'back' && last.wasOwn) return 'hide';
        return look.effect === 0 && !look.isMixed ? 'back' : 'hide';
    }

    /**
     * @param {HTMLElement[]} marks
     * @param {string} act "hide" or "back"
     * @param {string[]} columns "D", "O", "P" or keys of views
     * @param {string[]} [rows] keys of the rows that are meant, those of the marks otherwise
     */
    async turn(marks, act, columns, rows = [...new Set(marks.map((mark) => cellOf(mark, this.bench).key))]) {
        const { bench } = this;
        const [column] = columns;
        if (!['D', 'P'].includes(column) && !bench.may()) return this.showAll();
        const asked = ++this.asked;
        for (const mark of marks) {
            this.ahead.set(idOf(mark, bench), { look: this.after(mark, act), asked });
            this.show(mark);
        }
        const keys = rows.join(',');
        if (column === 'P') await bench.server.ask('POST', '/rungs', { on: 'pick', rung: act });
        else if (column === 'D') await bench.server.ask('POST', '/rungs', { keys, rung: act });
        else if (column === 'O') await bench.server.ask('POST', '/output', { keys, output: act });
        else await bench.server.ask('POST', '/grid', { keys, columns: columns.join(','), rung: act });
        for (const [id, ahead] of this.ahead) if (ahead.asked === asked) this.ahead.delete(id);
        this.showAll();
        return undefined;
    }

    /** What the mark says by itself. @param {HTMLElement} mark @returns {Look} */
    lookOf(mark) {
        const { own = '', effect = '', mixed = '', says } = mark.dataset;
        if (says !== undefined) return { own: rungIn(says), effect: says === '' ? 5 : rungIn(says), isMixed: mixed === '1' };
        return { own: rungIn(own), effect: rungIn(effect), isMixed: mixed === '1' };
    }

    /** What is seen, which may be ahead of what the server has said. @param {HTMLElement} mark */
    seen(mark) {
        return this.ahead.get(idOf(mark, this.bench))?.look ?? this.lookOf(mark);
    }

    /** What it will say once it was turned. @param {HTMLElement} mark @param {string} act @returns {Look} */
    after(mark, act) {
        const look = this.lookOf(mark);
        if (act === 'hide') return { own: 0, effect: 0, isMixed: false };
        const back = look.own === 0 ? rungIn(mark.dataset.back ?? 'none') : look.own;
        const effect = look.own === 0 ? (back < 0 ? 5 : back) : look.effect;
        return { own: back, effect, isMixed: look.own !== 0 && look.isMixed };
    }

    /** Draws what is seen of a mark. @param {HTMLElement} mark @param {string} [act] as if it had been turned so */
    show(mark, act = '') {
        const ahead = act !== '' ? this.after(mark, act) : this.ahead.get(idOf(mark, this.bench))?.look;
        if (!ahead && mark.dataset.drawn === undefined) return;
        const html = ahead ? drawn(mark, ahead) : (mark.dataset.drawn ?? '');
        if (ahead && mark.dataset.drawn === undefined) mark.dataset.drawn = mark.innerHTML;
        if (mark.dataset.shown !== html) {
            mark.innerHTML = html;
            mark.dataset.shown = html;
        }
        if (!ahead) {
            delete mark.dataset.drawn;
            delete mark.dataset.shown;
        }
    }

    /** Unfolds the rungs of the row that the keyboard is on, or of the pick. */
    unfoldHere() {
        const { ledger } = this.bench;
        const row = ledger.keyboardAt >= 0 ? ledger.row(ledger.focusKey) : null;
        const mark = row ? markIn(row, 'D') : document.querySelector('#card [data-column="P"]');
        if (!(mark instanceof HTMLElement)) return this.bench.say('Go to a row, or pick something, first.');
        return this.unfolded.open(mark, true);
    }

    /** Rows have come anew, or an answer has. */
    showAll() {
        for (const mark of /** @type {NodeListOf<HTMLElement>} */ (this.bench.element.querySelectorAll('[data-drawn]')))
            if (!this.ahead.has(idOf(mark, this.bench)) && !mark.classList.contains('swept')) this.show(mark);
        for (const id of this.ahead.keys()) {
            const [key, column] = id.split(' ');
            const mark = column === 'P' ? document.querySelector('#card [data-column="P"]') : markIn(this.bench.ledger.row(key), column);
            if (mark instanceof HTMLElement) this.show(mark);
        }
    }
}

/**
 * Where a mark stands: its row and that row's key, "" for the pick; its column, "D", "O", "P" or the key of a view.
 * @typedef {{row: HTMLElement | null, key: string, place: number, column: string, isView: boolean}} Cell
 */

/** @param {HTMLElement} mark @param {import('./workbench.js').Workbench} bench @returns {Cell} */
function cellOf(mark, bench) {
    const row = /** @type {HTMLElement | null} */ (mark.closest('.rows .row'));
    const column = mark.dataset.column ?? mark.dataset.col ?? '';
    return { row, key: row?.dataset.key ?? '', place: row ? bench.ledger.place(row) : 0, column, isView: mark.dataset.col !== undefined };
}

/** @param {HTMLElement} mark @param {import('./workbench.js').Workbench} bench */
function idOf(mark, bench) {
    const { key, column } = cellOf(mark, bench);
    return `${key} ${column}`;
}

/** @param {Element | null} row @param {string} column @returns {HTMLElement | null} */
function markIn(row, column) {
    return row?.querySelector(/^V/.test(column) ? `[data-col="${column}"]` : `[data-column="${column}"]`) ?? null;
}

/** @param {EventTarget | null} target @returns {HTMLElement | null} */
export function markOf(target) {
    return target instanceof Element ? target.closest('.rung, .out, .cell-button') : null;
}

/** What is never in pictures is not turned by a click. @param {HTMLElement} mark */
function isFixed(mark) {
    return mark.dataset.own === 'never';
}

/** @param {string} word of a setting @returns {number} -1 for what is no rung */
function rungIn(word) {
    return /^[0-5]$/.test(word) ? Number(word) : -1;
}

/** @param {HTMLElement} mark @param {Look} look */
function drawn(mark, { own, effect, isMixed }) {
    if (mark.dataset.col !== undefined && own < 0) return '';
    if (mark.dataset.column === 'O' && own < 0 && effect === 5) return '<span class="as-is" aria-hidden="true">=</span>';
    return bars(own < 0 ? effect : own, effect, isMixed);
}

/**
 * Five bars of rising height, as the server draws them: filled for what is in effect, outlined for an own setting that is held down.
 * @param {number} own
 * @param {number} effect
 * @param {boolean} [isMixed]
 */
export function bars(own, effect, isMixed = false) {
    const each = [0, 1, 2, 3, 4].map((bar) => {
        const height = 3 + 3 * bar;
        const x = 5 * bar;
        const [name, y, tall, left, wide] =
            bar < effect
                ? [isMixed ? 'mix' : 'on', 15 - height, height, x, 4]
                : bar < own
                  ? ['own', 15.5 - height, height - 1, x + 0.5, 3]
                  : ['off', 13, 2, x, 4];
        return `<rect class="${name}" x="${left}" y="${y}" width="${wide}" height="${tall}" rx=".8"></rect>`;
    });
    const all = effect === 5 && !isMixed ? ' all' : '';
    return `<svg class="rung-mark${all}" viewBox="0 0 24 15" aria-hidden="true">${each.join('')}</svg>`;
}

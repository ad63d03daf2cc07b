import { tooLarge } from './failures.js';
import { rectangle } from './wide.js';

/** Bytes that a file of the grid may have at most; the server takes no more. */
const MOST = 8_000_000;

/** Columns before those of the views: the desk, and what pictures show. */
const BEFORE = ['D', 'O'];

/**
 * The ledger widened over views. A block of cells is chosen by dragging, with Shift, from the heads or by arrow keys; what is set, cleared,
 * copied or pasted then is one change. Only the cells around those that are seen are in the page: a block is places of rows and columns.
 * @typedef {{first: number, last: number, left: number, right: number}} Rectangle
 */
export class Grid {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        this.ledger = bench.ledger;
        this.bar = /** @type {HTMLElement} */ (document.getElementById('grid-bar'));
        /** @type {Rectangle | null} */
        this.block = null;
        /** Instead of the rows of the block: all rows of which a view says something, "V3:0". */
        this.where = '';
        /** @type {{place: number, column: number} | null} */
        this.anchor = null;
        this.dragging = false;
        /** What was copied, a line a row and a tab between views. */
        this.copied = '';
        const { rows } = this.ledger;
        rows.addEventListener('pointerdown', (event) => this.onDown(event), true);
        rows.addEventListener('pointerover', (event) => this.onOver(event));
        addEventListener('pointerup', () => (this.dragging = false));
        rows.addEventListener('click', (event) => this.cellOf(event.target) && event.stopPropagation(), true);
        rows.addEventListener('keydown', (event) => this.onKey(event), true);
        rows.addEventListener('shelf:settled', () => this.settled());
        this.head.addEventListener('click', (event) => this.onHead(event));
        this.head.addEventListener('contextmenu', (event) => this.onHead(event));
        this.bar.addEventListener('click', (event) => this.onBar(event));
        bench.dialogs.element.addEventListener('change', ({ target }) => {
            if (target instanceof HTMLInputElement && target.matches('[data-sheet]')) this.askFile(target);
        });
        document.getElementById('grid-strip')?.addEventListener('change', (event) => this.onStrip(/** @type {any} */ (event.target)));
        this.bar.addEventListener('keydown', (event) => {
            if (event.key === 'Escape') this.leave();
        });
    }

    get head() {
        return /** @type {HTMLElement} */ (document.getElementById('ledger-head'));
    }

    get isOn() {
        return this.ledger.rowsNow.views !== undefined;
    }

    /** Keys of the views that are columns. */
    get keys() {
        return (this.ledger.rowsNow.viewKeys ?? '').split(',').filter(Boolean);
    }

    /** Turns it on or off. */
    turn() {
        this.choose(null);
        return this.ledger.arrange({ views: this.isOn ? 'null' : '[0,"",""]' });
    }

    /** @param {EventTarget | null} target @returns {HTMLElement | null} */
    cellOf(target) {
        return target instanceof Element ? target.closest('.cell-button') : null;
    }

    /** Where a cell is: places of its row and its column; the desk and pictures stand before the views. @param {Element} cell */
    at(cell) {
        const row = /** @type {HTMLElement} */ (cell.closest('.row'));
        const within = [...row.querySelectorAll('.cell-button')].indexOf(cell);
        const before = cell.closest('.desk') ? -2 : cell.closest('.output') ? -1 : null;
        return { place: this.ledger.place(row), column: before ?? Number(this.ledger.rowsNow.left ?? 0) + within };
    }

    /** @param {PointerEvent} event */
    onDown(event) {
        const cell = this.cellOf(event.target);
        // A click without Shift turns the cell; see RungMarks.
        if (!cell || event.button !== 0 || !event.shiftKey) return;
        event.preventDefault();
        event.stopPropagation();
        const here = this.at(cell);
        this.dragging = true;
        this.where = '';
        this.anchor ??= here;
        cell.focus({ preventScroll: true });
        this.choose(rectangle(this.anchor, here));
    }

    /** @param {PointerEvent} event */
    onOver(event) {
        if (!this.dragging || !this.anchor || !(event.target instanceof Element)) return;
        const cell = event.target.closest('.cell-button, .desk, .output');
        if (cell) this.choose(rectangle(this.anchor, this.at(cell)));
    }

    /** @param {Rectangle | null} block */
    choose(block) {
        this.block = block;
        if (block === null) {
            this.where = '';
            this.anchor = null;
        }
        this.mark();
    }

    settled() {
        if (!this.isOn && this.block) this.choose(null);
        else this.mark();
    }

    /** Puts on the cells that are here whether they are chosen, and on the bar how many there are. */
    mark() {
        const { block, ledger } = this;
        const left = Number(ledger.rowsNow.left ?? 0);
        const [whereView = '', whereRung = ''] = this.where.split(':');
        for (const row of /** @type {NodeListOf<HTMLElement>} */ (ledger.rows.querySelectorAll('.row'))) {
            const place = ledger.place(row);
            const says =
                whereView === '' ? '' : /** @type {HTMLElement | null} */ (row.querySelector(`[data-col="${whereView}"]`))?.dataset.says;
            const isRow = block !== null && (whereView === '' ? place >= block.first && place <= block.last : says === whereRung);
            const isIn = (/** @type {number} */ column) => isRow && block !== null && column >= block.left && column <= block.right;
            row.querySelectorAll('.cell-button').forEach((cell, at) => cell.classList.toggle('chosen', isIn(left + at)));
            row.querySelector('.desk')?.classList.toggle('chosen', isIn(-2));
            row.querySelector('.output')?.classList.toggle('chosen', isIn(-1));
        }
        this.bar.hidden = block === null || !this.bench.mayChange;
        if (block === null) return;
        const rows = block.last - block.first + 1;
        const columns = this.columns().length;
        const counted = (/** @type {number} */ count, /** @type {string} */ what) =>
            `${count.toLocaleString('en')} ${count === 1 ? what : `${what}s`}`;
        const words = this.where === '' ? `${counted(rows * columns, 'cell')}` : 'Rows that say so';
        const across = counted(columns, 'column');
        /** @type {HTMLElement} */ (this.bar.querySelector('b')).textContent = words;
        /** @type {HTMLElement} */ (this.bar.querySelector('.of')).textContent =
            this.where === '' ? `${counted(rows, 'row')} in ${across}` : `in ${across}`;
        /** @type {HTMLElement} */ (this.bar.querySelector('[data-grid="where"]')).hidden = columns !== 1 || block.left < 0;
    }

    /** Keys of the columns of the block. */
    columns() {
        const { block } = this;
        if (block === null) return [];
        const all = [...BEFORE, ...this.keys];
        return all.slice(block.left + BEFORE.length, block.right + BEFORE.length + 1).filter((key) => this.has(key));
    }

    /** @param {string} key of a column */
    has(key) {
        if (key === 'D') return this.head.querySelector('[data-column="desk"]') !== null;
        if (key === 'O') return this.head.querySelector('[data-column="output"]') !== null;
        return true;
    }

    /** What the block is, for the server. */
    asked() {
        const { block, where } = this;
        const rows = where !== '' ? { where } : { span: `${block?.first ?? 0}-${block?.last ?? 0}` };
        return { ...rows, columns: this.columns().join(',') };
    }

    /** @param {KeyboardEvent} event */
    onKey(event) {
        if (!this.isOn) return;
        const cell = this.cellOf(event.target);
        if (!cell) {
            const row = event.target instanceof Element ? event.target.closest('.row') : null;
            if (event.key !== 'ArrowRight' || !event.ctrlKey || !row) return;
            /** @type {HTMLElement | null} */ (row.querySelector('.cell-button'))?.focus();
        } else if (!this.onCellKey(event, this.at(cell))) return;
        event.preventDefault();
        event.stopPropagation();
    }

    /** @param {KeyboardEvent} event @param {{place: number, column: number}} here @returns {boolean} whether the key meant something */
    onCellKey(event, here) {
        const move = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] }[event.key];
        const control = event.ctrlKey || event.metaKey;
        if (move && !event.altKey && !control) return this.move(here, move, event.shiftKey);
        if (control) {
            const act = { c: () => this.copy(), v: () => this.paste(), d: () => this.fill('down'), a: () => this.all() }[
                event.key.toLowerCase()
            ];
            if (act) act();
            return act !== undefined;
        }
        if (/^[0-5]$/.test(event.key)) this.set(here, event.key);
        else if (event.key === 'Delete' || event.key === 'Backspace') this.set(here, 'none');
        else if (event.key === 'Enter') {
            if (!this.block) this.choose(rectangle(here, here));
            /** @type {HTMLElement | null} */ (this.bar.querySelector('button'))?.focus();
        } else if (event.key === ' ' && event.shiftKey)
            this.choose({ first: here.place, last: here.place, left: 0, right: this.keys.length - 1 });
        else if (event.key === 'Escape') this.leave();
        else return false;
        return true;
    }

    /** @param {{place: number, column: number}} here @param {number[]} by @param {boolean} extends_ */
    move(here, [down, aside], extends_) {
        // A block that the keyboard has left for another cell is not gone on with.
        if (extends_ && !this.isWithin(here)) this.anchor = this.block = null;
        const from = extends_ && this.block && this.anchor ? this.farEnd() : here;
        const there = {
            place: Math.max(0, Math.min(this.ledger.shown.total - 1, from.place + down)),
            column: Math.max(extends_ ? -2 : 0, Math.min(this.keys.length - 1, from.column + aside)),
        };
        if (extends_) {
            this.anchor ??= here;
            this.where = '';
            this.choose(rectangle(this.anchor, there));
            if (there.column < 0) return true;
        } else if (here.column + aside < 0) {
            const row = this.ledger.rows.querySelector(`[aria-rowindex="${here.place + 2}"]`);
            this.choose(null);
            if (row instanceof HTMLElement) this.ledger.focus(row);
            return true;
        } else this.choose(null);
        this.focus(there.place, there.column);
        return true;
    }

    /** @param {{place: number, column: number}} here @returns {boolean} whether the chosen block has this cell */
    isWithin({ place, column }) {
        const { block } = this;
        return !!block && place >= block.first && place <= block.last && column >= block.left && column <= block.right;
    }

    /** The corner of the block that lies away from where it starts. */
    farEnd() {
        const { block, anchor } = this;
        if (!block || !anchor) return { place: 0, column: 0 };
        return {
            place: anchor.place === block.first ? block.last : block.first,
            column: anchor.column === block.left ? block.right : block.left,
        };
    }

    /** @param {number} place @param {number} column */
    async focus(place, column) {
        await this.ledger.focusPlace(place);
        this.ledger.revealAside(column);
        const cell = () => {
            const row = this.ledger.rows.querySelector(`[aria-rowindex="${place + 2}"]`);
            const key = this.keys[column];
            return /** @type {HTMLElement | null} */ (row?.querySelector(`[data-col="${key}"]`) ?? null);
        };
        if (!cell()) await this.ledger.fetch('GET', '/ledger');
        cell()?.focus({ preventScroll: true });
    }

    /** All rows of all views. */
    all() {
        this.where = '';
        this.anchor = { place: 0, column: 0 };
        this.choose({ first: 0, last: this.ledger.shown.total - 1, left: 0, right: this.keys.length - 1 });
    }

    /** Gives the keyboard back to the row. */
    leave() {
        this.choose(null);
        this.ledger.takeFocus();
    }

    /** @param {MouseEvent} event */
    onHead(event) {
        const head = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-view-head]'));
        if (!head) return;
        event.preventDefault();
        event.stopPropagation();
        const column = this.keys.indexOf(head.dataset.viewHead ?? '');
        if (event.type === 'contextmenu') return void this.openHead(head, event);
        const last = this.ledger.shown.total - 1;
        const from = event.shiftKey && this.anchor ? this.anchor.column : column;
        this.anchor = { place: 0, column: from };
        this.where = '';
        this.choose({ first: 0, last, left: Math.min(from, column), right: Math.max(from, column) });
    }

    /** @param {HTMLElement} head @param {MouseEvent} event */
    openHead(head, event) {
        const key = head.dataset.viewHead ?? '';
        const item = /** @type {HTMLElement | null} */ (document.querySelector(`#shelf [data-key="${key}"]`));
        if (item) this.bench.shelf.openMenu(item, event);
    }

    /** @param {{place: number, column: number}} here @param {string} rung "0" to "5", or "none" */
    set(here, rung) {
        if (!this.bench.may()) return undefined;
        if (!this.block) this.block = rectangle(here, here);
        return this.bench.server.ask('POST', '/grid', { ...this.asked(), rung });
    }

    /** @param {string} source "D", or the key of a view */
    copyFrom(source) {
        return this.bench.server.ask('POST', '/grid/copy', { ...this.asked(), source });
    }

    async copy() {
        const { server } = this.bench;
        const text = await server.html(`/grid/cells?${new URLSearchParams({ ...this.window(), ...this.asked() })}`);
        if (text === null) return;
        this.copied = text;
        navigator.clipboard?.writeText(text).catch(() => undefined);
        this.bench.say(`Copied: ${/** @type {HTMLElement} */ (this.bar.querySelector('.of')).textContent}.`);
    }

    /** @param {string} [pattern] what is pasted, what was copied otherwise */
    paste(pattern = this.copied) {
        if (!this.bench.may()) return undefined;
        if (pattern === '') return this.bench.say('There is nothing to paste; copy some cells first (Ctrl+C).');
        return this.bench.server.ask('POST', '/grid/paste', { ...this.asked(), pattern });
    }

    /** The first row, or the first column, of the block comes into all of it. @param {'down' | 'aside'} way */
    async fill(way) {
        const { block } = this;
        if (!block || this.where !== '') return;
        const first = way === 'down' ? { span: `${block.first}-${block.first}` } : { columns: this.columns()[0] };
        const text = await this.bench.server.html(`/grid/cells?${new URLSearchParams({ ...this.window(), ...this.asked(), ...first })}`);
        if (text !== null) await this.paste(text);
    }

    /** What the server needs to know which rows are meant. @returns {Record<string, string>} */
    window() {
        return Object.fromEntries(Object.entries(this.ledger.window).map(([name, value]) => [name, String(value)]));
    }

    /** @param {MouseEvent} event */
    onBar(event) {
        const button = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-grid], [data-grid-rung]'));
        if (!button || !this.block) return;
        const { gridRung, grid = '' } = button.dataset;
        if (gridRung !== undefined) return void this.set({ place: this.block.first, column: this.block.left }, gridRung);
        const acts = /** @type {Record<string, () => any>} */ ({
            copy: () => this.copy(),
            paste: () => this.paste(),
            down: () => this.fill('down'),
            aside: () => this.fill('aside'),
            from: () => this.openSources(button),
            where: () => this.openWhere(button),
            end: () => this.leave(),
        });
        acts[grid]?.();
    }

    /** @param {HTMLElement} button */
    openSources(button) {
        const names = /** @type {HTMLElement[]} */ ([...document.querySelectorAll('#shelf [data-view]')]);
        this.bench.menus.back = button;
        this.bench.menus.show(button, undefined, [
            ['The desk', '', () => this.copyFrom('D')],
            null,
            ...names.map((view) => [view.dataset.name ?? '', '', () => this.copyFrom(`V${view.dataset.view}`)]),
        ]);
    }

    /** Of one view: all rows of which it says the same. @param {HTMLElement} button */
    openWhere(button) {
        const [key] = this.columns();
        const rungs = ['Hidden', 'Box', 'Ghost', 'Coarse', 'Plain', 'Full'];
        this.bench.menus.back = button;
        this.bench.menus.show(
            button,
            undefined,
            rungs.map((name, rung) => [
                `All rows where it says ${name}`,
                '',
                () => {
                    this.where = `${key}:${rung}`;
                    this.mark();
                },
            ]),
        );
    }

    /** Shows what the cells of a file would set; asks for one where there is none yet. @param {HTMLInputElement} [input] */
    async askFile(input) {
        const file = input?.files?.[0];
        if (file && tooLarge(file, MOST)) return;
        const sheet = (await file?.text()) ?? '';
        const html = await this.bench.server.htmlOf('/grid/preview', { sheet, ...(input ? { chosen: '1' } : {}) });
        if (html) return this.bench.dialogs.open(html);
        // The same file is read again once it was mended.
        if (input) Object.assign(input, { value: '' }).setAttribute('aria-invalid', 'true');
    }

    /** @param {HTMLInputElement | HTMLSelectElement} field */
    onStrip(field) {
        const strip = /** @type {HTMLElement} */ (field.closest('#grid-strip'));
        const value = (/** @type {string} */ name) => /** @type {HTMLInputElement} */ (strip.querySelector(`[name=${name}]`)).value;
        this.choose(null);
        this.ledger.scroll.scrollTop = 0;
        this.ledger.wanted.from = 0;
        this.ledger.arrange({ views: JSON.stringify([Number(value('grid_folder')), value('grid_named'), value('grid_only')]) });
    }
}

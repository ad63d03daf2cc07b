import { whileBusy } from './busy.js';
import { htmx } from '../htmx.js';

const ROW = 28;
const MARGIN = 12;

/**
 * The ledger's rows come in windows: the spacer is as tall as all rows together, so the scrollbar is true to the whole, and only
 * the rows around the visible ones are in the page. Focus, selection and keys are kept by row key, not by element.
 */
export class Ledger {
    /** @param {HTMLElement} element @param {import('./server.js').Server} server */
    constructor(element, server) {
        this.element = element;
        this.server = server;
        this.grid = /** @type {HTMLElement} */ (element.querySelector('#ledger-grid'));
        this.scroll = /** @type {HTMLElement} */ (element.querySelector('#scroll'));
        this.spacer = /** @type {HTMLElement} */ (element.querySelector('#spacer'));
        this.rows = /** @type {HTMLElement} */ (element.querySelector('#rows'));
        this.input = /** @type {HTMLInputElement} */ (element.querySelector('#words'));
        this.follows = true;
        this.lens = this.rows.querySelector('.window')?.getAttribute('data-lens') ?? 'layers';
        this.words = '';
        /** Part of the names of the layers, tags or sets to show. */
        this.named = '';
        this.wanted = { from: 0, count: 60, left: 0, across: 40 };
        /** @type {Set<string>} rows of layers, tags, folders and sets that commands act on */
        this.selected = new Set();
        this.focusKey = '';
        /** Where the row stands that has the keyboard, or had it when it was replaced; -1 when the keyboard is elsewhere. */
        this.keyboardAt = -1;
        /** The row that is pointed out while somebody types: a hit, or where typing ahead has come to. */
        this.pointedKey = '';
        /** The newest state that the page has heard of. */
        this.known = { revision: 0, desk: 0 };
        /** Questions for rows that are not answered yet. */
        this.open = 0;
        /** What is arranged is written in the order that it was asked for in. @type {Promise<any>} */
        this.written = Promise.resolve();
        /** A place whose row is to get the focus when it comes. @type {{place: number, quiet: boolean} | undefined} */
        this.awaited = undefined;
        /** @type {number | null} where a range starts */
        this.anchor = null;
        /** The row that stood there when it was chosen. */
        this.anchorKey = '';
        /** The stretch of rows that was asked for last. */
        this.rangeAsked = '';
        this.settle();
        this.listen();
    }

    /** What the server needs to draw the same window again. */
    get window() {
        return { lens: this.lens, words: this.words, named: this.named, ...this.wanted };
    }

    /** Pixels that the head takes. */
    get head() {
        return document.getElementById('ledger-head')?.offsetHeight ?? 26;
    }

    /** What the rows that are here say of themselves. @returns {DOMStringMap} */
    get rowsNow() {
        return /** @type {HTMLElement | null} */ (this.rows.querySelector('.window'))?.dataset ?? {};
    }

    get shown() {
        const { from, total, hits } = this.rowsNow;
        return { from: Number(from ?? 0), total: Number(total ?? 0), hits: hits ?? '' };
    }

    listen() {
        this.scroll.addEventListener('scroll', () => this.follow());
        new ResizeObserver(() => this.follow()).observe(this.scroll);
        // Rows are morphed in place, so the window element itself often stays and only its attributes tell that it is another one.
        new MutationObserver(() => this.settle()).observe(this.rows, {
            childList: true,
            subtree: true,
            attributes: true,
            attributeFilter: [
                'data-from',
                'data-total',
                'data-hits',
                'data-key',
                'data-tracks',
                'data-left',
                'data-says',
                'data-follow',
                'data-desk',
                'data-revision',
            ],
        });
        document.addEventListener('htmx:after:swap', () => this.settle());
        this.rows.addEventListener('focusin', (event) => {
            const row = /** @type {HTMLElement} */ (event.target).closest('.row');
            if (!(row instanceof HTMLElement)) return;
            this.focusKey = row.dataset.key ?? '';
            this.keyboardAt = this.place(row);
        });
        // It is given away by whoever goes elsewhere, and not by a row that is replaced.
        for (const [name, within] of /** @type {[string, HTMLElement][]} */ ([
            ['focusin', this.rows],
            ['pointerdown', this.grid],
        ]))
            document.addEventListener(name, ({ target }) => {
                if (!(target instanceof Node && within.contains(target))) this.keyboardAt = -1;
            });
    }

    /** Narrows the rows; a rule that cannot be understood leaves them as they were. @param {string} words */
    async search(words) {
        this.refocus = false;
        this.awaited = undefined;
        this.words = words.trim();
        this.wanted.from = 0;
        const status = await this.fetch('GET', '/ledger');
        if (status === 422) {
            this.words = this.rowsNow.rule ?? '';
            this.wanted.from = this.shown.from;
            this.check();
        } else if (status === 200) this.scroll.scrollTop = 0;
        return status;
    }

    /** Shows only rows of layers, tags, sets and folders that are called so, and those above them. @param {string} name "" for all */
    nameRows(name) {
        this.named = name.trim();
        this.wanted.from = 0;
        this.scroll.scrollTop = 0;
        return this.fetch('GET', '/ledger');
    }

    /** @param {string} lens */
    turn(lens) {
        this.lens = lens;
        this.awaited = undefined;
        this.scroll.scrollTop = 0;
        this.wanted.from = 0;
        this.anchor = null;
        this.selected.clear();
        this.grid.setAttribute('aria-label', document.getElementById(`lens-${lens}`)?.textContent ?? lens);
        return this.arrange({ lens });
    }

    /** @param {string} keys @param {boolean} unfold */
    fold(keys, unfold) {
        return this.arrange({ fold: keys, unfold: unfold ? 1 : 0 });
    }

    /** Changes how the ledger is arranged. @param {Record<string, any>} values @returns {Promise<number>} the answer's status */
    arrange(values) {
        this.written = this.written.catch(() => 0).then(() => this.fetch('POST', '/ledger', values));
        return this.written;
    }

    /**
     * @param {'GET' | 'POST'} method
     * @param {string} path
     * @param {Record<string, any>} [values]
     */
    async fetch(method, path, values = {}) {
        const asked = (this.asked = (this.asked ?? 0) + 1);
        let status = 0;
        this.open++;
        const source = document.createElement('span');
        source.hidden = true;
        document.body.append(source);
        try {
            // An answer that a later question has overtaken is dropped.
            source.addEventListener('htmx:after:request', (event) => {
                status = /** @type {CustomEvent} */ (event).detail.ctx.response.status;
                if (asked !== this.asked) event.preventDefault();
            });
            const answer = htmx.ajax(method, this.server.base + path, {
                source,
                target: '#rows',
                swap: 'innerMorph',
                values: { ...this.window, ...values },
            });
            await whileBusy(this.words === '' ? 'Fetching rows' : `Looking for ${this.words}`, answer);
        } finally {
            source.remove();
            this.open--;
        }
        const answered = asked === this.asked ? status : 0;
        // Whoever asked what cannot be answered has to take that back first.
        if (answered !== 422) this.check();
        return answered;
    }

    /** @param {{revision: number, desk: number}} known what the rows must not be older than */
    hears(known) {
        this.known = known;
        this.check();
    }

    /**
     * Answers may come in another order than their questions: rows from before a change, or from before a search or a turn to another
     * lens, are asked for anew: once for each state and window, since another change may be made while they are on their way.
     */
    check() {
        const { revision, desk, lens, rule, named } = this.rowsNow;
        const isOld =
            Number(revision) < this.known.revision ||
            Number(desk) < this.known.desk ||
            lens !== this.lens ||
            (rule ?? '') !== this.words ||
            (named ?? '') !== this.named;
        if (this.open > 0) return;
        const wanted = isOld ? JSON.stringify([this.known.revision, this.known.desk, this.lens, this.words, this.named]) : '';
        const isAnother = wanted !== this.askedAnewFor;
        this.askedAnewFor = wanted;
        if (isOld && isAnother) this.fetch('GET', '/ledger');
    }

    /** Asks for other rows once the scroll leaves those that are here. */
    follow() {
        this.grid.classList.toggle('is-aside', this.scroll.scrollLeft > 0);
        const first = Math.floor(this.scroll.scrollTop / ROW);
        const visible = Math.ceil((this.scroll.clientHeight - this.head) / ROW);
        const { from, total } = this.shown;
        const count = Math.min(200, visible + 2 * MARGIN);
        const missing = first < from || Math.min(total, first + visible) > from + this.rows.querySelectorAll('.row').length;
        this.wanted.count = count;
        const aside = this.followAside();
        if (!missing && !aside) return;
        if (missing) this.wanted.from = Math.max(0, Math.min(first - MARGIN, total - count));
        this.fetch('GET', '/ledger');
    }

    /** Whether columns of views are seen that are not here. @returns {boolean} */
    followAside() {
        const { views, left, across, cell } = this.rowsNow;
        if (views === undefined) return false;
        const wide = Number(cell);
        const before = Number(this.rowsNow.width) - Number(views) * wide;
        const first = Math.max(0, Math.floor((this.scroll.scrollLeft - before) / wide));
        const last = Math.min(Number(views), Math.ceil((this.scroll.scrollLeft + this.scroll.clientWidth - before) / wide) + 4);
        this.wanted.across = Math.min(120, Math.ceil(this.scroll.clientWidth / wide) + 16);
        if (first >= Number(left) && last <= Number(left) + Number(across)) return false;
        this.wanted.left = Math.max(0, Math.min(first - 8, Number(views) - this.wanted.across));
        return true;
    }

    /** Scrolls as little aside as it takes to show a column of a view. @param {number} column */
    revealAside(column) {
        const { views, cell, width } = this.rowsNow;
        const wide = Number(cell);
        const start = Number(width) - Number(views) * wide - 28 + column * wide;
        const name = /** @type {HTMLElement | null} */ (this.rows.querySelector('.row .name'))?.offsetWidth ?? 0;
        if (start - name < this.scroll.scrollLeft) this.scroll.scrollLeft = Math.max(0, start - name);
        else if (start + wide > this.scroll.scrollLeft + this.scroll.clientWidth)
            this.scroll.scrollLeft = start + wide - this.scroll.clientWidth;
        this.followAside();
    }

    /** After rows came: puts them where they belong, and gives back focus and selection. */
    settle() {
        const { from, total, hits } = this.shown;
        this.spacer.style.height = `${Math.max(total, 1) * ROW}px`;
        this.rows.style.transform = `translateY(${from * ROW}px)`;
        this.grid.setAttribute('aria-rowcount', String(total + 1));
        const { tracks, width, follow, says } = this.rowsNow;
        if (tracks) {
            this.grid.style.setProperty('--tracks', tracks);
            this.grid.style.setProperty('--least', `${width}px`);
            this.follows = follow === '1';
        }
        if (this.saying !== (says ?? '')) {
            this.saying = says ?? '';
            document
                .getElementById('rule-says')
                ?.replaceChildren(
                    ...(this.saying ? [Object.assign(document.createElement('p'), { className: 'remark', textContent: this.saying })] : []),
                );
        }
        for (const row of /** @type {NodeListOf<HTMLElement>} */ (this.rows.querySelectorAll('.row.is-layer, .row.is-group'))) {
            row.setAttribute('aria-selected', String(this.selected.has(row.dataset.key ?? '') || row.classList.contains('picked')));
        }
        this.focusAwaited();
        if (this.pointedKey !== '') this.point(this.pointedKey);
        const focused = this.row(this.focusKey) ?? this.rows.querySelector('.row');
        for (const row of this.rows.querySelectorAll('.row[tabindex="0"]')) row.setAttribute('tabindex', '-1');
        focused?.setAttribute('tabindex', '0');
        const wanted = this.row(this.focusKey);
        if (this.refocus && wanted) {
            this.refocus = false;
            // Whoever is typing keeps the keyboard.
            if (!(document.activeElement instanceof HTMLInputElement)) wanted.focus({ preventScroll: true });
        }
        this.keepKeyboard();
        const counter = /** @type {HTMLElement} */ (this.element.querySelector('#hits'));
        counter.textContent = hits === '' ? '' : `${Number(hits).toLocaleString('en')} ${hits === '1' ? 'object' : 'objects'}`;
        /** @type {HTMLElement} */ (this.element.querySelector('#hits-bar')).hidden = hits === '' || hits === '0';
        this.rows.dispatchEvent(new CustomEvent('shelf:settled'));
        // Rows may have become fewer than the scroll position allows, or an overtaken answer may have left another window.
        this.follow();
        this.check();
    }

    /** A row that was replaced, or that is gone, leaves the keyboard to the one that stands there now. */
    keepKeyboard() {
        if (this.keyboardAt < 0 || document.activeElement !== document.body) return;
        const last = Math.min(this.keyboardAt, this.shown.total - 1);
        const row = this.row(this.focusKey) ?? this.rows.querySelector(`[aria-rowindex="${last + 2}"]`);
        if (row instanceof HTMLElement) row.focus({ preventScroll: true });
    }

    /** @param {string} key @returns {HTMLElement | null} */
    row(key) {
        return key === '' ? null : /** @type {HTMLElement | null} */ (document.getElementById(`row-${key}`));
    }

    /** The row that had the focus last gets it back, or the first one here. */
    takeFocus() {
        const row = this.row(this.focusKey) ?? /** @type {HTMLElement | null} */ (this.rows.querySelector('.row'));
        row?.focus();
    }

    /** @param {HTMLElement} row where it stands among all rows, from 0 */
    place(row) {
        return Number(row.getAttribute('aria-rowindex')) - 2;
    }

    /**
     * Moves the focus to the row at a place, which may not be here yet.
     * @param {number} place
     * @param {boolean} [quiet] whether whoever is typing keeps the keyboard
     * @returns {Promise<number>} the place that was meant
     */
    async focusPlace(place, quiet = false) {
        const { total } = this.shown;
        const wanted = Math.max(0, Math.min(total - 1, place));
        this.reveal(wanted, quiet ? 3 : 0);
        // The rows may come with a later answer than the one that is asked for here.
        this.awaited = { place: wanted, quiet };
        if (!this.focusAwaited()) {
            this.wanted.from = Math.max(0, wanted - MARGIN);
            await this.fetch('GET', '/ledger');
            this.focusAwaited();
        }
        return wanted;
    }

    /** Focuses the row that is waited for, if it is here. @returns {boolean} whether nothing is waited for any more */
    focusAwaited() {
        if (!this.awaited) return true;
        const { place, quiet } = this.awaited;
        const row = this.rows.querySelector(`[aria-rowindex="${place + 2}"]`);
        if (row instanceof HTMLElement) this.focus(row, quiet);
        return row instanceof HTMLElement;
    }

    /** @param {HTMLElement} row @param {boolean} [quiet] */
    focus(row, quiet = false) {
        for (const other of this.rows.querySelectorAll('.row[tabindex="0"]')) other.setAttribute('tabindex', '-1');
        row.setAttribute('tabindex', '0');
        if (!quiet) row.focus({ preventScroll: true });
        this.awaited = undefined;
        this.focusKey = row.dataset.key ?? '';
        this.point(quiet ? this.focusKey : '');
    }

    /** Points a row out without giving it the keyboard. @param {string} key empty for none */
    point(key) {
        this.pointedKey = key;
        for (const other of this.rows.querySelectorAll('.row.pointed')) other.classList.remove('pointed');
        for (const other of this.rows.querySelectorAll('[aria-current]')) other.removeAttribute('aria-current');
        const row = this.row(key);
        row?.classList.add('pointed');
        row?.setAttribute('aria-current', 'true');
    }

    /** Scrolls as little as it takes to show a place. @param {number} place @param {number} [around] rows to show before and after it */
    reveal(place, around = 0) {
        const top = (place - around) * ROW;
        const bottom = (place + around + 1) * ROW;
        if (top < this.scroll.scrollTop) this.scroll.scrollTop = Math.max(0, top);
        else if (bottom > this.scroll.scrollTop + this.scroll.clientHeight - this.head)
            this.scroll.scrollTop = bottom + this.head - this.scroll.clientHeight;
    }

    /** Shows the row of an object or layer, or of what it is folded away in. @param {string} key @param {boolean} [focus] */
    async show(key, focus = false) {
        const asked = `${this.lens} ${this.words}`;
        const { focusKey, awaited } = this;
        const found = await this.server.json(`/ledger/place?lens=${this.lens}&words=${encodeURIComponent(this.words)}&key=${key}`);
        // Whoever has gone on meanwhile, to search, to type or to another row, is left where they are.
        if (asked !== `${this.lens} ${this.words}` || this.awaited !== awaited) return;
        if (focusKey !== '' && this.focusKey !== focusKey) return;
        const typing = document.activeElement;
        if (typing instanceof HTMLInputElement && !typing.closest('dialog')) focus = false;
        if (found && found.place !== null) {
            this.reveal(found.place);
            this.focusKey = found.key;
            this.refocus = focus;
            this.follow();
            this.settle();
        }
    }

    /** @param {string} key "" for none @param {boolean} more whether to keep what is selected */
    select(key, more) {
        if (!more) this.selected.clear();
        if (more && this.selected.has(key)) this.selected.delete(key);
        else if (key !== '') this.selected.add(key);
        this.settle();
    }

    /** @param {string[]} keys */
    selectAll(keys) {
        this.selected = new Set(keys);
        this.settle();
    }

    /** The rows that a command is for: the selected layers, else the focused row. @returns {string[]} */
    get target() {
        if (this.selected.has(this.focusKey)) return [...this.selected];
        return this.focusKey === '' ? [...this.selected] : [this.focusKey];
    }
}

import { RUNGS } from './showing.js';
import { bars, markOf } from './rungmarks.js';

/** Milliseconds that a pointer rests on a mark before it unfolds, and that it may be elsewhere before it folds again. */
const REST = 550;
const AWAY = 280;

/** @param {HTMLElement} mark @returns {string | undefined} */
const rowOf = (mark) => /** @type {HTMLElement | null} */ (mark.closest('.rows .row'))?.dataset.key;

/**
 * The rungs with their names beside a mark: they unfold where the pointer rests, or by key, and a click sets one. Above them stands why
 * the mark says what it says.
 */
export class Unfolded {
    /** @param {import('./workbench.js').Workbench} bench @param {import('./rungmarks.js').RungMarks} marks */
    constructor(bench, marks) {
        this.bench = bench;
        this.marks = marks;
        this.element = /** @type {HTMLElement} */ (document.getElementById('unfolded'));
        /** @type {HTMLElement | null} */
        this.mark = null;
        /** Where the pointer was moved last. @type {{ clientX: number, clientY: number } | null} */
        this.at = null;
        /** One that was clicked does not unfold until the pointer has left it. @type {HTMLElement | null} */
        this.left = null;
        /** Whether a finger that rested has unfolded the rungs, so that lifting it is no click. */
        this.tookOver = false;
        bench.element.addEventListener('pointerover', (event) => this.over(event));
        bench.element.addEventListener('pointermove', (event) => event.pointerType === 'mouse' && this.rests(markOf(event.target), event));
        bench.element.addEventListener(
            'contextmenu',
            (event) => {
                const mark = markOf(event.target);
                if (!mark) return;
                event.preventDefault();
                event.stopPropagation();
                this.open(mark, true);
            },
            true,
        );
        this.element.addEventListener('pointerenter', () => clearTimeout(this.folding));
        this.element.addEventListener('pointerleave', () => this.foldSoon());
        this.element.addEventListener('keydown', (event) => this.key(event));
        this.element.addEventListener('click', (event) => this.choose(event));
        addEventListener('pointerdown', ({ target }) => {
            if (target instanceof Node && !this.element.contains(target)) this.fold();
        });
        bench.ledger.scroll.addEventListener('scroll', () => this.mark && this.fold());
    }

    /** @param {PointerEvent} event */
    over(event) {
        const mark = markOf(event.target);
        // Rows that are drawn anew pass under a pointer that has not moved.
        if (event.clientX === this.at?.clientX && event.clientY === this.at.clientY) return;
        if (this.left !== null && mark !== this.left) this.left = null;
        if (mark === null || (this.mark !== null && mark !== this.mark)) this.foldSoon();
        if (mark === null || event.pointerType !== 'mouse' || event.buttons !== 0) clearTimeout(this.resting);
    }

    /**
     * What the pointer rests on unfolds also when its row was drawn anew meanwhile, and not when another row was scrolled there.
     *
     * @param {HTMLElement | null} mark @param {{ clientX: number, clientY: number }} at
     */
    rests(mark, { clientX, clientY }) {
        this.at = { clientX, clientY };
        clearTimeout(this.resting);
        if (!mark || mark === this.left || this.marks.stroke || mark.hasAttribute('disabled')) return;
        if (mark === this.mark) return void clearTimeout(this.folding);
        const row = rowOf(mark);
        this.resting = window.setTimeout(() => {
            const now = markOf(document.elementFromPoint(clientX, clientY));
            if (now && rowOf(now) === row && !this.marks.stroke) this.open(now);
        }, REST);
    }

    /** @param {HTMLElement} mark */
    clicked(mark) {
        clearTimeout(this.resting);
        this.fold();
        this.left = mark;
        this.tookOver = false;
        this.resting = window.setTimeout(() => {
            const { stroke } = this.marks;
            if (stroke?.mark !== mark || stroke.event.pointerType === 'mouse' || stroke.from.place !== stroke.to.place) return;
            this.tookOver = true;
            this.open(mark);
        }, REST);
    }

    /** @param {HTMLElement} mark @param {boolean} [byKey] whether it gets the keyboard */
    open(mark, byKey = false) {
        const { dataset } = mark;
        this.mark = mark;
        this.back = /** @type {HTMLElement | null} */ (document.activeElement);
        const says = Object.assign(document.createElement('p'), { className: 'why-line', textContent: dataset.why ?? '' });
        this.element.replaceChildren(...(says.textContent ? [says] : []));
        const isDesk = dataset.column === 'D' || dataset.column === 'P';
        const own = dataset.says ?? dataset.own ?? '';
        const add = (/** @type {string} */ word, /** @type {string} */ label, /** @type {string} */ key, /** @type {string} */ html) => {
            const item = Object.assign(document.createElement('button'), { type: 'button', className: 'item', innerHTML: html });
            item.setAttribute('role', 'menuitemradio');
            item.setAttribute('aria-checked', String(word === own || (word === 'none' && own === '')));
            item.dataset.word = word;
            item.append(Object.assign(document.createElement('span'), { textContent: label }));
            if (key) item.append(Object.assign(document.createElement('kbd'), { textContent: key }));
            this.element.append(item);
        };
        for (const [name, rung] of RUNGS) add(String(rung), name, String(rung), bars(rung, rung));
        if (!isDesk) add('none', 'Nothing set', '', '<i>=</i>');
        if (dataset.column === 'O') {
            add('desk', 'As on the desk', '', '<i></i>');
            add('never', 'Never in pictures…', '', '<i></i>');
        }
        if (dataset.column === 'D') {
            this.element.append(document.createElement('hr'));
            add('only', this.isAlone() ? 'All again' : 'Only this', 'Ctrl click', '<i></i>');
        }
        this.element.showPopover();
        this.place(mark);
        const chosen = this.element.querySelector('[aria-checked=true]') ?? this.element.querySelector('button');
        if (byKey) /** @type {HTMLElement | null} */ (chosen)?.focus();
    }

    isAlone() {
        return document.querySelector('#isolated [data-command="isolate-back"]') !== null;
    }

    /** Beside the mark, and not over those above and below it. @param {HTMLElement} mark */
    place(mark) {
        const at = mark.getBoundingClientRect();
        const { width, height } = this.element.getBoundingClientRect();
        const left = at.right + 4 + width < innerWidth - 4 ? at.right + 4 : Math.max(4, at.left - width - 4);
        const top = Math.max(4, Math.min(innerHeight - height - 4, at.top + at.height / 2 - height / 2));
        this.element.style.inset = `${top}px auto auto ${left}px`;
    }

    foldSoon() {
        clearTimeout(this.folding);
        this.folding = window.setTimeout(() => this.fold(), AWAY);
    }

    /** Another mark that the pointer rests on meanwhile unfolds all the same. */
    fold() {
        clearTimeout(this.folding);
        if (this.mark === null) return;
        const hadFocus = this.element.contains(document.activeElement);
        this.mark = null;
        if (this.element.matches(':popover-open')) this.element.hidePopover();
        if (hadFocus) this.back?.focus?.({ preventScroll: true });
    }

    /** @param {KeyboardEvent} event */
    key(event) {
        const items = /** @type {HTMLElement[]} */ ([...this.element.querySelectorAll('button')]);
        const at = items.indexOf(/** @type {HTMLElement} */ (document.activeElement));
        if (event.key === 'Escape') this.fold();
        else if (event.key === 'ArrowDown' || event.key === 'ArrowUp')
            items[(at + (event.key === 'ArrowDown' ? 1 : items.length - 1)) % items.length].focus();
        else if (/^[0-5]$/.test(event.key)) this.set(event.key);
        else return;
        event.preventDefault();
        event.stopPropagation();
    }

    /** @param {MouseEvent} event */
    choose(event) {
        const item = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-word]'));
        if (item) this.set(item.dataset.word ?? '');
    }

    /** @param {string} word of what is to be set */
    set(word) {
        const { mark, bench } = this;
        if (!mark) return;
        const row = /** @type {HTMLElement | null} */ (mark.closest('.rows .row'));
        const key = row?.dataset.key ?? '';
        const keys = (bench.ledger.selected.has(key) ? [...bench.ledger.selected] : [key]).join(',');
        const { column = '', col = '' } = mark.dataset;
        this.fold();
        if (word === 'only') return void this.marks.only(key);
        if (column === 'P') return void bench.server.ask('POST', '/rungs', { on: 'pick', rung: word });
        if (column === 'D') return void bench.server.ask('POST', '/rungs', { keys, rung: word });
        if (!bench.may()) return;
        if (word === 'never') return void bench.openDialog(`/output?keys=${keys}`);
        if (column === 'O') return void bench.server.ask('POST', '/output', { keys, output: word });
        bench.server.ask('POST', '/grid', { keys, columns: col, rung: word });
    }
}

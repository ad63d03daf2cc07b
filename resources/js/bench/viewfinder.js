/**
 * Whether a card stays while views are looked for: every word stands in its name or its note.
 * @param {string} words as they were typed
 * @param {string} text
 */
export function answersTo(words, text) {
    const low = text.toLocaleLowerCase();
    return words
        .toLocaleLowerCase()
        .split(/\s+/)
        .every((word) => low.includes(word));
}

/** Looks for views on the shelf by parts of their names and notes. */
export class ViewFinder {
    /** @param {import('./shelf.js').Shelf} shelf */
    constructor(shelf) {
        this.shelf = shelf;
        this.element = /** @type {HTMLElement} */ (document.getElementById('shelf-find'));
        this.input = /** @type {HTMLInputElement} */ (this.element.querySelector('input'));
        this.input.addEventListener('input', () => this.narrow());
        this.input.addEventListener('keydown', (event) => this.onKey(event));
        this.input.addEventListener('blur', () => this.input.value === '' && this.close());
    }

    get words() {
        return this.input.value.trim();
    }

    open() {
        this.element.classList.add('finding');
        this.input.focus();
        this.input.select();
    }

    close() {
        this.input.value = '';
        this.element.classList.remove('finding');
        this.narrow();
    }

    narrow() {
        this.shelf.mark();
        const count = this.found().length;
        this.input.classList.toggle('finds-none', this.words !== '' && count === 0);
        this.input.title = this.words === '' ? '' : `${count} ${count === 1 ? 'view' : 'views'}`;
    }

    /** The cards that answer. */
    found() {
        return this.shelf.items().filter((item) => item.dataset.view !== undefined && !item.hidden);
    }

    /**
     * Whether something on the shelf stands back: a view that does not answer, a folder with none that does.
     * @param {HTMLElement} item
     */
    hides(item) {
        const answers = (/** @type {HTMLElement} */ view) => answersTo(this.words, `${view.dataset.name} ${view.dataset.noted}`);
        if (item.dataset.view !== undefined) return !answers(item);
        const key = item.dataset.key ?? '';
        return !this.shelf
            .items()
            .some((each) => each.dataset.view !== undefined && (each.dataset.within ?? '').split(' ').includes(key) && answers(each));
    }

    /** @param {KeyboardEvent} event */
    onKey(event) {
        const first = this.found()[0]?.querySelector('.view-picture');
        if (event.key === 'Escape') {
            this.close();
            this.shelf.bench.canvas.surface.focus();
        } else if (event.key === 'Enter' && first instanceof HTMLElement) {
            first.focus();
            this.shelf.bench.command('apply-view', first);
        } else if (event.key === 'ArrowDown' && first instanceof HTMLElement) first.focus();
        else return;
        event.preventDefault();
        event.stopPropagation();
    }
}

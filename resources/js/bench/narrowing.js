/** The line that finds rows of layers, tags and sets by their own names: what is typed narrows them at once. */
export class Narrowing {
    /** @param {import('./ledger.js').Ledger} ledger */
    constructor(ledger) {
        this.ledger = ledger;
        this.bar = /** @type {HTMLElement} */ (document.getElementById('named-bar'));
        this.input = /** @type {HTMLInputElement} */ (document.getElementById('named'));
        this.input.addEventListener('input', () => {
            clearTimeout(this.waiting);
            this.waiting = window.setTimeout(() => ledger.nameRows(this.input.value), 120);
        });
        this.input.addEventListener('keydown', (event) => {
            if (event.key === 'Escape') this.end()?.then(() => ledger.takeFocus());
            else if (event.key === 'ArrowDown' || event.key === 'Enter') ledger.focusPlace(0);
            else return;
            event.preventDefault();
        });
    }

    begin() {
        this.bar.hidden = false;
        this.input.focus();
        this.input.select();
    }

    /** Shows all rows again. */
    end() {
        this.bar.hidden = true;
        this.input.value = '';
        return this.ledger.named === '' ? undefined : this.ledger.nameRows('');
    }
}

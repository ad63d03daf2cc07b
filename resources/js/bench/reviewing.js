/** The dialog that shows what is new to views: what newcomers get in each, which they are, and that they were reviewed. */
export class Reviewing {
    /** @param {import('./dialogs.js').Dialogs} dialogs */
    constructor(dialogs) {
        this.dialogs = dialogs;
        const { element } = dialogs;
        element.addEventListener('change', (event) => {
            const select = /** @type {HTMLSelectElement} */ (event.target);
            if (select.dataset.newcomers) this.give(select.dataset.newcomers, select.value);
        });
        element.addEventListener('click', (event) => {
            const pick = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-pick-rule]'));
            if (pick) this.pick(pick.dataset.pickRule ?? '');
        });
    }

    /** @param {string} keys of views @param {string} newcomers */
    give(keys, newcomers) {
        return this.dialogs.bench.server.ask('POST', '/views/newcomers', { keys, newcomers });
    }

    /** @param {string} words a rule */
    pick(words) {
        this.dialogs.close();
        return this.dialogs.bench.pick({ found: 1, words, mode: 'replace' });
    }

    /** Keys of the views that are ticked. @param {HTMLFormElement} form */
    static ticked(form) {
        return [...form.querySelectorAll('input[data-key]:checked')].map((input) => /** @type {HTMLElement} */ (input).dataset.key ?? '');
    }
}

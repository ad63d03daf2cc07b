/** The dialog that shows what is new to views: what newcomers get in each, which they are, and that they were reviewed. */
export class Reviewing {
    /** @param {import('./dialogs.js').Dialogs} dialogs */
    constructor(dialogs) {
        this.dialogs = dialogs;
        const { element } = dialogs;
        element.addEventListener('change', (event) => {
            const select = /** @type {HTMLSelectElement} */ (event.target);
            if (select.dataset.newcomers) this.give(select.dataset.newcomers, select.value);
            if (select.dataset.newcomersOfAll !== undefined) this.giveAll(select);
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

    /** All views that are ticked give newcomers the same, in one change. @param {HTMLSelectElement} select */
    async giveAll(select) {
        const form = /** @type {HTMLFormElement} */ (select.form);
        const keys = Reviewing.ticked(form);
        const { value } = select;
        select.value = '';
        if (value === '' || keys.length === 0) return;
        await this.give(keys.join(','), value);
        for (const key of keys) {
            const one = /** @type {HTMLSelectElement | null} */ (form.querySelector(`[data-newcomers="${key}"]`));
            if (one) one.value = value;
        }
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

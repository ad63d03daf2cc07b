/**
 * Typing ahead: the next row whose name starts with what is typed gets the focus.
 * @param {import('./workbench.js').Workbench} bench
 */
export function jump(bench) {
    const { ledger } = bench;
    const field = Object.assign(document.createElement('input'), { className: 'jump', placeholder: 'Jump to a name' });
    field.setAttribute('aria-label', 'Jump to a row by the start of its name');
    let over = false;
    const leave = () => {
        // Taking the field away makes it lose the focus, which would take it away again.
        if (over) return;
        over = true;
        field.remove();
    };
    const end = () => {
        leave();
        const row = ledger.row(ledger.focusKey);
        if (row) ledger.focus(row);
    };
    let last = 0;
    const go = async (/** @type {number} */ from) => {
        const words = field.value.toLowerCase();
        const asked = ++last;
        if (words === '') return;
        const { lens, words: rule } = ledger;
        const found = await bench.server.json(
            `/ledger/ahead?lens=${lens}&words=${encodeURIComponent(rule)}&starts=${encodeURIComponent(words)}&after=${from}`,
        );
        // What was typed since overtakes the answer.
        if (asked !== last) return;
        if (!found || found.place === null) return void field.setAttribute('aria-invalid', 'true');
        field.removeAttribute('aria-invalid');
        await ledger.focusPlace(found.place, true);
    };
    const here = () => {
        const row = ledger.row(ledger.focusKey);
        return row ? ledger.place(row) : -1;
    };
    field.addEventListener('input', () => go(here() - 1));
    field.addEventListener('keydown', (event) => {
        event.stopPropagation();
        if (event.key === 'ArrowDown') go(here());
        else if (['Enter', 'Escape', 'Tab'].includes(event.key)) end();
        else return;
        event.preventDefault();
    });
    field.addEventListener('blur', leave);
    bench.element.querySelector('.ledger')?.append(field);
    field.focus();
}

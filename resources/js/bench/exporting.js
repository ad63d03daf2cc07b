const EVERY = 500;

/**
 * The dialog of an export: hands in what is wanted, says how far it is, and ends with the file. Closed meanwhile, it goes on in the queue.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLDialogElement} dialog
 */
export function listenToExports(bench, dialog) {
    dialog.addEventListener('submit', async (event) => {
        const form = /** @type {HTMLFormElement} */ (event.target);
        if (!form.matches('[data-export]')) return;
        event.preventDefault();
        const values = Object.fromEntries([...new FormData(form)].map(([name, value]) => [name, String(value)]));
        const html = await bench.server.htmlOf('/exports', { ...asked(bench), ...values });
        if (html !== null && dialog.open) show(html);
    });
    dialog.addEventListener('click', async (event) => {
        const stop = /** @type {Element} */ (event.target).closest('[data-export-stop]');
        if (!stop) return;
        const html = await bench.server.htmlOf(`/exports/${keyShown()}/stop`, {});
        if (html !== null && keyShown() !== '') show(html);
    });

    function keyShown() {
        return /** @type {HTMLElement | null} */ (dialog.querySelector('[data-exported]'))?.dataset.exported ?? '';
    }

    /** @param {string} html */
    function show(html) {
        bench.dialogs.open(html);
        const { exported: key = '', over } = /** @type {HTMLElement} */ (dialog.querySelector('[data-exported]')).dataset;
        if (over === '1') return;
        setTimeout(async () => {
            if (!dialog.open || keyShown() !== key) return;
            const next = await bench.server.html(`/exports/${key}`);
            if (next !== null && dialog.open && keyShown() === key) show(next);
        }, EVERY);
    }
}

/** What the ledger finds, for what is asked of it. @param {import('./workbench.js').Workbench} bench @returns {Record<string, string>} */
function asked(bench) {
    return Object.fromEntries(Object.entries(bench.ledger.window).map(([name, value]) => [name, String(value)]));
}

/** Asks what goes out. @param {import('./workbench.js').Workbench} bench @param {string} [of] what is meant first: "L5", "E2" */
export function openExport(bench, of = '') {
    return bench.openDialog(`/exports/ask?${new URLSearchParams({ ...asked(bench), of })}`);
}

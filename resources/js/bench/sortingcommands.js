/**
 * Commands about sorting that does itself, and about keeping it clean.
 * @param {import('./workbench.js').Workbench} bench
 * @param {(part: string, id: string, name: string, keys: string, run: (from: HTMLElement) => any, more?: any) => any} command
 * @returns {import('./commands.js').Command[]}
 */
export function sortingCommands(bench, command) {
    return [
        command('Take back', 'history', 'History: every change', 'Alt+z', () => bench.screens.history.toggle()),
        command('Sort', 'tidy', 'Tidy: what is untidy in the model', 'Alt+t', () => bench.screens.tidy.toggle()),
        command('Sort', 'summary', 'How it is sorted, to print or as a file', '', () => location.assign(`${bench.server.base}/summary`)),
        command('Sort', 'sorting-rules', 'Sorting rules', 'Alt+a', () => bench.screens.rules.toggle()),
        command('Sort', 'sort-by-rules', 'Sort by the sorting rules', '', () => bench.server.ask('POST', '/sorting-rules/run'), {
            changes: true,
        }),
        command('Sort', 'forecast', 'What the sorting rules would do, as a column of the ledger', '', () => turnColumn(bench, 'sorted')),
        command(
            'Sort',
            'sorting-rule-of-line',
            'Make a sorting rule of what the line finds…',
            '',
            () => bench.openDialog(`/sorting-rules/ask?rule=${encodeURIComponent(bench.ledger.words)}`),
            { changes: true },
        ),
    ];
}

/** Puts a column beside the names, or takes it away. @param {import('./workbench.js').Workbench} bench @param {string} id */
function turnColumn(bench, id) {
    const heads = /** @type {NodeListOf<HTMLElement>} */ (document.querySelectorAll('#ledger-head [data-column]'));
    const columns = [...heads].map((head) => [head.dataset.column ?? '', Number(head.dataset.width)]);
    const others = columns.filter(([column]) => column !== id);
    return bench.ledger.arrange({ columns: JSON.stringify(others.length < columns.length ? others : [[id, 104], ...columns]) });
}

/**
 * What objects stand in: grouping and ungrouping, moving by command, by keyboard and by dragging, copies, and objects that go. What it
 * means for rungs and locks is said before it is done.
 */

/**
 * Acts at once where it means nothing for rungs and locks; otherwise says what it means, and asks.
 * @param {import('./workbench.js').Workbench} bench
 * @param {string} title
 * @param {Record<string, any>} asked what it would be
 * @param {string} path
 * @param {Record<string, any>} values
 */
export async function afterAsking(bench, title, asked, path, values) {
    if (!bench.may()) return undefined;
    const means = await bench.server.json(`/objects/means?${new URLSearchParams({ ...asked, ...values })}`);
    if (means === null) return undefined;
    if (means.says === '') return bench.server.ask('POST', path, values);
    const form = document.createElement('form');
    form.className = 'ask';
    form.dataset.submit = 'post';
    form.dataset.address = bench.server.base + path;
    const said = Object.assign(document.createElement('p'), { className: 'warns', textContent: means.says });
    const head = Object.assign(document.createElement('h2'), { id: 'dialog-title', textContent: title });
    const error = Object.assign(document.createElement('p'), { className: 'error', hidden: true, role: 'alert' });
    const acts = Object.assign(document.createElement('p'), { className: 'acts' });
    const go = Object.assign(document.createElement('button'), { className: 'button primary', textContent: 'Do it', autofocus: true });
    const leave = Object.assign(document.createElement('button'), { type: 'button', className: 'button', textContent: 'Leave it' });
    leave.dataset.close = '';
    acts.append(go, ' ', leave);
    form.append(head, said);
    for (const [name, value] of Object.entries(values))
        form.append(Object.assign(document.createElement('input'), { type: 'hidden', name, value: String(value) }));
    form.append(error, acts);
    bench.dialogs.show(form);
    go.focus();
    return undefined;
}

/**
 * Shows a group that was just made in the nesting, and lets it be named there.
 * @param {import('./workbench.js').Workbench} bench
 * @param {string} key
 */
export async function nameThere(bench, key) {
    if (bench.ledger.lens !== 'nesting') await bench.turn(document.getElementById('lens-nesting'));
    await bench.ledger.show(key, true);
    for (let wait = 0; wait < 40; wait++) {
        const row = bench.ledger.row(key);
        if (row) return bench.rename(row);
        await new Promise((resolve) => setTimeout(resolve, 50));
    }
    return undefined;
}

/**
 * @param {import('./workbench.js').Workbench} bench
 * @param {(part: string, id: string, name: string, keys: string, run: (from: HTMLElement) => any, more?: any) => any} command
 * @param {(act: () => any) => () => any} needsPick
 * @returns {import('./commands.js').Command[]}
 */
export function nestingCommands(bench, command, needsPick) {
    const changes = { changes: true };
    return [
        command(
            'Nesting',
            'group',
            'Group the pick',
            'Alt+g',
            needsPick(() => group(bench, {})),
            changes,
        ),
        command(
            'Nesting',
            'ungroup',
            'Ungroup the picked groups',
            'Alt+u',
            needsPick(() => ungroup(bench, {})),
            changes,
        ),
        command(
            'Nesting',
            'nest',
            'Move the pick into a group…',
            'Alt+m',
            needsPick(() => bench.openDialog('/objects/nest')),
            changes,
        ),
        command(
            'Nesting',
            'copy',
            'Copy the pick, in place, in a row or in a circle…',
            'Alt+k',
            needsPick(() => openCopy(bench, '')),
            changes,
        ),
        command(
            'Nesting',
            'delete-pick',
            'Delete the pick',
            'Ctrl+Delete',
            needsPick(() => bench.server.ask('POST', '/objects/delete')),
            changes,
        ),
        command(
            'Nesting',
            'order-pick',
            'Sort what stands in the picked groups by name…',
            '',
            needsPick(() => bench.openDialog('/objects/order')),
            changes,
        ),
        command(
            'Nesting',
            'order-top',
            'Sort what stands at the top by name…',
            '',
            () => bench.openDialog('/objects/order?top=1'),
            changes,
        ),
    ];
}

/** @param {import('./workbench.js').Workbench} bench @param {{keys?: string}} what */
export function group(bench, what) {
    return afterAsking(bench, 'Group them', { what: 'group' }, '/objects/group', { ...what, name: '' });
}

/** @param {import('./workbench.js').Workbench} bench @param {{keys?: string}} what */
export function ungroup(bench, what) {
    return afterAsking(bench, 'Ungroup', { what: 'ungroup' }, '/objects/ungroup', what);
}

/** @param {import('./workbench.js').Workbench} bench @param {string} keys none for the pick */
export async function openCopy(bench, keys) {
    await bench.openDialog(`/objects/copy${keys ? `?keys=${keys}` : ''}`);
    showFields(bench.dialogs.element);
}

/**
 * What one row of the nesting offers.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} row
 * @returns {any[]}
 */
export function nestingItems(bench, row) {
    const key = row.dataset.key ?? '';
    const isPick = row.classList.contains('picked') && bench.picked > 1;
    const keys = isPick ? {} : { keys: key };
    const query = isPick ? '' : `?keys=${key}`;
    const holds = row.hasAttribute('aria-expanded');
    const those = isPick ? `the ${bench.picked.toLocaleString('en')} picked` : 'it';
    return [
        [`Group ${those}`, '⌥G', () => group(bench, keys)],
        ...(holds ? [['Ungroup', '⌥U', () => ungroup(bench, keys)]] : []),
        [`Move ${those} into a group…`, '⌥M', () => bench.openDialog(`/objects/nest${query}`)],
        [`Copy ${those}…`, '⌥K', () => openCopy(bench, isPick ? '' : key)],
        ...(holds ? [['Sort what stands in it by name…', '', () => bench.openDialog(`/objects/order?keys=${key}`)]] : []),
        [`Delete ${those}`, 'Del', () => bench.server.ask('POST', '/objects/delete', keys)],
    ];
}

/**
 * An object goes up or down among its siblings, into the group before it, or out of the one that it stands in.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} row
 * @param {string} arrow
 */
export function nestByKey(bench, row, arrow) {
    const key = row.dataset.key ?? '';
    const level = Number(row.getAttribute('aria-level'));
    const keys = row.classList.contains('picked') && bench.picked > 1 ? {} : { keys: key };
    if (!bench.may()) return true;
    if (arrow === 'ArrowUp' || arrow === 'ArrowDown')
        bench.server.ask('POST', '/objects/shift', { ...keys, by: arrow === 'ArrowUp' ? -1 : 1 });
    let other = row.previousElementSibling;
    const wanted = arrow === 'ArrowRight' ? level : level - 1;
    while (other && Number(other.getAttribute('aria-level')) > wanted) other = other.previousElementSibling;
    const mark = /** @type {HTMLElement | null} */ (other)?.dataset.key ?? '';
    if (!/^O/.test(mark)) return true;
    const number = mark.slice(1);
    if (arrow === 'ArrowRight') afterAsking(bench, 'Move into it', { what: 'move' }, '/objects/nest', { ...keys, into: number });
    if (arrow === 'ArrowLeft')
        afterAsking(bench, 'Move out of it', { what: 'beside', into: number }, '/objects/nest', { ...keys, where: 'after', mark: number });
    return true;
}

/**
 * Dialogs that say what a choice would mean, and fields that belong to a choice.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLDialogElement} dialog
 */
export function listenToNesting(bench, dialog) {
    let turn = 0;
    dialog.addEventListener('change', async ({ target }) => {
        showFields(dialog);
        const input = /** @type {HTMLInputElement} */ (target);
        const form = /** @type {HTMLElement | null} */ (input.closest('[data-means]'));
        if (!form || input.name !== 'into') return;
        const asked = ++turn;
        const keys = form.dataset.keys ? { keys: form.dataset.keys } : {};
        const means = await bench.server.json(`/objects/means?${new URLSearchParams({ ...keys, into: input.value })}`);
        const place = form.querySelector('[data-means-says]');
        if (asked === turn && place) place.textContent = means?.says ?? '';
    });
}

/** @param {HTMLDialogElement} dialog */
function showFields(dialog) {
    const way = /** @type {HTMLInputElement | null} */ (dialog.querySelector('.copy [name=way]:checked'))?.value;
    if (way === undefined) return;
    for (const part of /** @type {NodeListOf<HTMLElement>} */ (dialog.querySelectorAll('.copy [data-for]')))
        part.hidden = !(part.dataset.for ?? '').split(' ').includes(way);
    const turn = /** @type {HTMLInputElement | null} */ (dialog.querySelector('[name=turn]'));
    if (turn) turn.placeholder = way === 'circle' ? (turn.dataset.circle ?? '') : '0';
}

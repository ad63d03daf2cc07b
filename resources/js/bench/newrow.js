/** What a new row is called in sentences, and where it is asked for. */
const KINDS = {
    layer: { title: 'New layer', path: '/layers', holder: 'L', within: 'parent' },
    tag: { title: 'New tag', path: '/tags', holder: 'F', within: 'folder' },
    folder: { title: 'New folder', path: '/folders', holder: 'F', within: 'parent' },
};

/**
 * A layer or tag, empty or from the pick, or a folder, by typing its name in a dialog.
 * @param {import('./workbench.js').Workbench} bench
 * @param {keyof typeof KINDS} kind
 * @param {{fromPick?: boolean, holds?: string, around?: string[], into?: string, intoName?: string}} [options] around: rows that go
 *     into the new folder; into: key of what it goes into, where that is not a row of the ledger
 */
export function askForRow(bench, kind, { fromPick = false, holds = '', around = [], into = '', intoName = '' } = {}) {
    if (fromPick && bench.picked === 0) return bench.say('Nothing is picked; pick objects first.');
    const { title, path, holder, within } = KINDS[kind];
    const chosen = into || ([...bench.ledger.selected][0] ?? bench.ledger.focusKey);
    const isHolder =
        into === '' &&
        chosen.startsWith(holder) &&
        chosen !== 'L1' &&
        (holder === 'L' || bench.ledger.row(chosen)?.dataset.holds === (holds || 'tags'));
    const inside = isHolder && around.length === 0 ? bench.ledger.row(chosen)?.dataset.name : intoName;
    const form = document.createElement('form');
    form.className = 'ask';
    form.dataset.submit = 'post';
    form.dataset.address = `${bench.server.base}${path}`;
    form.innerHTML = `
        <h2 id="dialog-title"></h2>
        <label for="row-name">Name</label><input id="row-name" name="name" maxlength="200" autofocus>
        <label class="tick" hidden><input type="checkbox" checked> <span></span></label>
        <p class="error" role="alert" hidden></p>
        <p class="acts">
            <button class="button primary">Create</button> <button type="button" class="button" data-close>Cancel</button>
        </p>`;
    const heading = /** @type {HTMLElement} */ (form.querySelector('h2'));
    heading.textContent = fromPick ? `${title} from ${bench.picked.toLocaleString('en')} picked` : title;
    if (around.length > 0) heading.textContent += ` around ${around.length} ${around.length === 1 ? 'row' : 'rows'}`;
    const tick = /** @type {HTMLElement} */ (form.querySelector('.tick'));
    if (inside) {
        tick.hidden = false;
        const input = /** @type {HTMLInputElement} */ (tick.querySelector('input'));
        [input.name, input.value] = [within, chosen.slice(1)];
        /** @type {HTMLElement} */ (tick.querySelector('span')).textContent = `inside ${inside}`;
    } else tick.remove();
    const more = {
        ...(fromPick ? { from_pick: '1' } : {}),
        ...(holds ? { holds } : {}),
        ...(around.length > 0 ? { around: around.join(',') } : {}),
    };
    for (const [name, value] of Object.entries(more))
        form.append(Object.assign(document.createElement('input'), { type: 'hidden', name, value }));
    bench.dialogs.show(form);
}

/**
 * A folder in the lens that is open: around the rows that are selected, unless those are a folder that it goes into.
 * @param {import('./workbench.js').Workbench} bench
 */
export function askForFolder(bench) {
    const holds = bench.ledger.lens === 'sets' ? 'sets' : 'tags';
    const chosen = [...bench.ledger.selected].filter((key) => 'TEF'.includes(key[0]));
    askForRow(bench, 'folder', { holds, around: chosen.length === 1 && chosen[0].startsWith('F') ? [] : chosen });
}

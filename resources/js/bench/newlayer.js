/** A layer by typing its name in a dialog. @param {import('./workbench.js').Workbench} bench @param {boolean} fromPick */
export function askForLayer(bench, fromPick) {
    if (fromPick && bench.picked === 0) return bench.say('Nothing is picked; pick objects first.');
    const parent = [...bench.ledger.selected][0] ?? (bench.ledger.focusKey.startsWith('L') ? bench.ledger.focusKey : '');
    const inside = parent !== '' && parent !== 'L1' && !fromPick ? bench.ledger.row(parent)?.dataset.name : undefined;
    const form = document.createElement('form');
    form.className = 'ask';
    form.dataset.submit = 'post';
    form.dataset.address = `${bench.server.base}/layers`;
    form.innerHTML = `
        <h2 id="dialog-title"></h2>
        <label for="layer-name">Name</label><input id="layer-name" name="name" maxlength="200" autofocus>
        <label class="tick" hidden><input type="checkbox" name="parent" checked> <span></span></label>
        <p class="error" role="alert" hidden></p>
        <p class="acts">
            <button class="button primary">Create</button> <button type="button" class="button" data-close>Cancel</button>
        </p>`;
    /** @type {HTMLElement} */ (form.querySelector('h2')).textContent = fromPick
        ? `New layer from ${bench.picked.toLocaleString('en')} picked`
        : 'New layer';
    if (inside) {
        const tick = /** @type {HTMLElement} */ (form.querySelector('.tick'));
        tick.hidden = false;
        /** @type {HTMLInputElement} */ (tick.querySelector('input')).value = parent.slice(1);
        /** @type {HTMLElement} */ (tick.querySelector('span')).textContent = `inside ${inside}`;
    } else form.querySelector('.tick')?.remove();
    if (fromPick) form.append(Object.assign(document.createElement('input'), { type: 'hidden', name: 'from_pick', value: '1' }));
    bench.dialogs.show(form);
}

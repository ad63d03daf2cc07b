/**
 * The ledger's columns: sorting by a click on a head, sizing by its grip, choosing and ordering in a dialog, and keeping the whole as a
 * layout.
 * @param {import('./workbench.js').Workbench} bench
 */
export function listenToColumns(bench) {
    const head = /** @type {HTMLElement} */ (document.getElementById('ledger-head'));
    const columns = () => /** @type {HTMLElement[]} */ ([...head.querySelectorAll('[data-column]')]);
    const keep = () =>
        bench.ledger.arrange({ columns: JSON.stringify(columns().map((column) => [column.dataset.column, Number(column.dataset.width)])) });

    head.addEventListener('click', (event) => {
        const button = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-sort]'));
        if (!button) return;
        // Up, down, and back to the order of the model.
        const now = button.closest('[role=columnheader]')?.getAttribute('aria-sort');
        const by = button.dataset.sort;
        bench.ledger.arrange(
            now === 'none'
                ? { sort: by, down: by === 'name' ? 0 : 1 }
                : (now === 'descending') === (by !== 'name')
                  ? { sort: by, down: by === 'name' ? 1 : 0 }
                  : { sort: '' },
        );
    });

    /** @type {{column: HTMLElement, from: number, width: number} | null} */
    let sizing = null;
    head.addEventListener('pointerdown', (event) => {
        const grip = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-grip]'));
        const column = /** @type {HTMLElement | null} */ (grip?.closest('[data-column]') ?? null);
        if (!grip || !column) return;
        event.preventDefault();
        grip.setPointerCapture(event.pointerId);
        sizing = { column, from: event.clientX, width: Number(column.dataset.width) };
    });
    head.addEventListener('pointermove', (event) => {
        if (!sizing) return;
        sizing.column.dataset.width = String(Math.round(Math.max(36, Math.min(400, sizing.width + event.clientX - sizing.from))));
        const { grid } = bench.ledger;
        // Names first, then these columns, then those that it is widened over.
        const tracks =
            getComputedStyle(grid)
                .getPropertyValue('--tracks')
                .match(/minmax\([^)]*\)|\S+/g) ?? [];
        tracks[1 + columns().indexOf(sizing.column)] = `${sizing.column.dataset.width}px`;
        grid.style.setProperty('--tracks', tracks.join(' '));
    });
    head.addEventListener('pointerup', () => {
        if (!sizing) return;
        sizing = null;
        keep();
    });
    head.addEventListener('keydown', (event) => {
        const column = /** @type {HTMLElement | null} */ (/** @type {Element} */ (event.target).closest('[data-column]'));
        const way = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
        if (!column || !way || !event.altKey) return;
        event.preventDefault();
        if (event.shiftKey) column.dataset.width = String(Math.max(36, Math.min(400, Number(column.dataset.width) + way * 8)));
        else {
            const all = columns();
            const other = all[all.indexOf(column) + way];
            if (!other) return;
            way < 0 ? other.before(column) : other.after(column);
        }
        keep().then(() => {
            // Whoever has gone on meanwhile is left where they are.
            if (document.activeElement === document.body)
                /** @type {HTMLElement | null} */ (head.querySelector(`[data-sort="${column.dataset.column}"]`))?.focus();
        });
    });
}

/** @param {import('./workbench.js').Workbench} bench @param {HTMLElement} dialog */
export function listenToColumnsDialog(bench, dialog) {
    dialog.addEventListener('input', (event) => {
        const input = /** @type {HTMLInputElement} */ (event.target);
        if (!input.matches('[data-narrow-columns]')) return;
        const words = input.value.trim().toLowerCase();
        for (const item of /** @type {NodeListOf<HTMLElement>} */ (dialog.querySelectorAll('li[data-column]')))
            item.hidden = !(item.dataset.text ?? '').includes(words);
    });
    dialog.addEventListener('click', (event) => {
        const on = /** @type {Element} */ (event.target);
        const move = /** @type {HTMLElement | null} */ (on.closest('[data-move]'));
        const item = move?.closest('li');
        if (move && item) {
            const up = move.dataset.move === '-1';
            const other = up ? item.previousElementSibling : item.nextElementSibling;
            if (other) up ? other.before(item) : other.after(item);
            move.focus();
        }
        if (on.closest('[data-keep-columns]')) {
            const chosen = [...dialog.querySelectorAll('li[data-column]')].filter(
                (each) => /** @type {HTMLInputElement} */ (each.querySelector('[type=checkbox]')).checked,
            );
            bench.ledger.arrange({
                columns: JSON.stringify(
                    chosen.map((each) => [
                        /** @type {HTMLElement} */ (each).dataset.column,
                        Number(/** @type {HTMLInputElement} */ (each.querySelector('[type=number]')).value),
                    ]),
                ),
            });
            bench.dialogs.close();
        }
    });
}

/** Columns and layouts. @param {import('./workbench.js').Workbench} bench @param {HTMLElement} button */
export async function openLayouts(bench, button) {
    /** @type {{no: number, name: string, isDefault: boolean, isOpen: boolean}[]} */
    const layouts = (await bench.server.json('/layouts')) ?? [];
    bench.menus.back = button;
    bench.menus.show(button, undefined, [
        ['Choose columns…', '', () => bench.command('columns')],
        ['Tags and sets as columns…', '⇧W', () => bench.command('widen')],
        ['Views as columns', 'Alt+V', () => bench.command('grid')],
        ['In a window of its own', '', () => bench.command('ledger-window')],
        ['Order of the model', '', () => bench.ledger.arrange({ sort: '' })],
        null,
        ...layouts.map(({ no, name, isDefault, isOpen }) => [
            `${name}${isDefault ? ' · opens new projects' : ''}`,
            isOpen ? '✓' : '',
            () => applyLayout(bench, no),
        ]),
        null,
        ['Keep as a layout…', '', () => keepLayout(bench, layouts.find(({ isOpen }) => isOpen)?.name ?? '')],
        ...layouts
            .filter(({ isOpen }) => isOpen)
            .flatMap(({ no, name, isDefault }) => [
                [
                    isDefault ? `New projects open as they come` : `New projects open with ${name}`,
                    '',
                    () => bench.server.ask('PATCH', `/layouts/${no}`, { default: isDefault ? 0 : 1 }),
                ],
                [`Delete layout ${name}`, '', () => bench.server.ask('DELETE', `/layouts/${no}`)],
            ]),
    ]);
}

/** @param {import('./workbench.js').Workbench} bench @param {number} layout */
async function applyLayout(bench, layout) {
    await bench.ledger.fetch('POST', `/layouts/${layout}/apply`);
    const window = /** @type {HTMLElement | null} */ (bench.ledger.rows.querySelector('.window'));
    bench.ledger.lens = window?.dataset.lens ?? 'layers';
    bench.markLens();
    bench.finder.search(window?.dataset.rule ?? '');
}

/** @param {import('./workbench.js').Workbench} bench @param {string} name */
function keepLayout(bench, name) {
    const form = document.createElement('form');
    form.className = 'ask';
    form.dataset.submit = 'post';
    form.dataset.address = `${bench.server.base}/layouts`;
    form.innerHTML = `
        <h2 id="dialog-title">Keep this layout</h2>
        <p>Lens, columns, their widths, sorting, and what the ledger is narrowed to.</p>
        <label for="layout-name">Name</label><input id="layout-name" name="name" maxlength="80" autofocus>
        <label class="tick"><input type="checkbox" name="default" value="1"> Projects that I open for the first time start with it</label>
        <p class="error" role="alert" hidden></p>
        <p class="acts"><button class="button primary">Keep</button> <button type="button" class="button" data-close>Cancel</button></p>`;
    /** @type {HTMLInputElement} */ (form.querySelector('#layout-name')).value = name;
    bench.dialogs.show(form);
}

/**
 * Folding and unfolding: all, what is selected, to a depth.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} button
 */
export function openFolds(bench, button) {
    const target = bench.ledger.target.join(',');
    bench.menus.back = button;
    bench.menus.show(button, undefined, [
        ['Every row, all the way in', '', () => bench.command('unfold-all')],
        ['Only the outermost rows', '', () => bench.command('fold-all')],
        ...[2, 3, 4, 5].map((levels) => [`${levels} levels deep`, '', () => bench.ledger.arrange({ depth: levels - 1, unfold: 1 })]),
        ...(target
            ? [
                  null,
                  ['The current row, all the way in', '', () => bench.ledger.arrange({ deep: target, unfold: 1 })],
                  ['The current row, nothing in it', '', () => bench.ledger.arrange({ deep: target, unfold: 0 })],
              ]
            : []),
        null,
        ['Picked first', '', () => bench.command('sort-picked')],
        ['By hand, or as the model has it', '', () => bench.command('sort-own')],
    ]);
}

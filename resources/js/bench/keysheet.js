import { GESTURES, shownKey } from './keys.js';

/** The parts of the sheet, column by column. */
const ORDER = ['Canvas', 'Camera', 'Walk', 'Views', 'Ledger', 'Find', 'Take back', 'Sort', 'Pick', 'Parked picks', 'Regions'];

/**
 * The sheet of keys, made from the commands themselves.
 * @param {import('./workbench.js').Workbench} bench
 */
export function openKeys(bench) {
    const sheet = document.createElement('form');
    sheet.method = 'dialog';
    sheet.className = 'keys';
    sheet.innerHTML = `
        <h2 id="dialog-title">Keys</h2>
        <input type="text" role="searchbox" placeholder="Part of what it does, or a key" aria-label="Find a key"
            autocomplete="off" autofocus>
        <div></div>
        <p class="acts"><button class="button" value="close">Close</button></p>`;
    /** @type {Map<string, [string, string][]>} */
    const parts = new Map(Object.entries(GESTURES).map(([part, keys]) => [part, [...keys]]));
    for (const { part, name, keys } of bench.commands) {
        if (keys === '' || part === 'Parked picks' || /^[0-5]$/.test(keys)) continue;
        parts.set(part, [...(parts.get(part) ?? []), [keys.split(' ').map(shownKey).join(', '), name]]);
    }
    parts.get('Pick')?.push(['5 … 0', 'Full, Plain, Coarse, Ghost, Box, Hidden']);
    parts.set('Parked picks', [
        ['Alt + 1 … 9', 'recall'],
        ['Alt + ⇧ 1 … 9', 'park the pick'],
    ]);
    const place = (/** @type {string} */ part) => (ORDER.indexOf(part) + ORDER.length) % ORDER.length;
    for (const [part, keys] of [...parts].sort(([a], [b]) => place(a) - place(b))) {
        const section = document.createElement('section');
        const list = document.createElement('dl');
        for (const [key, name] of keys)
            list.append(
                Object.assign(document.createElement('dt'), { textContent: key }),
                Object.assign(document.createElement('dd'), { textContent: name }),
            );
        section.append(Object.assign(document.createElement('h3'), { textContent: part }), list);
        sheet.querySelector('div')?.append(section);
    }
    const field = /** @type {HTMLInputElement} */ (sheet.querySelector('input'));
    field.addEventListener('input', () => narrow(sheet, field.value.trim().toLowerCase()));
    field.addEventListener('keydown', (event) => event.key === 'Enter' && event.preventDefault());
    bench.dialogs.show(sheet);
    sheet.scrollTop = 0;
    bench.dialogs.element.scrollTop = 0;
}

/** Only keys that are called so, or do that. @param {HTMLElement} sheet @param {string} words */
function narrow(sheet, words) {
    for (const section of sheet.querySelectorAll('section')) {
        let any = false;
        for (const term of section.querySelectorAll('dt')) {
            const does = /** @type {HTMLElement} */ (term.nextElementSibling);
            const fits = `${term.textContent} ${does.textContent} ${section.firstElementChild?.textContent}`.toLowerCase().includes(words);
            term.hidden = does.hidden = !fits;
            any = any || fits;
        }
        section.hidden = !any;
    }
}

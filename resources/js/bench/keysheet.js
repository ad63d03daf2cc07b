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
    sheet.innerHTML = '<h2 id="dialog-title">Keys</h2><div></div><p class="acts"><button class="button" value="close">Close</button></p>';
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
    bench.dialogs.show(sheet);
}

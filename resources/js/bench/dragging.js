/** Rows that lie among each other: layers; tags and their folders; sets and theirs. @param {HTMLElement} row */
function familyOf(row) {
    const key = row.dataset.key ?? '';
    if (key.startsWith('F')) return row.dataset.holds ?? '';
    return { L: 'layers', T: 'tags', E: 'sets' }[key[0]] ?? '';
}

/**
 * What dropping something on a row would do.
 * @param {{keys: string[], count: number, family: string}} dragged family: empty for objects
 * @param {HTMLElement} row
 * @param {number} share how far down the row the pointer is, 0 to 1
 * @param {string} [lens] that the ledger shows
 * @returns {{where: string, says: string} | null}
 */
export function dropOn(dragged, row, share, lens = '') {
    const key = row.dataset.key ?? '';
    const name = row.dataset.name ?? '';
    if (dragged.family === '') {
        const what = dragged.count === 1 ? '1 object' : `${dragged.count.toLocaleString('en')} objects`;
        if (key.startsWith('L')) return { where: 'file', says: `File ${what} under ${name}` };
        if (key.startsWith('T')) return { where: 'tag', says: `Tag ${what} ${name}` };
        if (key.startsWith('E') && !row.dataset.rule) return { where: 'add', says: `Add ${what} to ${name}` };
        if (lens === 'nesting' && key.startsWith('O') && !dragged.keys.includes(key)) {
            if (share > 0.3 && share < 0.7) return { where: 'nest', says: `Move ${what} into ${name || 'it'}` };
            return share < 0.5
                ? { where: 'nest-before', says: `Move ${what} before ${name || 'it'}` }
                : { where: 'nest-after', says: `Move ${what} after ${name || 'it'}` };
        }
        return null;
    }
    if (familyOf(row) !== dragged.family || dragged.keys.includes(key)) return null;
    const holds = (key.startsWith('L') && key !== 'L1') || key.startsWith('F');
    const what = dragged.count === 1 ? 'it' : `${dragged.count} rows`;
    if (holds && share > 0.3 && share < 0.7) return { where: 'into', says: `Move ${what} into ${name}` };
    if (key.startsWith('E') && share > 0.3 && share < 0.7) return { where: 'join', says: `Join ${what} and ${name}…` };
    if (share < 0.5 && key !== 'L1') return { where: 'before', says: `Move ${what} before ${name}` };
    return { where: 'after', says: `Move ${what} after ${name}` };
}

/**
 * Objects are dragged onto layers, tags and fixed sets; layers, tags, sets and folders among each other.
 * @param {import('./workbench.js').Workbench} bench
 * @param {(target: EventTarget | null) => HTMLElement | null} rowOf
 */
export function listenToDrag(bench, rowOf) {
    const { ledger } = bench;
    /** @type {{keys: string[], count: number, family: string} | null} */
    let dragged = null;
    /** @type {{row: HTMLElement, where: string} | null} */
    let over = null;
    const clear = () => {
        over?.row.classList.remove('drop-into', 'drop-before', 'drop-after');
        over = null;
    };
    ledger.rows.addEventListener('dragstart', (event) => {
        const row = rowOf(event.target);
        const key = row?.dataset.key ?? '';
        if (!row || !/^[OLTFE]/.test(key) || key === 'L1') return event.preventDefault();
        if (key.startsWith('O')) {
            // Dragging a picked object drags the whole pick.
            const isPick = row.classList.contains('picked');
            dragged = { keys: isPick ? [] : [key], count: isPick ? bench.picked : 1, family: '' };
        } else {
            const keys = ledger.selected.has(key) ? [...ledger.selected] : [key];
            dragged = { keys, count: keys.length, family: familyOf(row) };
        }
        event.dataTransfer?.setData('text/plain', row.dataset.name ?? '');
        if (event.dataTransfer) event.dataTransfer.effectAllowed = 'move';
    });
    ledger.rows.addEventListener('dragover', (event) => {
        const row = rowOf(event.target);
        const { top = 0, height = 1 } = row?.getBoundingClientRect() ?? {};
        const drop = dragged && row ? dropOn(dragged, row, (event.clientY - top) / height, ledger.lens) : null;
        if (!row || !drop) return clear();
        event.preventDefault();
        if (over?.row === row && over.where === drop.where) return undefined;
        clear();
        over = { row, where: drop.where };
        row.dataset.drop = drop.says;
        const side = /(before|after)$/.exec(drop.where)?.[1];
        row.classList.add(side ? `drop-${side}` : 'drop-into');
        if (drop.where.startsWith('nest'))
            sayWhatItMeans(bench, dragged?.keys ?? [], row, drop.where, () => over?.row === row && over.where === drop.where);
        return undefined;
    });
    ledger.rows.addEventListener('drop', (event) => {
        if (!dragged || !over) return;
        event.preventDefault();
        const mark = over.row.dataset.key ?? '';
        const keys = dragged.keys.join(',');
        const number = mark.slice(1);
        if (over.where === 'file') bench.server.ask('POST', '/file', { layer: number, keys });
        else if (over.where === 'tag') bench.server.ask('POST', '/tag', { tag: number, mode: 'add', keys });
        else if (over.where === 'nest') bench.server.ask('POST', '/objects/nest', { keys, into: number });
        else if (over.where.startsWith('nest-'))
            bench.server.ask('POST', '/objects/nest', { keys, where: over.where.slice(5), mark: number });
        else if (over.where === 'join') bench.openDialog(`/sets/${number}/join?keys=${keys}`);
        else if (over.where === 'add') bench.server.ask('POST', `/sets/${number}/members`, { way: 'add', keys });
        else bench.server.ask('POST', '/rows/move', { keys, where: over.where, mark });
        clear();
        dragged = null;
    });
    ledger.rows.addEventListener('dragend', () => {
        clear();
        dragged = null;
    });
}

/**
 * Adds to the drop mark what it would mean for rungs and locks.
 * @param {import('./workbench.js').Workbench} bench
 * @param {string[]} keys
 * @param {HTMLElement} row
 * @param {string} where
 * @param {() => boolean} isStill whether it is still about to be dropped there
 */
async function sayWhatItMeans(bench, keys, row, where, isStill) {
    await new Promise((resolve) => setTimeout(resolve, 150));
    if (!isStill()) return;
    const asked = {
        what: where === 'nest' ? 'move' : 'beside',
        into: (row.dataset.key ?? '').slice(1),
        ...(keys.length > 0 ? { keys: keys.join(',') } : {}),
    };
    const means = await bench.server.json(`/objects/means?${new URLSearchParams(asked)}`);
    if (means?.says && isStill()) row.dataset.drop += ` · ${means.says}`;
}

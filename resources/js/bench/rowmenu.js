import { nestingItems } from './nesting.js';
import { openExport } from './exporting.js';
import { askForFolder, askForRow } from './newrow.js';

/** Edge line styles in the order of their numbers. */
const LINES = ['No edges', 'Solid edges', 'Dashed edges', 'Dotted edges', 'Dash-dot edges'];

/**
 * What can be done with a row of the ledger: label, key and act of each entry, null for a line.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} row
 * @returns {any[]}
 */
export function rowItems(bench, row) {
    const key = row.dataset.key ?? '';
    const object = key.startsWith('O');
    const { mayChange, server } = bench;
    return [
        [object ? 'Pick' : 'Pick its objects', 'Enter', () => bench.pick({ keys: key, mode: 'replace' }, false)],
        ['Add to the pick', '', () => bench.pick({ keys: key, mode: 'add' }, false)],
        ['Take from the pick', '', () => bench.pick({ keys: key, mode: 'remove' }, false)],
        ['Isolate', '', () => server.ask('POST', '/isolate', { keys: key })],
        ['Isolate, the rest as ghosts', '', () => server.ask('POST', '/isolate', { keys: key, rest: 'ghost' })],
        null,
        ...(mayChange ? changes(bench, row, key) : []),
        ...(object
            ? [
                  ['Frame it', '', () => bench.looking.frameObject(Number(key.slice(1)))],
                  ['Why', 'Y', () => bench.why(Number(key.slice(1)))],
              ]
            : [['Why, and what holds its objects', 'Y', () => bench.whyRows([key])]]),
        null,
        ...narrowing(bench, row),
        ...(/^[TE]/.test(key) ? [pinning(bench, key)] : []),
        null,
        ...(row.dataset.choice !== undefined && row.dataset.choice !== ''
            ? [['Show this one instead of its siblings', '', () => bench.setRung([key], 5)]]
            : []),
        ...(row.dataset.one === '1' ? [['Show the next of its members', '>', () => bench.turnNext(1, key)]] : []),
        {
            group: 'Rung',
            items: [
                ['Full', 5],
                ['Plain', 4],
                ['Coarse', 3],
                ['Ghost', 2],
                ['Box', 1],
                ['Hidden', 0],
            ].map(([label, rung]) => [label, String(rung), () => bench.setRung(meantBy(bench, key), Number(rung))]),
        },
        ...(mayChange && /^[LOTF]/.test(key) && row.dataset.holds !== 'sets'
            ? [['In pictures…', 'Alt+O', () => bench.openDialog(`/output?keys=${meantBy(bench, key).join(',')}`)]]
            : []),
        ...(/^[LE]/.test(key) ? [['Export…', '', () => openExport(bench, key)]] : []),
        ...(mayChange && row.dataset.kind === 'source'
            ? [['Not for export…', '', () => bench.openDialog(`/sources/${key.slice(1)}/hold-back`)]]
            : []),
        ...(mayChange && /^[LOTFE]/.test(key)
            ? [
                  {
                      group: 'Lock',
                      items: ['Open', 'Guarded', 'Locked'].map((label, lock) => [
                          label,
                          '',
                          () => bench.setLock(meantBy(bench, key), lock),
                      ]),
                  },
              ]
            : []),
    ];
}

/** The rows that are chosen, when the row is one of them. @param {import('./workbench.js').Workbench} bench @param {string} key */
function meantBy(bench, key) {
    return bench.ledger.selected.has(key) ? [...bench.ledger.selected] : [key];
}

/** @param {import('./workbench.js').Workbench} bench @param {string} key @returns {any[]} */
function pinning(bench, key) {
    const isPinned = document.querySelector(`#parked [data-pin="${key}"]`) !== null;
    return [
        isPinned ? 'Take the pin off' : 'Pin beside the slots',
        '',
        () => bench.server.ask('POST', '/pins', { what: key, on: isPinned ? 0 : 1 }),
    ];
}

/** @param {import('./workbench.js').Workbench} bench @param {HTMLElement} row @param {string} key @returns {any[]} */
function changes(bench, row, key) {
    const number = Number(key.slice(1));
    const ask = bench.server.ask.bind(bench.server);
    const picked = bench.picked > 0;
    const rename = ['Rename', 'F2', () => bench.rename(/** @type {HTMLElement} */ (bench.ledger.row(key)))];
    const chosen = bench.ledger.selected;
    const many =
        chosen.size > 1 && chosen.has(key)
            ? [[`Rename the ${chosen.size} selected…`, '', () => bench.openDialog(`/rename?keys=${[...chosen].join(',')}`)]]
            : [];
    // What is done to one of the rows that are chosen is done to all of them.
    const those = chosen.has(key) ? [...chosen] : [key];
    const { nested } = bench.menus;
    const send = (/** @type {Record<string, any>} */ values) =>
        those.length > 1 || nested
            ? ask('PATCH', '/rows', { keys: those.join(','), nested: nested ? 1 : 0, ...values })
            : ask('PATCH', `/rows/${key}`, values);
    const move = ['Move to…', '⇧M', () => bench.moveRows(those)];
    const remove = ['Delete…', 'Del', () => bench.deleteRows(those)];
    const several = those.length > 1 || nested ? `?keys=${those.join(',')}&nested=${nested ? 1 : 0}` : '';
    const note = ['Note…', '', () => bench.openDialog(`/rows/${key}/note${several}`)];
    const colour = ['Colour…', '', () => bench.menus.colour(row, send)];
    const anew = [
        those.length > 1 || nested ? 'Colours anew' : 'Another colour',
        '',
        () => ask('PATCH', '/rows', { keys: those.join(','), nested: nested ? 1 : 0, anew: 1 }),
    ];
    const edges = [
        'Edges…',
        '',
        () =>
            bench.menus.show(
                /** @type {HTMLElement | null} */ (row.querySelector('.more-button')),
                undefined,
                LINES.map((label, line) => [label, Number(row.dataset.line) === line ? '✓' : '', () => send({ line })]),
            ),
    ];
    const within = row.hasAttribute('aria-expanded')
        ? [['And what is nested in them', nested ? '✓' : '', () => bench.menus.withNested(row)]]
        : [];
    const one = [
        row.dataset.one === '1' ? 'Show its members together' : 'Show its members one at a time',
        '',
        () => ask('PATCH', `/rows/${key}`, { one_at_a_time: row.dataset.one === '1' ? 0 : 1 }),
    ];
    switch (key[0]) {
        case 'O':
            return [rename, ...nestingItems(bench, row)];
        case 'L':
            return [
                ...(number === 1 ? [] : [rename, ...many, move]),
                ...within,
                colour,
                anew,
                edges,
                note,
                ['Not for export…', '', () => bench.openDialog(`/rows/${key}/hold-back${several}`)],
                ...(picked ? [['File the pick here', '', () => ask('POST', '/file', { layer: number })]] : []),
                [
                    'New layer inside',
                    'N',
                    () => {
                        bench.ledger.selected = new Set([key]);
                        askForRow(bench, 'layer');
                    },
                ],
                ...(bench.ledger.selected.size > 1 && bench.ledger.selected.has(key)
                    ? [['Merge the selected layers…', '', () => bench.command('merge-layers')]]
                    : []),
                ['New objects land here', '', () => ask('POST', '/landing', { layer: number })],
                ...(number === 1 ? [] : [one, ['Empty it into Unsorted', '', () => ask('POST', `/layers/${number}/empty`)], remove]),
            ];
        case 'T':
            return [
                rename,
                ...many,
                move,
                colour,
                anew,
                edges,
                note,
                ...(bench.ledger.selected.size > 1 && bench.ledger.selected.has(key)
                    ? [['Make one of the selected tags…', '', () => bench.command('merge-tags')]]
                    : []),
                ...(picked
                    ? [
                          ['Tag the pick', '', () => ask('POST', '/tag', { tag: number, mode: 'add' })],
                          ['Take it off the pick', '', () => ask('POST', '/tag', { tag: number, mode: 'remove' })],
                      ]
                    : []),
                remove,
            ];
        case 'F':
            return [
                rename,
                ...many,
                move,
                ...(row.dataset.holds === 'tags' ? [one, ...within, ...(nested ? [colour, anew, edges, note] : [])] : []),
                [
                    row.dataset.holds === 'tags' ? 'New tag inside' : 'New set inside…',
                    'N',
                    () => {
                        bench.ledger.selected = new Set([key]);
                        if (row.dataset.holds === 'tags') askForRow(bench, 'tag');
                        else bench.keepSet();
                    },
                ],
                [
                    'New folder inside',
                    '',
                    () => {
                        bench.ledger.selected = new Set([key]);
                        askForFolder(bench);
                    },
                ],
                remove,
            ];
        case 'E':
            return [
                rename,
                ...many,
                move,
                note,
                ...(chosen.size > 1 && chosen.has(key)
                    ? [
                          [
                              'Join the others to it…',
                              '',
                              () => bench.openDialog(`/sets/${number}/join?keys=${[...chosen].filter((one) => one !== key).join(',')}`),
                          ],
                      ]
                    : []),
                ...setChanges(bench, row, number),
                remove,
            ];
        default:
            return [];
    }
}

/** @param {import('./workbench.js').Workbench} bench @param {HTMLElement} row @param {number} number @returns {any[]} */
function setChanges(bench, row, number) {
    const key = `E${number}`;
    const ask = bench.server.ask.bind(bench.server);
    const way = (/** @type {string} */ way) => () => ask('POST', `/sets/${number}/members`, { way });
    return [
        ['File its objects under…', '', () => bench.openDialog(`/file?keys=${key}`)],
        ['Tag its objects…', '', () => bench.openDialog(`/tag?keys=${key}`)],
        ...(row.dataset.rule
            ? [['Edit its rule in the line', '', () => bench.finder.edit(number, row.dataset.rule ?? '', row.dataset.name ?? '')]]
            : bench.picked > 0
              ? [
                    ['Add the pick to it', '', way('add')],
                    ['Take the pick out of it', '', way('remove')],
                    ['The pick instead of what it holds', '', way('replace')],
                ]
              : []),
        ...(Number(row.dataset.missing) > 0 ? [['Let go of what is gone', '', way('let-go')]] : []),
    ];
}

/**
 * What a row stands for joins the rule in the line.
 * @param {import('./workbench.js').Workbench} bench
 * @param {HTMLElement} row
 * @returns {any[]}
 */
function narrowing(bench, row) {
    const { condition } = row.dataset;
    if (!condition) return [];
    return [
        ['Look for this alone', '', () => bench.finder.narrow(condition, 'only')],
        ['Narrow to this', '', () => bench.finder.narrow(condition, 'and')],
        ['Widen by this', '', () => bench.finder.narrow(condition, 'or')],
        ['Leave this out', '', () => bench.finder.narrow(condition, 'without')],
    ];
}

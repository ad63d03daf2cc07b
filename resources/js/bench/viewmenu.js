import { writeBcf } from './bcf.js';
import { openCompare } from './compare.js';
import { askForRow } from './newrow.js';
import { openComments, openSharing } from './sharing.js';

/**
 * What can be done with a view, or with all that is chosen where it is among them.
 * @param {import('./shelf.js').Shelf} shelf
 * @param {HTMLElement} view
 * @param {string} key
 * @returns {any[]} lines of a menu
 */
export function menuOfView(shelf, view, key) {
    const { bench } = shelf;
    const number = Number(key.slice(1));
    const keys = shelf.meant(key);
    const one = keys.length === 1;
    return [
        ['Apply', '', () => bench.server.ask('POST', `/views/${number}/apply`)],
        [keys.length === 2 ? 'Compare the two…' : 'Compare…', '', () => openCompare(bench, pairOf(key, keys))],
        one ? ['Update from the desk…', '', () => bench.openDialog(`/views/${number}/update`)] : null,
        one ? ['Rename', 'F2', () => shelf.rename(view)] : null,
        one ? [view.dataset.noted ? 'Its note…' : 'Add a note…', '', () => bench.openDialog(`/rows/${key}/note`)] : null,
        one ? ['What guests said of it…', '', () => openComments(bench, number)] : null,
        [`What ${one ? 'it keeps' : `the ${keys.length} keep`}…`, '', () => bench.openDialog(`/views/facets?keys=${keys.join(',')}`)],
        ...(one && view.dataset.camera
            ? [
                  [
                      view.dataset.camera === 'held' ? 'Let its camera go' : 'Hold its camera',
                      '',
                      () => bench.server.ask('POST', '/cameras/hold', { views: number, on: view.dataset.camera === 'held' ? 0 : 1 }),
                  ],
              ]
            : []),
        ...(one ? [['What its pictures take over…', '', () => bench.openDialog(`/views/${number}/meant`)]] : []),
        [one ? 'Picture…' : `Pictures of the ${keys.length}…`, '', () => shelf.pictures(keys)],
        [one ? 'Duplicate' : `Duplicate the ${keys.length}`, '', () => shelf.onThose('POST', '/views/duplicate', keys)],
        ...menuOfBoth(shelf, keys),
        null,
        ...newcomers(shelf, keys, one ? Number(view.dataset.newcomers) : undefined),
        null,
        [one ? 'Delete' : `Delete the ${keys.length}`, 'Del', () => shelf.remove(key)],
    ].filter((line, at, all) => line !== null || (at > 0 && all[at - 1] !== null));
}

/** What is compared: two views that are chosen, else one with the desk. @param {string} key @param {string[]} keys */
function pairOf(key, keys) {
    return keys.length === 2 && keys.every((each) => each.startsWith('V')) ? { first: keys[0], second: keys[1] } : { first: key };
}

/**
 * @param {import('./shelf.js').Shelf} shelf
 * @param {HTMLElement} folder
 * @param {string} key
 * @returns {any[]}
 */
export function menuOfFolder(shelf, folder, key) {
    const { bench } = shelf;
    const keys = shelf.meant(key);
    return [
        [shelf.folded.has(key) ? 'Unfold' : 'Fold away', 'Enter', () => shelf.fold(key)],
        ['Rename', 'F2', () => shelf.rename(folder)],
        ...menuOfBoth(shelf, keys),
        ['New folder inside…', '', () => askForRow(bench, 'folder', { holds: 'views', into: key, intoName: folder.dataset.name })],
        ['Walk through as a presentation', '', () => shelf.walkThrough(keys)],
        ['Pictures…', '', () => shelf.pictures(keys)],
        ['Share by a link…', '', () => openSharing(bench, keys)],
        ['As BCF 3.0', '', () => writeBcf(bench, '3.0', keys)],
        ['As BCF 2.1', '', () => writeBcf(bench, '2.1', keys)],
        ['What its views keep…', '', () => bench.openDialog(`/views/facets?keys=${keys.join(',')}`)],
        null,
        ...newcomers(shelf, keys),
        null,
        ['Delete…', 'Del', () => shelf.remove(key)],
    ];
}

/** @param {import('./shelf.js').Shelf} shelf @param {string[]} keys @param {number} [now] what newcomers get */
function newcomers(shelf, keys, now) {
    return [
        .../** @type {[number, string][]} */ ([
            [0, 'Newcomers: hidden'],
            [5, 'Newcomers: full'],
            [-1, 'Newcomers: as the desk'],
        ]).map(([value, label]) => [
            label,
            now === value ? '✓' : '',
            () => shelf.bench.server.ask('POST', '/views/newcomers', { keys: keys.join(','), newcomers: value }),
        ]),
        ['Review what is new…', '', () => shelf.bench.openDialog(`/views/review?keys=${keys.join(',')}`)],
    ];
}

/** @param {import('./shelf.js').Shelf} shelf @param {string[]} keys */
function menuOfBoth(shelf, keys) {
    const many = keys.length === 1 ? '' : ` the ${keys.length}`;
    return [
        [`Move${many} to…`, '', () => shelf.bench.openDialog(`/rows/move?keys=${keys.join(',')}`)],
        [`New folder around ${many === '' ? 'it' : many.trim()}…`, '', () => shelf.folderAround(keys)],
    ];
}

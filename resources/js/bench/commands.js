import { openFolds, openLayouts } from './columns.js';
import { narrowAgain } from './wide.js';
import { openExport } from './exporting.js';
import { jump } from './jump.js';
import { openDifference } from './difference.js';
import { openKeys } from './keysheet.js';
import { lookingCommands } from './lookingcommands.js';
import { askForFolder, askForRow } from './newrow.js';
import { nestingCommands } from './nesting.js';
import { openRungs, showingCommands } from './showing.js';
import { sortingCommands } from './sortingcommands.js';
import { viewingCommands } from './viewing.js';

/**
 * Every command: the one list behind buttons, keys, menus, the command box and the sheet of keys.
 * @typedef {object} Command
 * @property {string} id
 * @property {string} name
 * @property {string} part where it belongs on the sheet of keys
 * @property {string} keys as `keyOf` writes them, several apart by a space; empty for none
 * @property {(from: HTMLElement) => any} run
 * @property {boolean} [changes] whether it changes the project, which not everybody may
 * @property {boolean} [quiet] whether it needs something to act on and is left out of the command box
 */

/** Tints that are not simply by something. @type {Record<string, string>} */
const TINTS = {
    own: 'Own materials',
    tags: 'Tint by how many tags',
    'without-tags': 'Tint what has no tag',
    output: 'Tint by what desk and output differ in',
};

/** @param {import('./workbench.js').Workbench} bench @returns {Command[]} */
export function commandsOf(bench) {
    const ask = bench.server.ask.bind(bench.server);
    const { canvas, finder, ledger } = bench;
    const needsPick = (/** @type {() => any} */ act) => () =>
        bench.picked > 0 ? act() : bench.say('Nothing is picked; pick objects first.');
    /** The change that a button names: what somebody else did meanwhile is not taken back in its place. @param {HTMLElement} from */
    const named = (from) => (from.dataset.change ? { change: from.dataset.change } : {});
    /**
     * @type {(part: string, id: string, name: string, keys: string, run: (from: HTMLElement) => any, more?: Partial<Command>) => Command}
     */
    const command = (part, id, name, keys, run, more = {}) => ({ part, id, name, keys, run, ...more });

    return [
        command('Take back', 'undo', 'Undo in the project', 'Ctrl+z', (from) => ask('POST', '/undo', named(from)), { changes: true }),
        command('Take back', 'redo', 'Redo in the project', 'Ctrl+y Ctrl+Shift+z', (from) => ask('POST', '/redo', named(from)), {
            changes: true,
        }),
        command('Take back', 'desk-undo', 'Take back on the desk', 'z', () => ask('POST', '/desk/undo')),
        command(
            'Take back',
            'undo-both',
            'Undo in the project and on the desk',
            '',
            async (from) => {
                await ask('POST', '/undo', named(from));
                return ask('POST', '/desk/undo');
            },
            { changes: true, quiet: true },
        ),
        command('Take back', 'desk-redo', 'Do again on the desk', 'Shift+z', () => ask('POST', '/desk/redo')),

        ...lookingCommands(bench, command, needsPick),

        command('Regions', 'tool', 'Tool', '', (from) => bench.regions.choose(from.dataset.tool ?? 'click'), { quiet: true }),
        ...[
            ['click', 'Pick one by one', 'q'],
            ['polygon', 'Polygon', 'p'],
            ['brush', 'Brush', 'b'],
            ['rectangle', 'Rectangle', 'r'],
            ['lasso', 'Lasso', 'o'],
            ['circle', 'Circle', 'c'],
        ].map(([tool, name, key]) => command('Regions', `tool-${tool}`, name, key, () => bench.regions.choose(tool))),
        command('Regions', 'region-settings', 'What regions catch…', '', (from) => bench.regions.openSettings(from)),
        command('Regions', 'here', 'What is here, at the pointer or in the middle?', 'd', () => {
            const { clientWidth, clientHeight } = canvas.element;
            const [x, y] = bench.regions.cross ?? bench.regions.pointer ?? [clientWidth / 2, clientHeight / 2];
            return bench.regions.askAt(x, y);
        }),
        command('Regions', 'taking', 'What a click takes…', '', (from) => bench.taking.open(from)),
        command('Regions', 'taking-next', 'A click takes part, group or outermost group', 'x', () => bench.taking.next()),
        command('Regions', 'touching', 'Touching or fully inside', 't', () => bench.regions.setInside(!bench.regions.inside)),

        command(
            'Pick',
            'clear-pick',
            'Clear the pick',
            'Escape',
            () => bench.taking.stepOut() || (bench.picked > 0 && bench.pick({ mode: 'replace' })),
        ),
        command('Pick', 'again', 'Do the last thing again, on what is picked now', 'F4', () => bench.again.do()),
        command('Pick', 'pick-before', 'The pick before', '(', () => ask('POST', '/pick/step', { way: -1 })),
        command('Pick', 'pick-after', 'The pick after', ')', () => ask('POST', '/pick/step', { way: 1 })),
        command(
            'Pick',
            'reach',
            'Reach from the pick…',
            'e',
            needsPick(() => bench.openDialog('/pick/reach')),
        ),
        ...[
            ['up', 'One up', ','],
            ['down', 'One down', '.'],
            ['mesh', 'Same mesh', 'm'],
        ].map(([way, name, key]) =>
            command(
                'Pick',
                `reach-${way}`,
                `Reach: ${name.toLowerCase()}`,
                key,
                needsPick(() => ask('POST', '/pick/reach', { way })),
            ),
        ),
        command(
            'Pick',
            'isolate',
            'Isolate the pick',
            'i',
            needsPick(() => ask('POST', '/isolate')),
        ),
        command(
            'Pick',
            'isolate-ghost',
            'Isolate the pick, the rest as ghosts',
            'Shift+i',
            needsPick(() => ask('POST', '/isolate', { rest: 'ghost' })),
        ),
        command(
            'Pick',
            'isolate-box',
            'Isolate the pick, the rest as boxes',
            '',
            needsPick(() => ask('POST', '/isolate', { rest: 'box' })),
        ),
        command('Pick', 'isolate-back', 'Back out of the isolation', 'Backspace', () => ask('POST', '/isolate/back')),
        command('Pick', 'isolate-end', 'End the isolation', '', () => ask('POST', '/isolate/back', { all: 1 })),
        command(
            'Pick',
            'isolate-rest',
            'Show the rest otherwise',
            '',
            (from) => ask('POST', '/isolate/back', { rest: from.dataset.rest }),
            { quiet: true },
        ),
        command('Pick', 'slot', 'Slot', '', (from) => bench.useSlot(Number(from.dataset.slot), Number(from.dataset.count)), {
            quiet: true,
        }),
        command('Pick', 'pin', 'Pin', '', (from) => bench.pickPin(from), { quiet: true }),
        command('Parked picks', 'pin-rule', 'Pin the rule in the line beside the slots', '', () =>
            ask('POST', '/pins', { what: `rule:${ledger.words}`, on: 1 }),
        ),
        ...[1, 2, 3, 4, 5, 6, 7, 8, 9].flatMap((slot) => [
            command('Parked picks', `recall-${slot}`, `Recall the pick in slot ${slot}`, `Alt+${slot}`, () =>
                ask('POST', `/parked/${slot}/recall`, { mode: 'replace' }),
            ),
            command(
                'Parked picks',
                `park-${slot}`,
                `Park the pick in slot ${slot}`,
                `Alt+Shift+${slot}`,
                needsPick(() => ask('POST', `/parked/${slot}`)),
            ),
        ]),
        command('Pick', 'rung-pick', 'Rung of the pick', '', (from) => ask('POST', '/rungs', { on: 'pick', rung: from.dataset.rung }), {
            quiet: true,
        }),
        ...['Hidden', 'Box', 'Ghost', 'Coarse', 'Plain', 'Full'].map((name, rung) =>
            command(
                'Pick',
                `rung-${rung}`,
                rung === 0 ? 'Hide the pick' : `Pick: ${name}`,
                String(rung),
                needsPick(() => ask('POST', '/rungs', { on: 'pick', rung })),
            ),
        ),
        command(
            'Pick',
            'details',
            'What is known of the pick',
            'j',
            needsPick(() => bench.details.toggle()),
        ),
        command(
            'Pick',
            'output-pick',
            'What pictures show of the pick…',
            'Alt+o',
            needsPick(() => bench.openDialog('/output')),
            { changes: true },
        ),
        ...showingCommands(bench, command, needsPick),
        command('Output', 'show-desk', 'Show the desk in the canvas', '', () => ask('POST', '/shows', { side: 'desk' })),
        command('Output', 'show-output', 'Show the output in the canvas', '', () => ask('POST', '/shows', { side: 'output' })),
        command('Output', 'turn-sides', 'Desk or output', 'Shift+o', () =>
            ask('POST', '/shows', { side: bench.side === 'desk' ? 'output' : 'desk' }),
        ),
        command('Output', 'difference', 'What the desk and pictures show differently…', '', (from) => openDifference(bench, from)),
        command('Output', 'difference-pick', 'Pick what the desk and pictures show differently', '', () =>
            ask('POST', '/pick/differing', { which: 'all', mode: 'replace' }),
        ),
        command('Pick', 'why', 'Why it shows as it does', 'y', (from) => bench.whyPicked(Number(from.dataset.object))),
        command(
            'Pick',
            'mend-held',
            'Raise what holds it',
            '',
            ({ dataset: { keys = '', on = '', what, number, side } }) =>
                ask('POST', '/why', { keys, on, what, number, side, part: 'rung' }),
            { quiet: true },
        ),
        command(
            'Pick',
            'why-held',
            'Why it is still held',
            '',
            ({ dataset: { keys = '', on = '', side = '' } }) =>
                /^O\d+$/.test(keys) ? bench.why(Number(keys.slice(1))) : bench.whyHeld({ keys, on, side, words: ledger.words }),
            { quiet: true },
        ),

        command(
            'Sort',
            'file-under',
            'File the pick under…',
            'u',
            needsPick(() => bench.openDialog('/file')),
            { changes: true },
        ),
        command('Sort', 'new-here', 'New layer, tag or set', 'n', () => bench.newHere(), { changes: true }),
        command('Sort', 'new-layer', 'New layer', '', () => askForRow(bench, 'layer'), { changes: true }),
        command('Sort', 'new-layer-from-pick', 'New layer from the pick', 'Shift+n', () => askForRow(bench, 'layer', { fromPick: true }), {
            changes: true,
        }),
        command(
            'Sort',
            'several-layers',
            'Several new layers from the pick…',
            '',
            needsPick(() => bench.openDialog(`/layers/several?parent=${bench.chosenLayer()}`)),
            { changes: true },
        ),
        command(
            'Sort',
            'merge-layers',
            'Merge the selected layers…',
            '',
            () => bench.openDialog(`/layers/merge?keys=${bench.ledger.target.join(',')}`),
            {
                changes: true,
            },
        ),
        command(
            'Sort',
            'merge-tags',
            'Make one of the selected tags…',
            '',
            () => bench.openDialog(`/tags/merge?keys=${bench.ledger.target.join(',')}`),
            { changes: true },
        ),
        command('Sort', 'clear-out', 'Clear out what holds no objects…', '', () => bench.openDialog('/layers/clear'), { changes: true }),
        command('Sort', 'new-tag', 'New tag', '', () => askForRow(bench, 'tag'), { changes: true }),
        command('Sort', 'new-tag-from-pick', 'New tag from the pick', '', () => askForRow(bench, 'tag', { fromPick: true }), {
            changes: true,
        }),
        command('Sort', 'new-folder', 'New folder of tags or sets', 'Shift+f', () => askForFolder(bench), { changes: true }),
        command(
            'Sort',
            'tag-pick',
            'Tag the pick…',
            'g',
            needsPick(() => bench.openDialog('/tag')),
            { changes: true },
        ),
        command(
            'Sort',
            'tag-toggle',
            'Give the pick a tag or take it off',
            '',
            (from) => ask('POST', '/tag', { tag: from.dataset.tag, mode: 'toggle' }),
            { changes: true, quiet: true },
        ),
        command('Pick', 'export', 'Export parts…', '', () => openExport(bench)),
        command('Sort', 'keep-set', 'Keep as a set…', 's', (from) => bench.keepSet(from.dataset.of), { changes: true }),
        command('Sort', 'add-file', 'Add a file…', '', () => bench.addFile.choose(), { changes: true }),
        command('Sort', 'sources', 'Sources and their reports…', '', (from) => bench.menus.openSources(from)),
        command('Sort', 'landing', 'Where new objects land…', '', () => bench.openDialog('/landing')),
        command('Sort', 'move-rows', 'Move rows to…', 'Shift+m', () => bench.moveRows(bench.ledger.target), { changes: true }),
        command(
            'Sort',
            'lock-pick',
            'Open, guard or lock the pick',
            'l',
            needsPick(() => bench.lockPick()),
            { changes: true },
        ),
        command(
            'Sort',
            'rename-pick',
            'Rename the whole pick…',
            'Shift+r',
            needsPick(() => bench.openDialog('/rename')),
            { changes: true },
        ),

        command(
            'Sort',
            'rename-rows',
            'Rename the selected layers, tags or sets…',
            '',
            () => bench.openDialog(`/rename?keys=${ledger.target.join(',')}`),
            {
                changes: true,
            },
        ),

        ...nestingCommands(bench, command, needsPick),
        ...sortingCommands(bench, command),
        command('Find', 'find', 'Find by name or rule', '/', () => ledger.input.focus()),
        command('Find', 'hit-next', 'The next hit', '', () => finder.step(1)),
        command('Find', 'hit-back', 'The hit before', '', () => finder.step(-1)),
        command('Find', 'hits-pick', 'Make the hits the pick', '', () => bench.pick({ found: 1, mode: 'replace' })),
        command('Find', 'hits-add', 'Add the hits to the pick', '', () => bench.pick({ found: 1, mode: 'add' })),
        command('Find', 'hits-remove', 'Take the hits from the pick', '', () => bench.pick({ found: 1, mode: 'remove' })),
        command('Find', 'hits-show', 'Show the hits', '', () => ask('POST', '/rungs', { on: 'found', rung: 'back' })),
        command('Find', 'hits-hide', 'Hide the hits', '', () => ask('POST', '/rungs', { on: 'found', rung: 'hide' })),
        command('Find', 'hits-rung', 'Rung of the hits…', '', (from) => openRungs(bench, from)),
        command('Find', 'hits-isolate', 'Isolate the hits', '', () => ask('POST', '/isolate', { found: 1 })),
        command('Find', 'rule-back', 'One step of the rule back', '', () => finder.stepBack()),
        command('Find', 'rule-keep', 'Keep the rule in the line as that of the set', '', () => finder.keepRule(), { changes: true }),
        command('Find', 'kinds', 'Filter by kind…', '', (from) => bench.menus.openKinds(from)),
        command('Find', 'commands', 'Every command and every name', 'Ctrl+k', () => bench.commandBox.open()),

        command('Show', 'unfold-rungs', 'Unfold the rungs of the row, or of the pick', 'Shift+u', () => bench.marks.unfoldHere()),
        command('Ledger', 'jump', 'Jump to a row by the start of its name', "'", () => jump(bench)),
        command('Ledger', 'turn-next', 'Show the next of those shown one at a time', '>', () => bench.turnNext(1)),
        command('Ledger', 'turn-back', 'Show the one before', '<', () => bench.turnNext(-1)),
        command('Ledger', 'narrow-rows', 'Find layers, tags and sets by their own names', ';', () => bench.narrowing.begin()),
        command('Ledger', 'narrow-rows-end', 'All rows again', '', () => bench.narrowing.end()),
        ...['layers', 'tags', 'sets', 'nesting', 'objects', 'kinds', 'materials', 'sources'].map((lens) =>
            command('Ledger', `lens-${lens}`, `Lens: ${lens}`, '', () =>
                bench.turn(/** @type {HTMLElement} */ (document.getElementById(`lens-${lens}`))),
            ),
        ),
        command('Ledger', 'more-lenses', 'More lenses…', '', (from) => bench.menus.openLenses(from)),
        command('Ledger', 'fold-menu', 'How far rows are open…', '', (from) => openFolds(bench, from)),
        command('Ledger', 'unfold-all', 'Open every row, all the way in', '', () => ledger.arrange({ all: 1, unfold: 1 })),
        command('Ledger', 'fold-all', 'Only the outermost rows', '', () => ledger.arrange({ all: 1, unfold: 0 })),
        command('Ledger', 'sort-picked', 'Picked first', '', () => ledger.arrange({ sort: 'picked' })),
        command('Ledger', 'sort-own', 'The order of the model, or by hand', '', () => ledger.arrange({ sort: '' })),
        command('Ledger', 'widen', 'Tags and sets as columns…', 'Shift+w', () => bench.openDialog('/memberships')),
        command('Ledger', 'widen-end', 'Tags and sets are columns no longer', '', () => narrowAgain(bench)),
        command('Ledger', 'grid', 'Views as columns', 'Alt+v', () => bench.grid.turn()),
        command('Ledger', 'grid-file', 'Views as columns, as a file', '', () =>
            location.assign(`${bench.server.base}/grid/file?${new URLSearchParams(bench.grid.window())}`),
        ),
        command('Ledger', 'grid-read', 'Read a file into views…', '', () => bench.grid.askFile(), { changes: true }),
        command('Ledger', 'ledger-window', 'The ledger in a window of its own', '', async () => {
            await bench.own.ready;
            open(`${bench.server.base}?window=ledger&like=${bench.own.name}`, '_blank', 'popup,width=760,height=900');
        }),
        command('Ledger', 'follow', 'Follow the pick, or stay', '', () => ledger.arrange({ follow: ledger.follows ? 0 : 1 })),
        command('Ledger', 'layouts', 'Columns and layouts…', '', (from) => openLayouts(bench, from)),
        command('Ledger', 'columns', 'Choose columns…', '', () => bench.openDialog('/ledger/columns')),

        command('Tint', 'tints', 'Tint by…', '', (from) => bench.menus.openTints(from)),
        ...['own', 'layer', 'tag', 'tags', 'without-tags', 'set', 'kind', 'material', 'source', 'weight', 'lock', 'output'].map((by) =>
            command('Tint', `tint-${by}`, TINTS[by] ?? `Tint by ${by}`, '', () => ask('POST', '/tint', { by })),
        ),
        command('Tint', 'tint-shuffle', 'Tint with shuffled colours', '', () => ask('POST', '/tint', { by: 'shuffle' })),
        command(
            'Tint',
            'tint-shuffle-pick',
            'Tint the pick with shuffled colours',
            '',
            needsPick(() => ask('POST', '/tint', { by: 'shuffle', pick: 1 })),
        ),

        ...viewingCommands(bench, command),
        command('Find', 'keys', 'Sheet of keys', '?', () => openKeys(bench)),
    ];
}

/** Rungs from most to least, as menus and commands list them. @type {[string, number][]} */
export const RUNGS = [
    ['Full', 5],
    ['Plain', 4],
    ['Coarse', 3],
    ['Ghost', 2],
    ['Box', 1],
    ['Hidden', 0],
];

/** Ways to draw edges: what the desk keeps, and what people read. @type {[string, string][]} */
export const EDGES = [
    ['own', 'Edges as layers and tags have them'],
    ['over', 'Edges over shading'],
    ['none', 'No edges'],
    ['only', 'Edges only'],
];

/**
 * What commands for rows or the pick are for: the rows that the keyboard is on, else the pick.
 * @param {import('./workbench.js').Workbench} bench
 */
function meant(bench) {
    const { ledger } = bench;
    const keys = ledger.keyboardAt >= 0 ? ledger.target.filter((key) => !key.startsWith('O')) : [];
    return keys.length > 0 ? { keys: keys.join(',') } : {};
}

/**
 * Commands for the desk as a whole, and for all that is picked.
 * @param {import('./workbench.js').Workbench} bench
 * @param {(part: string, id: string, name: string, keys: string, run: (from: HTMLElement) => any, more?: any) => any} command
 * @param {(act: () => any) => () => any} needsPick
 */
export function showingCommands(bench, command, needsPick) {
    const ask = bench.server.ask.bind(bench.server);
    const onRows = (/** @type {() => any} */ act) => () =>
        bench.picked > 0 || meant(bench).keys ? act() : bench.say('Nothing is picked; pick objects, or go to a row, first.');
    return [
        command('Show', 'showing', 'Show, hide, thin out…', '', (from) => openShowing(bench, from)),
        command(
            'Show',
            'show-only',
            'Show only the pick',
            'Shift+s',
            needsPick(() => ask('POST', '/rungs/whole', { act: 'only' })),
        ),
        command('Show', 'show-all', 'Show all again', 'Shift+a', () => ask('POST', '/rungs/whole', { act: 'shown' })),
        command('Show', 'all-full', 'Everything to Full', '', () => ask('POST', '/rungs/whole', { act: 'full' })),
        command('Show', 'invert', 'Invert: hide what is shown, show what is hidden', 'Shift+v', () =>
            ask('POST', '/rungs/whole', { act: 'invert' }),
        ),
        ...[
            ['lower', 'One rung lower', 'Alt+-', -1],
            ['higher', 'One rung higher', 'Alt+=', 1],
        ].map(([id, name, key, way]) =>
            command(
                'Show',
                String(id),
                String(name),
                String(key),
                onRows(() => ask('POST', '/rungs/step', { way, ...meant(bench) })),
            ),
        ),
        command('Show', 'ceiling', 'Ceiling of the desk…', 'Shift+c', (from) => openCeiling(bench, from)),
        ...RUNGS.filter(([, rung]) => rung > 0).map(([name, rung]) =>
            command('Show', `ceiling-${rung}`, rung === 5 ? 'Lift the ceiling' : `Ceiling: ${name}`, '', () =>
                ask('POST', '/rungs/ceiling', { rung }),
            ),
        ),
        command(
            'Show',
            'backdrop',
            'Backdrop on or off: ghost and guarded',
            'Shift+b',
            onRows(() => ask('POST', '/backdrop', meant(bench))),
            { changes: true },
        ),
        command(
            'Show',
            'guard-others',
            'Guard all but the pick',
            'Shift+g',
            needsPick(() => ask('POST', '/locks/whole', { act: 'others' })),
            { changes: true },
        ),
        command('Show', 'open-all', 'Open all', '', () => ask('POST', '/locks/whole', { act: 'open' }), { changes: true }),
        command('Show', 'weight', 'Weight: what costs what', 'Shift+h', () => bench.weight.toggle()),
        command('Show', 'lighten', 'Lighten: rungs that fit a budget', 'Alt+h', () => bench.weight.lighten()),
        command('Section', 'section', 'Section: box and planes', 'Shift+x', () => bench.section.toggle()),
        command('Section', 'section-turn', 'Section on or off', 'Shift+t', () => bench.section.turn()),
        command(
            'Section',
            'section-around',
            'Section box around the pick',
            '',
            needsPick(() => bench.section.around()),
        ),
        command('Show', 'alone-next', 'Each layer alone: the next', 'Shift+l', () => alone(bench, 1)),
        command('Show', 'alone-back', 'Each layer alone: the one before', 'Shift+k', () => alone(bench, -1)),
        ...EDGES.map(([edges, name]) => command('Show', `edges-${edges}`, name, '', () => ask('POST', '/edges', { edges }))),
        command('Show', 'edges-next', 'Edges: over shading, none, only, their own', 'Shift+e', () =>
            ask('POST', '/edges', { edges: EDGES[(EDGES.findIndex(([edges]) => edges === bench.edges.mode) + 1) % EDGES.length][0] }),
        ),
    ];
}

/** @param {import('./workbench.js').Workbench} bench @param {number} way */
function alone(bench, way) {
    const row = bench.ledger.focusKey;
    return bench.server.ask('POST', '/isolate/layer', { way, ...(row.startsWith('L') ? { layer: row.slice(1) } : {}) });
}

/** @param {import('./workbench.js').Workbench} bench @param {HTMLElement} from */
function openCeiling(bench, from) {
    bench.menus.back = from;
    bench.menus.show(
        from,
        undefined,
        RUNGS.filter(([, rung]) => rung > 0).map(([name, rung]) => [
            rung === 5 ? 'No ceiling' : name,
            '',
            () => bench.command(`ceiling-${rung}`),
        ]),
    );
}

/** The rungs with their names, for what was found. @param {import('./workbench.js').Workbench} bench @param {HTMLElement} from */
export function openRungs(bench, from) {
    bench.menus.back = from;
    bench.menus.show(
        from,
        undefined,
        RUNGS.map(([name, rung]) => [name, '', () => bench.server.ask('POST', '/rungs', { on: 'found', rung })]),
    );
}

/** @param {import('./workbench.js').Workbench} bench @param {HTMLElement} from */
function openShowing(bench, from) {
    const run = (/** @type {string} */ id) => () => bench.command(id);
    const { mayChange, picked } = bench;
    bench.menus.back = from;
    bench.menus.show(from, undefined, [
        ...(picked > 0
            ? [
                  ['Hide the pick', '0', run('rung-0')],
                  ['Show only the pick', '⇧S', run('show-only')],
                  ['One rung lower', 'Alt+−', run('lower')],
                  ['One rung higher', 'Alt+=', run('higher')],
                  mayChange ? ['Backdrop on or off', '⇧B', run('backdrop')] : null,
                  mayChange ? ['Guard all but the pick', '⇧G', run('guard-others')] : null,
                  null,
              ]
            : []),
        ['Show all again', '⇧A', run('show-all')],
        ['Invert', '⇧V', run('invert')],
        ['Everything to Full', '', run('all-full')],
        ['Ceiling…', '⇧C', () => openCeiling(bench, from)],
        mayChange ? ['Open all', '', run('open-all')] : null,
        null,
        ['Each layer alone', '⇧L', run('alone-next')],
        null,
        ...EDGES.map(([edges, name]) => [name, bench.edges.mode === edges ? '✓' : '', run(`edges-${edges}`)]),
    ]);
}

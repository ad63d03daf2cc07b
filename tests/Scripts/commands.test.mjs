// The one list of commands against the pages that name them, checked without a browser: node --test tests/Scripts
import assert from 'node:assert/strict';
import { readFileSync, readdirSync } from 'node:fs';
import { test } from 'node:test';

/** Stands for anything that is asked of it. @type {any} */
const anything = new Proxy(function () {}, {
    get: (_, name) => (name === Symbol.toPrimitive ? () => '' : anything),
    apply: () => anything,
    construct: () => anything,
});
Object.assign(globalThis, { window: globalThis });
for (const name of ['document', 'localStorage', 'matchMedia', 'XPathEvaluator', 'Element', 'MutationObserver', 'addEventListener'])
    Object.assign(globalThis, { [name]: anything });
const { commandsOf } = await import('../../resources/js/bench/commands.js');
const { Ledger } = await import('../../resources/js/bench/ledger.js');

const commands = commandsOf(anything);
const byId = new Map(commands.map((command) => [command.id, command]));

/** Every file below a folder of the repository. */
const files = (folder) =>
    readdirSync(new URL(`../../${folder}`, import.meta.url), { recursive: true, withFileTypes: true })
        .filter((entry) => entry.isFile())
        .map((entry) => readFileSync(`${entry.parentPath ?? entry.path}/${entry.name}`, 'utf8'));
const pages = files('resources/views');
const scripts = files('resources/js');

test('no two commands share an id, a key or a name', () => {
    assert.equal(byId.size, commands.length);
    const keys = commands.flatMap(({ keys }) => keys.split(' ').filter((key) => key !== ''));
    assert.deepEqual(
        keys.filter((key, at) => keys.indexOf(key) !== at),
        [],
    );
    const names = commands.filter(({ quiet }) => !quiet).map(({ name }) => name);
    assert.deepEqual(
        names.filter((name, at) => names.indexOf(name) !== at),
        [],
    );
    for (const { name, part } of commands) assert.match(`${part} ${name}`, /^\S.*\S \S.*\S$/);
});

test('every button names a command that there is, and the key that a button promises is its own', () => {
    let promised = 0;
    for (const page of pages) {
        for (const [tag, id] of page.matchAll(/<button\b(?:[^>"]|"[^"]*")*data-command="([a-z0-9-]+)"(?:[^>"]|"[^"]*")*>/g)) {
            const command = byId.get(id);
            assert.ok(command, `there is no command ${id}`);
            const title = /title="([^"]*)"/.exec(tag)?.[1] ?? '';
            const key = /^[^;]*\((Shift\+)?([A-Z])\)/.exec(title);
            if (!key) continue;
            promised++;
            assert.ok(command.keys.split(' ').includes(`${key[1] ?? ''}${key[2].toLowerCase()}`), `${id} is not ${key[0]}`);
        }
    }
    assert.ok(promised > 6, `${promised} buttons promise a key`);
});

test('every command can be reached: by a key, in the command box, or by something on the page', () => {
    const named = [...pages, ...scripts].join('\n');
    for (const { id, keys, quiet } of commands) {
        assert.ok(keys !== '' || !quiet || named.includes(`"${id}"`) || named.includes(`'${id}'`), `${id} cannot be reached`);
    }
});

/** A ledger that shows rows of a state, and counts how often it asks for others. */
function shown(dataset) {
    const ledger = Object.create(Ledger.prototype);
    ledger.asks = 0;
    Object.assign(ledger, {
        open: 0,
        lens: 'layers',
        words: '',
        named: '',
        known: { revision: 4, desk: 7 },
        rows: { querySelector: () => ({ dataset }) },
        fetch: () => (ledger.asks++, Promise.resolve(200)),
    });
    return ledger;
}

test('rows of the newest state stay, rows of an older one or of another search are asked for anew, once', () => {
    const now = { revision: '4', desk: '7', lens: 'layers', rule: '', named: '' };
    for (const [other, asks] of /** @type {const} */ ([
        [{}, 0],
        [{ revision: '3' }, 1],
        [{ desk: '6' }, 1],
        [{ desk: '8', revision: '5' }, 0],
        [{ lens: 'kinds' }, 1],
        [{ rule: 'seat' }, 1],
        [{ named: 'stands' }, 1],
    ])) {
        const dataset = { ...now, ...other };
        const ledger = shown(dataset);
        for (let time = 0; time < 3; time++) ledger.check();
        assert.equal(ledger.asks, asks, JSON.stringify(other));
        // Once they are new, later old ones are asked for again.
        Object.assign(dataset, now);
        ledger.check();
        dataset.revision = '1';
        ledger.check();
        assert.equal(ledger.asks, asks + 1);
    }
});

test('while an answer is under way nothing is asked for twice', () => {
    const ledger = shown({ revision: '1', desk: '1', lens: 'layers' });
    ledger.open = 1;
    ledger.check();
    assert.equal(ledger.asks, 0);
    ledger.open = 0;
    ledger.hears({ revision: 5, desk: 8 });
    assert.equal(ledger.asks, 1);
});

test('a rule that cannot be understood is taken back, and the rows are not asked for with it again', async () => {
    const ledger = shown({ revision: '4', desk: '7', lens: 'layers', rule: 'seat', from: '40', total: '90' });
    ledger.words = 'seat';
    ledger.wanted = { from: 40, count: 20 };
    const asked = [];
    ledger.fetch = () => (asked.push(ledger.words), Promise.resolve(422));
    assert.equal(await ledger.search(' kind:chair '), 422);
    assert.deepEqual(asked, ['kind:chair']);
    assert.deepEqual([ledger.words, ledger.wanted.from], ['seat', 40]);
});

/** A ledger that is asked to show a row, and what it has revealed once the place is known. */
async function showing(ledger, meanwhile) {
    globalThis.HTMLInputElement ??= /** @type {any} */ (class {});
    let answer = (_) => {};
    const revealed = [];
    Object.assign(ledger, {
        server: { json: () => new Promise((resolve) => (answer = resolve)) },
        reveal: (place) => revealed.push(place),
        follow() {},
        settle() {},
    });
    const shown = ledger.show('O7', true);
    meanwhile();
    answer({ place: 3, key: 'O7' });
    await shown;
    return revealed;
}

test('a row that is to be shown gets the focus, unless somebody has gone on to another one before its place is known', async () => {
    const rows = { revision: '4', desk: '7', lens: 'layers', rule: '' };
    const stays = shown(rows);
    stays.focusKey = 'O7';
    assert.deepEqual(await showing(stays, () => {}), [3]);
    assert.deepEqual([stays.focusKey, stays.refocus], ['O7', true]);

    const goes = shown(rows);
    goes.focusKey = 'O7';
    assert.deepEqual(await showing(goes, () => (goes.focusKey = 'L2')), []);
    assert.deepEqual([goes.focusKey, goes.refocus], ['L2', undefined]);

    const waits = shown(rows);
    waits.focusKey = 'O7';
    assert.deepEqual(await showing(waits, () => (waits.awaited = { place: 90, quiet: false })), []);

    // A dialog that closes gives the keyboard to a row when none had it before: nobody has gone anywhere.
    const first = shown(rows);
    first.focusKey = '';
    assert.deepEqual(await showing(first, () => (first.focusKey = 'L1')), [3]);
});

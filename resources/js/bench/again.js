/** What is done to the pick or to rows, by the address that it is asked at. */
const ACTS = new RegExp(
    '^/(rungs|rungs/step|output|file|file/along|tag|tags|locks|backdrop|own|isolate|rename|sets/\\d+/members|' +
        'objects/(nest|copy|delete|group))$',
);

/** Values that say what was meant, and not what was done. */
const WHAT = ['keys', 'on', 'found', 'span', 'words', 'turn'];

/** The last command on the pick or on rows, with what was chosen for it, on what is picked now. */
export class Again {
    /** @param {import('./workbench.js').Workbench} bench */
    constructor(bench) {
        this.bench = bench;
        /** @type {{method: 'POST', path: string, values: Record<string, any>} | null} */
        this.last = null;
        const ask = bench.server.ask.bind(bench.server);
        bench.server.ask = async (method, path, values = {}) => {
            const status = await ask(method, path, values);
            if (method === 'POST' && ACTS.test(path) && status === 200 && (path !== '/tags' || values.from_pick)) {
                const done = Object.fromEntries(Object.entries(values).filter(([name]) => !WHAT.includes(name)));
                this.last = { method, path, values: done };
            }
            return status;
        };
    }

    do() {
        const { bench, last } = this;
        if (!last) return bench.say('Nothing was done to a pick yet; do something to one, pick others, and do it again.');
        if (bench.picked === 0) return bench.say('Nothing is picked; pick what it is to be done to.');
        if (!/^\/(rungs|isolate)/.test(last.path) && !bench.may()) return undefined;
        return bench.server.ask(last.method, last.path, { ...last.values, on: 'pick' });
    }
}

/**
 * Commands about where the canvas looks from.
 * @param {import('./workbench.js').Workbench} bench
 * @param {(part: string, id: string, name: string, keys: string, run: (from: HTMLElement) => any, more?: any) => any} command
 * @param {(act: () => any) => () => any} needsPick
 */
export function lookingCommands(bench, command, needsPick) {
    const ask = bench.server.ask.bind(bench.server);
    const { canvas } = bench;
    const held = (/** @type {() => any} */ act) => () =>
        canvas.viewpoint.held ? bench.say('The camera is held; let it go first (H).') : act();
    return [
        command(
            'Camera',
            'fit-all',
            'Fit all',
            'a',
            held(() => canvas.framing.all()),
        ),
        command(
            'Camera',
            'fit-pick',
            'Fit the pick',
            'f',
            held(() => bench.looking.framePick()),
        ),
        command('Camera', 'sides', 'Plan and four sides…', '', (from) => bench.menus.openSides(from)),
        ...['plan', 'front', 'back', 'left', 'right'].map((side) =>
            command(
                'Camera',
                `side-${side}`,
                side === 'plan' ? 'Plan' : `Seen from the ${side}`,
                '',
                held(() => canvas.viewpoint.side(side, bench.looking.framed())),
            ),
        ),
        command(
            'Camera',
            'parallel',
            'Parallel or perspective',
            'k',
            held(() => bench.looking.setParallel(!canvas.viewpoint.isParallel)),
        ),
        command(
            'Camera',
            'viewpoint-back',
            'Previous viewpoint',
            '[',
            () =>
                canvas.viewpoint.step(-1) ||
                bench.say(canvas.viewpoint.held ? 'The camera is held; let it go first (H).' : 'There is no viewpoint before this one.'),
        ),
        command(
            'Camera',
            'viewpoint-next',
            'Next viewpoint',
            ']',
            () => canvas.viewpoint.step(1) || bench.say('There is no viewpoint after this one.'),
        ),
        command('Camera', 'hold', 'Hold the camera', 'h', () => bench.looking.setHold(!canvas.viewpoint.held)),
        command('Camera', 'cameras', "The model's own cameras…", '', (from) => bench.menus.openCameras(from)),
        command('Camera', 'frame', 'Show the frame of the view in the canvas', 'Alt+f', () => bench.looking.frame.turn()),
        command('Camera', 'keep-camera', 'Keep the camera alone as a view', '', () => bench.looking.keepCamera(), { changes: true }),
        command('Camera', 'cameras-keep', 'All cameras of the model as views', '', () => ask('POST', '/cameras', { all: 1 }), {
            changes: true,
        }),
        command(
            'Camera',
            'cameras-around',
            'A turn around the pick as views…',
            '',
            needsPick(() => bench.looking.askAround()),
            { changes: true },
        ),
        command('Camera', 'walk', 'Walk at eye height', 'w', () => bench.looking.setWalk(!bench.looking.walk.on)),
    ];
}

<?php

declare(strict_types=1);

namespace Tests\Browser;

use Tests\Browser\Support\Browser;
use Tests\Core\Support\Gltf;

/** What parts look like on the canvas, against parts that must look the same for another reason. */
final class LookTest extends BrowserTestCase
{
    /** A tilt as a normal map writes it: along the picture's right, along its top, out of the surface. */
    private const TILT = [0.5, 0.35, 0.7921];

    /**
     * Each pane with a normal map stands above one whose vertices say the tilted normal themselves: they must look the same, wherever the
     * picture's right is on the pane, when the part is mirrored, and from behind.
     */
    public function test_a_normal_map_lights_a_part_as_tilted_normals_would(): void
    {
        $panes = [
            'upright' => [[[0, 1], [1, 1], [1, 0], [0, 0]], [1, 0, 0], [0, 1, 0], 1],
            'turned' => [[[0, 0], [0, 1], [1, 1], [1, 0]], [0, 1, 0], [-1, 0, 0], 1],
            'mirrored picture' => [[[1, 1], [0, 1], [0, 0], [1, 0]], [-1, 0, 0], [0, 1, 0], 1],
            'mirrored part' => [[[0, 1], [1, 1], [1, 0], [0, 0]], [1, 0, 0], [0, 1, 0], -1],
        ];
        $browser = $this->workbench(file: self::panes($panes));
        foreach (['from the front' => -14, 'from behind' => 14] as $side => $away) {
            $browser->js('shelfBench.canvas.viewpoint.set({ eye: [4.5, arguments[0], 1.5], target: [4.5, 0, 1.5], fov: 50 }, true)', $away);
            $browser->settled();
            $flat = $browser->pixel(...$browser->placeOf(self::number($browser, 'flat')));
            $tilts = 0;
            foreach (array_keys($panes) as $name) {
                $own = $browser->pixel(...$browser->placeOf(self::number($browser, "$name, by its vertices")));
                $mapped = $browser->pixel(...$browser->placeOf(self::number($browser, "$name, by a map")));
                self::assertEqualsWithDelta($own, $mapped, 4, "$name, $side");
                $tilts += abs($flat[0] - $mapped[0]) > 8 ? 1 : 0;
            }
            self::assertGreaterThan(1, $tilts, 'one tilt may be lit as what is flat, but not all');
        }
        self::assertSame([], $browser->complaints());
    }

    public function test_boxes_are_seen_and_picked_before_the_graphics_card_is_ready(): void
    {
        $browser = $this->workbench(drawn: false);
        $waiting = $browser->tools->execute('Page.addScriptToEvaluateOnNewDocument', [
            'source' => <<<'JS'
                let bench;
                Object.defineProperty(window, 'shelfBench', { get: () => bench, set(made) {
                    bench = made;
                    bench.open = () => bench.canvas.constructor.prototype.open.call(bench.canvas);
                    bench.canvas.open = () => {};
                } });
                addEventListener('shelf:drawn', ({ detail }) => { window.drawn = detail; }, true);
            JS
        ,
        ]);
        $browser->js('location.reload()');
        $browser->waitUntil('return window.drawn?.boxes > 100 && !shelfBench.canvas.loading', 'no boxes are seen');
        self::assertFalse($browser->js('return shelfBench.canvas.painter.isOpen'));
        // Some place where one object is wide enough to be clicked.
        [$x, $y, $number] = (array) $browser->js(
            <<<'JS'
                const { draft, surface } = shelfBench.canvas, { left, top } = surface.getBoundingClientRect();
                for (let y = 150; y < surface.clientHeight - 150; y += 3)
                    for (let x = 60; x < surface.clientWidth - 300; x += 3) {
                        const number = draft.numberAt(x, y);
                        const same = (dx, dy) => draft.numberAt(x + dx, y + dy) === number;
                        if (number > 0 && same(-2, -2) && same(2, -2) && same(-2, 2) && same(2, 2)) return [x, y, number];
                    }
            JS
            ,
        );
        $browser->clickCanvas((int) $x, (int) $y);
        $browser->waitUntil("return shelfBench.canvas.pick[$number] === 1", 'a click on a box does not pick its object');
        self::assertTrue($browser->has('#card .card'));
        $browser->js('shelfBench.open()');
        $browser->settled()->waitUntil('return document.querySelector(".draft") === null', 'the draft does not go');
        self::assertSame([], $browser->complaints());
        $browser->tools->execute('Page.removeScriptToEvaluateOnNewDocument', $waiting);
    }

    /** How far the picture is from the one that was kept last: the mean over pixels and channels, of 255. It is kept then. */
    private const KEEPS_A_PICTURE = <<<'JS'
    let kept = null;
    window.keptApart = () => {
        const { painter, surface } = shelfBench.canvas;
        painter.show(0);
        const flat = document.createElement('canvas').getContext('2d', { willReadFrequently: true });
        [flat.canvas.width, flat.canvas.height] = [surface.width, surface.height];
        flat.drawImage(surface, 0, 0);
        const now = flat.getImageData(0, 0, surface.width, surface.height).data;
        const apart = kept?.length === now.length ? now.reduce((sum, value, at) => sum + Math.abs(value - kept[at]), 0) / now.length : -1;
        kept = now;
        return apart;
    };
    keptApart();
    JS;

    public function test_ghosts_are_drawn_in_slices_that_make_the_same_picture(): void
    {
        $browser = $this->workbench();
        $browser->js('shelfBench.server.ask("POST", "/rungs", { keys: "K0,K1", rung: 2 })');
        $browser->waitForText('#message', 'Ghost')->settled();
        $draw = <<<'JS'
            const { canvas } = shelfBench, { painter } = canvas;
            let steps = 0;
            painter.smoothing = 0;
            painter.begin(canvas.viewpoint.camera, false);
            do {
                painter.speed = painter.veilSpeed = arguments[0];
                steps++;
            } while (painter.step());
            return [steps, painter.summary.done, canvas.picture()];
        JS;
        [$once, , $whole] = (array) $browser->js($draw, 1e6);
        [$steps, $done, $sliced] = (array) $browser->js($draw, 60);
        self::assertLessThan(3, $once);
        self::assertGreaterThan(10, $steps, 'a model of ghosts is drawn in one go, and nothing else happens meanwhile');
        self::assertTrue($done);
        self::assertSame($whole, $sliced);
        self::assertGreaterThan(2000, strlen((string) $whole), 'there is nothing in the picture');
    }

    /** The step to the screen again, pixel by pixel in plain loops, from what was drawn: which pixels differ by more than rounding. */
    private const SCREEN_TWIN = <<<'JS'
        const { canvas } = shelfBench, { painter } = canvas, { frames, look } = painter, { screen } = look;
        canvas.isAside = true;
        const { width, height, renderer, mean } = frames, front = frames.targets[frames.front];
        const read = (target, attachment) => {
            const bytes = new Uint8Array(width * height * 4);
            renderer.readRenderTargetPixels(target, 0, 0, width, height, bytes, undefined, attachment);
            return bytes;
        };
        const colours = read(front, 0);
        const [solid, over] = [1, 2].map((at) => read(front, at)).map((bytes) =>
            Array.from({ length: width * height }, (_, n) => bytes[n * 4] + bytes[n * 4 + 1] * 256 + bytes[n * 4 + 2] * 65536));
        const hit = over.map((number, n) => number >= 2 ** 23 ? number - 2 ** 23 : solid[n] || number);
        const sheet = new mean.constructor(width, height, { depthBuffer: false });
        const mixed = (a, b, share) => a.map((value, at) => value + (b[at] - value) * share);
        const common = (numbers) => [...numbers.reduce((all, n) => all.set(n, (all.get(n) ?? 0) + 1), new Map())]
            .filter(([n]) => n > 0).sort((a, b) => b[1] - a[1]).map(([n]) => n);
        const seen = common(hit);
        const takes = Uint32Array.from({ length: canvas.states.length }, (_, n) => n - (n % 40) + 1);
        const found = { glass: over.filter((n) => n >= 2 ** 23).length, ghosts: over.filter((n) => n > 0 && n < 2 ** 23).length };
        const wrong = {};
        for (const [name, edges, pick, hovered, taken] of [
            ['plain', 'none', [], 0, null], ['ink', 'only', [], 0, null], ['pick', 'own', seen.slice(0, 40), 0, null],
            ['behind glass', 'own', common(solid).slice(0, 9), 0, null], ['hover', 'own', [], seen[1], null],
            ['pick and hover', 'only', seen.slice(2, 30), seen[2], null], ['taken', 'own', [], takes[seen[1]], takes],
            ['all', 'only', seen.slice(5, 25), takes[seen[3]], takes],
        ]) {
            look.setPick(Uint8Array.from({ length: canvas.states.length }, (_, n) => Number(pick.includes(n))));
            look.setTakes(taken);
            screen.anyTake.value = taken ? 1 : 0;
            [frames.edges, frames.smoothed] = [edges, false];
            frames.compose(sheet, hovered);
            const shown = read(sheet, 0), set = new Set(pick);
            const [ink, grape, hoverInk] = [screen.ink, screen.grape, screen.hoverInk].map(({ value }) => value.toArray());
            const isPicked = (n) => set.has(solid[n]) || set.has(hit[n]);
            const isOver = (n) => (taken && hit[n] > 0 ? taken[hit[n]] : hit[n]) === hovered;
            wrong[name] = 0;
            for (let y = 0; y < height; y++)
                for (let x = 0; x < width; x++) {
                    const n = y * width + x;
                    const beside = [[1, 0], [-1, 0], [0, 1], [0, -1]].map(([dx, dy]) =>
                        Math.min(height - 1, Math.max(0, y + dy)) * width + Math.min(width - 1, Math.max(0, x + dx)));
                    let colour = [0, 1, 2].map((at) => colours[n * 4 + at] / 255);
                    const isLine = [beside[0], beside[3]].some((next) => solid[next] !== solid[n]);
                    if (edges === 'only' && isLine) colour = mixed(colour, ink, 0.75);
                    const light = 0.42 + 0.8 * (colour[0] * 0.3 + colour[1] * 0.5 + colour[2] * 0.2);
                    if (isPicked(n)) colour = mixed(colour, grape.map((value) => value * light), 0.84);
                    else if (beside.some(isPicked)) colour = grape.map((value) => value * 0.72);
                    if (hovered > 0 && beside.some((next) => isOver(next) !== isOver(n))) colour = hoverInk;
                    if (colour.some((value, at) => Math.abs(Math.min(1, value) * 255 - shown[n * 4 + at]) > 1.01)) wrong[name]++;
                }
        }
        sheet.dispose();
        return [wrong, found];
        JS;

    public function test_what_comes_to_the_screen_is_what_plain_loops_over_the_pixels_give(): void
    {
        $browser = $this->workbench();
        self::resolve($browser, 1);
        $browser->size(900, 500);
        $browser->js('shelfBench.server.ask("POST", "/rungs", { keys: "L2,L5", rung: 2 })');
        $browser->waitForText('#message', 'Ghost')->settled();
        [$wrong, $found] = (array) $browser->js(self::SCREEN_TWIN);
        self::assertGreaterThan(300, $found['glass']);
        self::assertGreaterThan(300, $found['ghosts']);
        self::assertSame(array_fill_keys(array_keys($wrong), 0), $wrong);
        self::assertCount(8, $wrong);
    }

    public function test_in_fewer_pixels_the_canvas_shows_the_same_at_the_same_place(): void
    {
        $browser = $this->workbench();
        $numbers = <<<'JS'
            const { canvas } = shelfBench, found = [];
            for (let y = 4; y < canvas.element.clientHeight; y += 9)
                for (let x = 4; x < canvas.element.clientWidth; x += 9) found.push(canvas.numberAt(x, y));
            return [canvas.surface.width, found, [...canvas.seen().values()].reduce((sum, pixels) => sum + pixels, 0)];
        JS;
        $browser->js('return shelfBench.pick({ keys: "L2", mode: "replace" })');
        $browser->waitFor('#row-L2.picked');
        $looked = [];
        foreach ([0.5, 1] as $resolution) {
            self::resolve($browser, $resolution);
            $looked[] = (array) $browser->js($numbers);
        }
        [[$fewer, $half, $seenInFew], [$all, $whole, $seen]] = $looked;
        self::assertEqualsWithDelta($all / 2, $fewer, 1);
        self::assertGreaterThan(100, count(array_unique((array) $whole)), 'little is to be seen');
        $same = count(array_intersect_assoc((array) $whole, (array) $half));
        self::assertGreaterThan(0.8 * count((array) $whole), $same);
        // In how many pixels of the page the pick shows.
        self::assertGreaterThan(1000, $seen);
        self::assertEqualsWithDelta($seen, $seenInFew, 0.15 * $seen);
    }

    /** The canvas draws so many pixels for each of the page, in each direction. */
    private static function resolve(Browser $browser, float $resolution): void
    {
        $browser->js('const { canvas } = shelfBench; canvas.painter.resolution = arguments[0]; canvas.resize()', $resolution);
        $browser->settled();
    }

    public function test_coarser_versions_come_while_the_page_is_open_and_what_is_coarser_is_said_tinted_and_made_so_on_purpose(): void
    {
        $browser = $this->workbench();
        $browser->size(1000, 640);
        $browser->settled();
        $browser->js(self::KEEPS_A_PICTURE);
        $levels = 'return Math.max(...shelfBench.canvas.placements.facts.map(({ levels }) => levels.length))';
        self::assertSame(1, $browser->js($levels), 'only the meshes themselves, until the queue has come to it');
        $drawn = static fn (): mixed => $browser->js('return shelfBench.canvas.painter.summary.drawn');
        $before = $drawn();
        // Made with the same compiler as in the queue.
        $settings = array_map(
            static fn (string $name): string => '-d '.escapeshellarg("$name=".ini_get($name)),
            ['opcache.enable_cli', 'opcache.jit', 'opcache.jit_buffer_size', 'opcache.jit_hot_loop'],
        );
        exec(
            implode(' ', [
                escapeshellarg(PHP_BINARY),
                ...$settings,
                escapeshellarg(__DIR__.'/../../artisan'),
                'shelf:work --once --queue=later',
            ]),
            $said,
            $code,
        );
        self::assertSame(0, $code, implode("\n", $said));
        $browser->waitUntil("$levels > 2", 'the page does not hear of coarser versions')->settled();
        self::assertLessThan($before, $drawn(), 'what cannot be told from the mesh is drawn instead of it');
        $apart = $browser->js('return keptApart()');
        self::assertGreaterThanOrEqual(0, $apart, 'the canvas has another size');
        self::assertLessThan(1.5, $apart, 'of 255 a channel');
        self::assertSame(0, $browser->js('return shelfBench.canvas.painter.summary.coarser'));
        self::assertFalse($browser->js('return document.getElementById("coarser").offsetWidth > 0'));

        // A machine that may draw little: it is said how much is coarser, and which.
        $browser->js('const { canvas } = shelfBench; canvas.painter.budget.triangles = 6000; canvas.stale = true');
        $browser->waitForText('#coarser', 'coarser, to keep the budget')->settled();
        self::assertLessThan(6500, $drawn());
        $picture = 'shelfBench.canvas.painter.show(0); return shelfBench.canvas.picture()';
        $plain = $browser->js($picture);
        $browser->click('#coarser')->waitUntil('return shelfBench.meter.tinted !== ""', 'nothing is tinted')->settled();
        $tinted = $browser->js($picture);
        self::assertNotSame($plain, $tinted);
        $browser->click('#coarser')->settled();
        self::assertNotSame($tinted, $browser->js($picture), 'the tint ends');

        // Near by it is fine again: what fills the canvas is the mesh itself.
        $browser->js('const { canvas } = shelfBench; canvas.painter.budget.triangles = 90000; canvas.stale = true');
        $browser->settled()->js('shelfBench.pick({ found: 1, words: "name=Tree#20", mode: "replace" })');
        $browser->waitForText('#card', 'Tree#20')->js('return shelfBench.looking.framePick()');
        $browser->settled();
        $level = 'const { placements, painter } = shelfBench.canvas; return painter.detail.level[placements.first[arguments[0]] - 1]';
        $tree = self::number($browser, 'Tree#20');
        self::assertSame(0, $browser->js($level, $tree));

        // Coarser on purpose: by keyboard, for everybody, and the page draws it at once; so does undo.
        $facts = 'const { placements } = shelfBench.canvas, facts = placements.facts[placements.mesh[placements.first[arguments[0]] - 1]];';
        [$mesh, $whole] = (array) $browser->js("$facts return [facts.number, facts.triangles]", $tree);
        $now = static fn (string $is): string => str_replace('arguments[0]', (string) $tree, $facts).
            " return facts.triangles $is $whole && ".
            'facts.levels[0].pieces !== null';
        // In one slice, however busy the machine is: which of two faces in one place is seen goes by slices.
        $browser->js(
            'for (const speed of ["speed", "veilSpeed"]) '.
                'Object.defineProperty(shelfBench.canvas.painter, speed, { get: () => 1e9, set() {} }); shelfBench.canvas.stale = true',
        );
        $browser->settled()->js('keptApart()');
        $browser->js('shelfBench.weight.asked = { ...shelfBench.weight.asked, show: "fine", per: "area", least: "0" }');
        $browser->js('shelfBench.command("weight")');
        $button = "[data-mesh-do=coarser][data-meshes=\"$mesh\"]";
        $browser->waitFor($button)->js("document.querySelector('$button').focus()");
        $browser->press('Enter')->waitForText('#message', 'Put a coarser version in place of');
        $browser->waitUntil($now('<'), 'the page draws the finer one');
        $browser->waitForText('.weight-list', 'coarser on purpose, was '.number_format((int) $whole));
        $browser->js('shelfBench.weight.close(); shelfBench.server.ask("POST", "/undo", {})');
        $browser->waitForText('#message', 'Undone: Put a coarser version')->waitUntil($now('==='), 'the page draws the coarser one');
        $browser->settled();
        self::assertSame(0, $browser->js('return keptApart()'), 'as it was, to the pixel');
        self::assertSame([], $browser->complaints());
    }

    public function test_a_browser_that_cannot_draw_or_can_no_longer_says_so_in_words(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->js('shelfBench.canvas.settings.records += "/nowhere"; shelfBench.canvas.show(new Uint32Array([1]))');
        $browser->waitForText('#message .warns', 'This is not here any more');
        $browser->complaints();
        $browser->js('const { canvas } = shelfBench; canvas.constructor.prototype.open.call(canvas)');
        $browser->js('shelfBench.canvas.surface.getContext("webgl2").getExtension("WEBGL_lose_context").loseContext()');
        $browser->waitForText('.unable[role="alert"]', 'Nothing is lost: load the page anew');
        $browser->press('Enter')->waitUntil('return window.shelfBench !== undefined && !document.querySelector(".unable")', 'no new page');

        $without = $browser->tools->execute('Page.addScriptToEvaluateOnNewDocument', [
            'source' => 'HTMLCanvasElement.prototype.getContext = () => null',
        ]);
        $browser->js('location.reload()');
        $browser->waitForText('.unable[role="alert"]', 'WebGL 2 is off or missing');
        self::assertTrue($browser->js('return document.querySelector(".ledger").inert && !document.querySelector("#canvas").inert'));
        self::assertCount(1, $browser->complaints(), 'the library says it, and nothing fails on top of it');
        $browser->tools->execute('Page.removeScriptToEvaluateOnNewDocument', $without);
    }

    /**
     * @param array<string, array{list<array{int, int}>, list<int>, list<int>, int}> $panes coordinates of the corners, where the
     *     picture's right and its top are, and the part's scale along x
     */
    private static function panes(array $panes): string
    {
        $corners = pack('g*', -1, -1, 0, 1, -1, 0, 1, 1, 0, -1, 1, 0);
        $bytes = $corners.pack('v*', 0, 1, 2, 0, 2, 3);
        $views = [[0, 48], [48, 12]];
        $accessors = [
            ['bufferView' => 0, 'componentType' => 5126, 'count' => 4, 'type' => 'VEC3', 'min' => [-1, -1, 0], 'max' => [1, 1, 0]],
            ['bufferView' => 1, 'componentType' => 5123, 'count' => 6, 'type' => 'SCALAR'],
        ];
        $accessor = static function (string $type, array $floats) use (&$bytes, &$views, &$accessors): int {
            $views[] = [strlen($bytes), count($floats) * 4];
            $bytes .= pack('g*', ...$floats);
            $accessors[] = ['bufferView' => count($views) - 1, 'componentType' => 5126, 'count' => 4, 'type' => $type];

            return count($accessors) - 1;
        };
        $straight = $accessor('VEC3', [0, 0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1]);
        $meshes = $nodes = [];
        $stand = static function (string $name, array $attributes, int $material, array $at, int $scale) use (&$meshes, &$nodes): void {
            $meshes[] = ['primitives' => [['attributes' => ['POSITION' => 0] + $attributes, 'indices' => 1, 'material' => $material]]];
            $nodes[] = ['name' => $name, 'mesh' => count($meshes) - 1, 'translation' => $at, 'scale' => [$scale, 1, 1]];
        };
        foreach (array_keys($panes) as $index => $name) {
            [$uvs, $right, $top, $scale] = $panes[$name];
            $normal = [0.0, 0.0, self::TILT[2]];
            foreach ($normal as $axis => $out) {
                $normal[$axis] = $out + $right[$axis] * self::TILT[0] + $top[$axis] * self::TILT[1];
            }
            $mapped = ['NORMAL' => $straight, 'TEXCOORD_0' => $accessor('VEC2', array_merge(...$uvs))];
            $stand("$name, by a map", $mapped, 0, [$index * 3, 3, 0], $scale);
            $stand(
                "$name, by its vertices",
                ['NORMAL' => $accessor('VEC3', [...$normal, ...$normal, ...$normal, ...$normal])],
                1,
                [$index * 3, 0, 0],
                $scale,
            );
        }
        $stand('flat', ['NORMAL' => $straight], 1, [4.5, 6, 0], 1);
        $shade = ['pbrMetallicRoughness' => ['baseColorFactor' => [0.4, 0.35, 0.3, 1]]];

        return Gltf::file(
            [
                'asset' => ['version' => '2.0'],
                'scenes' => [['nodes' => array_keys($nodes)]],
                'nodes' => $nodes,
                'meshes' => $meshes,
                'accessors' => $accessors,
                'bufferViews' => array_map(
                    static fn (array $view): array => [
                        'buffer' => 0,
                        'byteOffset' => $view[0],
                        'byteLength' => $view[1],
                    ],
                    $views,
                ),
                'buffers' => [['byteLength' => strlen($bytes), 'uri' => Gltf::embedded($bytes)]],
                'materials' => [$shade + ['normalTexture' => ['index' => 0]], $shade],
                'textures' => [['source' => 0]],
                'images' => [['uri' => 'data:image/png;base64,'.base64_encode(self::picture())]],
            ],
            '.gltf',
        );
    }

    /** A PNG of one colour: the tilt, in glTF's way. */
    private static function picture(): string
    {
        $pixel = pack('C*', ...array_map(static fn (float $n): int => (int) round(($n + 1) * 127.5), self::TILT));
        $chunk = static fn (string $kind, string $data): string => pack('N', strlen($data)).
            $kind.
            $data.
            pack('N', crc32($kind.$data));

        return "\x89PNG\r\n\x1a\n".
            $chunk('IHDR', pack('NNCCCCC', 4, 4, 8, 2, 0, 0, 0)).
            $chunk('IDAT', (string) gzcompress(str_repeat("\0".str_repeat($pixel, 4), 4))).
            $chunk('IEND', '');
    }
}

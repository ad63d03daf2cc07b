<?php

declare(strict_types=1);

namespace Tests\Browser;

use Tests\Browser\Support\Browser;

/** Views walked through as a presentation. */
final class PresentingTest extends BrowserTestCase
{
    public function test_a_presentation_is_stepped_through_by_key_and_by_button_at_any_width(): void
    {
        $browser = $this->workbench(drawn: false);
        $camera = '{"eye":[-30,-40,25],"target":[20,12,2],"fov":40,"aspect":1.6}';
        $keep = static function (string $values) use ($browser): void {
            $browser->js("return shelfBench.server.ask('POST', '/views', $values)");
        };
        $keep("{ name: 'From the gate', keep_rungs: 1, keep_camera: 1, camera: '$camera' }");
        $browser->js('return shelfBench.server.ask("POST", "/rungs", { keys: "L5,L6", rung: 0 })');
        $keep('{ name: "Without the roof", note: "The roof is lifted off.", keep_rungs: 1 }');
        $browser->waitFor('#shelf-V2')->size(900, 480);
        $browser->press('Alt+p')->waitFor('#present');
        $this->assertStep($browser, 2, 'Without the roof');
        self::assertSame('The roof is lifted off.', $browser->js('return document.getElementById("present-note").textContent'));
        $this->whole($browser);
        $lifted = $browser->js('return shelfPresenting.canvas.states.filter((state) => state > 0).length');
        $browser->press('ArrowLeft');
        $this->assertStep($browser, 1, 'From the gate');
        $this->whole($browser);
        self::assertGreaterThan($lifted, $browser->js('return shelfPresenting.canvas.states.filter((state) => state > 0).length'));
        self::assertNoFindings($browser, 'presentation');
        $browser->size(360, 640);
        $browser->click('#present-next');
        $this->assertStep($browser, 2, 'Without the roof');
        self::assertSame(true, $browser->js('return document.documentElement.scrollWidth <= innerWidth'), 'nothing sticks out');
        $browser->press('Home');
        $this->assertStep($browser, 1, 'From the gate');
        $browser->press('Escape')->waitFor('#shelf-V2');
        self::assertSame([], $browser->complaints());
    }

    public function test_a_guest_steps_through_what_a_link_shows_says_something_of_a_place_and_is_shut_out_once_it_is_revoked(): void
    {
        $browser = $this->workbench(drawn: false);
        $camera = '{"eye":[-30,-40,25],"target":[20,12,2],"fov":40,"aspect":1.6}';
        $browser->js("return shelfBench.server.ask('POST', '/views', { name: 'From the gate', keep_camera: 1, camera: '$camera' })");
        $browser->js('return shelfBench.server.ask("POST", "/rungs", { keys: "L5,L6", rung: 0 })');
        $browser->js('return shelfBench.server.ask("POST", "/views", { name: "Without the roof", note: "It is lifted.", keep_rungs: 1 })');
        $browser->js('return shelfBench.server.ask("POST", "/rungs", { keys: "L5,L6", rung: 5 })');
        $browser->waitFor('#shelf-V2')->press('Alt+l')->waitFor('#share-name');
        self::assertNoFindings($browser, 'share');
        $browser->click('[name=may_pick]')->press('Enter')->waitFor('#made-link');
        $browser->waitUntil('return document.activeElement.id === "made-link"', 'the address is not ready to be copied');
        $browser->click('[data-may-comment]')->waitForText('#message', 'may comment');
        self::assertNoFindings($browser, 'links');
        $address = (string) parse_url((string) $browser->js('return document.querySelector("#made-link").value'), PHP_URL_PATH);
        $guest = $this->browser();
        $guest->size(900, 480);
        $guest->visit($address)->waitFor('#present');
        $this->assertStep($guest, 1, 'From the gate');
        $guest->press('ArrowRight');
        $this->assertStep($guest, 2, 'Without the roof');
        $this->whole($guest);
        self::assertNoFindings($guest, 'what a guest sees');
        // At the width of a telephone: what is touched says its name, and something is said of it.
        $guest->size(360, 640);
        $guest->click('#present-before');
        $this->assertStep($guest, 1, 'From the gate');
        $this->whole($guest);
        self::assertSame(true, $guest->js('return document.documentElement.scrollWidth <= innerWidth'), 'nothing sticks out');
        $guest->click('#present-comment')->type('#say-by', 'Rosa Lind')->type('#say-words', 'Could this be green?');
        [$x, $y, $number] = (array) $guest->js(
            'const { canvas } = shelfPresenting; for (let y = 60; y < 300; y += 9) for (let x = 40; x < 320; x += 9) { '.
                'const number = canvas.numberAt(x, y); if (number > 0 && document.elementFromPoint(x, y) === canvas.surface) '.
                'return [x, y, number]; }',
        );
        $guest->clickAt((float) $x, (float) $y);
        $guest->waitForText('#say-where', 'For the place that is marked');
        $mark = $guest->js('const { left, top } = document.getElementById("say-mark").getBoundingClientRect(); return [left, top]');
        self::assertEqualsWithDelta([$x, $y], $mark, 1.0, 'the mark is not where the click was');
        $name = $browser->js('return shelfBench.server.json(`/objects/${arguments[0]}`).then((said) => said?.name ?? "")', $number);
        $guest->waitUntil('return document.getElementById("present-picked").textContent !== ""', 'no name is said');
        self::assertSame($name === '' ? 'unnamed' : $name, $guest->text('#present-picked'));
        $guest->press('Tab')->find('#present-say .primary')->click();
        $guest->waitForText('#present-picked', 'Thank you');
        // Whoever made the link finds it on the shelf, and goes to where it was said.
        $browser->visit((string) parse_url($browser->driver->getCurrentURL(), PHP_URL_PATH));
        $browser->waitFor('#shelf-V1 .commented')->waitUntil('return !window.shelfBench?.canvas.loading', 'objects do not come');
        self::stopDrawing($browser);
        $browser->js('shelfBench.command("comments", document.querySelector("#shelf-V1"))');
        $browser->waitForText('#dialog', 'Could this be green?');
        self::assertNoFindings($browser, 'what guests said');
        $place = json_decode((string) $browser->find('[data-said-at]')->getAttribute('data-said-at'));
        $bounds = $browser->js('return shelfBench.server.json(`/find/frame?object=${arguments[0]}`).then(({ box }) => box)', $number);
        foreach ([0, 1, 2] as $axis) {
            self::assertGreaterThan($bounds[$axis] - 0.01, $place[$axis], 'before what was clicked');
            self::assertLessThan($bounds[$axis + 3] + 0.01, $place[$axis], 'beyond what was clicked');
        }
        $browser->click('[data-said-at]')->waitForText('#comment-mark .words', 'Could this be green?');
        $browser->waitUntil('return shelfBench.canvas.viewpoint.goal === null', 'the camera is still on its way');
        $at = $browser->js(
            'const box = document.getElementById("comment-mark").getBoundingClientRect(), { canvas } = shelfBench; '.
                'const { left, top } = canvas.surface.getBoundingClientRect(), { camera } = canvas.viewpoint; '.
                'const spot = camera.position.clone().fromArray(arguments[0]).project(camera); '.
                'return [box.left - left - ((spot.x + 1) / 2) * canvas.surface.clientWidth, '.
                'box.top - top - ((1 - spot.y) / 2) * canvas.surface.clientHeight]',
            $place,
        );
        self::assertIsArray($at);
        self::assertLessThan(1.5, max(array_map(abs(...), $at)), 'the mark is elsewhere');
        $browser->press('Escape')->waitUntil('return document.getElementById("comment-mark").hidden', 'the mark stays');
        $browser->press('Alt+l')->waitFor('[data-revoke]')->click('[data-revoke]')->waitForText('#message', 'leads nowhere');
        $guest->visit($address)->waitForText('main', 'Nothing is shown here');
        self::assertNoFindings($guest, 'a link that has ended');
        $browser->click('[data-revoke][data-back]')->waitForText('#message', 'leads to its views again');
        $guest->visit($address)->waitFor('#present');
        self::assertSame([], $browser->complaints());
    }

    public function test_pictures_are_drawn_in_tiles_that_make_what_the_canvas_shows_clear_where_nothing_is_and_saved_together(): void
    {
        $browser = $this->workbench(drawn: false);
        $keep = static function (string $values) use ($browser): void {
            $browser->js("return shelfBench.server.ask('POST', '/views', $values)");
        };
        $camera = '{"eye":[-30,-40,25],"target":[20,12,2],"fov":40,"aspect":1.6}';
        $keep("{ name: 'Gate', keep_rungs: 1, keep_camera: 1, camera: '$camera' }");
        $browser->js('return shelfBench.server.ask("POST", "/rungs", { keys: "L5,L6", rung: 2 })');
        $keep(
            "{ name: 'Gate', keep_rungs: 1, keep_camera: 1, camera: '".
                '{"eye":[-20,-60,25],"target":[20,12,2],"fov":40,"tall":40,"aspect":0.8}'.
                "' }",
        );
        $keep('{ name: "From here", keep_rungs: 1 }');
        $browser->waitFor('#shelf-V3')->press('Alt+i')->waitFor('#pictures');
        $browser->size(640, 480);
        $this->still($browser);
        self::assertNoFindings($browser, 'pictures');
        $browser->type('#pictures-longer', '63')->press('Enter')->waitForText('#pictures-error', 'from 64 to 4096');
        self::assertSame('pictures-longer', $browser->js('return document.activeElement.id'));
        // In one tile it is what the canvas shows, pixel by pixel; in many it is the same; without a ground it is the same before one.
        $apart = $browser->driver->executeAsyncScript(
            <<<'JS'
            const done = arguments[arguments.length - 1];
            (async () => {
                const page = shelfPictures, { canvas, tiles } = page, { signal } = new AbortController();
                const [width, height] = [canvas.surface.width, canvas.surface.height];
                const bytes = (picture) => {
                    const board = Object.assign(document.createElement('canvas'), { width: picture.width, height: picture.height });
                    const pen = board.getContext('2d', { willReadFrequently: true });
                    pen.drawImage(picture, 0, 0);
                    return pen.getImageData(0, 0, picture.width, picture.height).data;
                };
                const { backdrop } = canvas.painter.look;
                const said = [];
                for (const view of [1, 2]) {
                    await page.look(view, true);
                    while (canvas.stale || canvas.painter.pass || !canvas.painter.summary.done || canvas.packs.missing > 0)
                        await new Promise((resolve) => setTimeout(resolve, 50));
                    canvas.painter.show(0);
                    const seen = bytes(canvas.surface);
                    const sight = canvas.viewpoint.get();
                    const mean = (a, b) => a.reduce((sum, value, at) => sum + Math.abs(value - b[at]), 0) / a.length;
                    tiles.side = 4096;
                    const whole = bytes(await tiles.draw(sight, width, height, false, signal));
                    tiles.side = 300;
                    const parts = bytes(await tiles.draw(sight, width, height, false, signal));
                    const clear = bytes(await tiles.draw(sight, width, height, true, signal));
                    let [none, some, off] = [0, 0, 0];
                    for (let at = 0; at < clear.length; at += 4) {
                        const alpha = clear[at + 3] / 255;
                        if (alpha === 0) none++;
                        if (alpha > 0 && alpha < 1) some++;
                        const band = Math.floor((height - 1 - Math.floor(at / 4 / width)) / height * 64);
                        const ground = ['r', 'g', 'b'].map((name) => backdrop[band][name] * 255);
                        for (let channel = 0; channel < 3; channel++)
                            off += Math.abs(clear[at + channel] * alpha + ground[channel] * (1 - alpha) - seen[at + channel]);
                    }
                    said.push([mean(seen, whole), mean(seen, parts), off / clear.length, none > 1000, some]);
                }
                return said;
            })().then(done, (error) => done(String(error)));
            JS
            ,
            [],
        );
        self::assertIsArray($apart, is_string($apart) ? $apart : '');
        foreach ($apart as [$whole, $parts, $clear, $hasNone, $some]) {
            self::assertLessThan(0.1, $whole, 'of 255 a channel, in one tile');
            self::assertLessThan(0.3, $parts, 'of 255 a channel, in many');
            self::assertLessThan(1.0, $clear, 'of 255 a channel, before the ground that it had');
            self::assertTrue($hasNone);
            self::assertGreaterThan(100, $some, 'glass and ghosts let the ground through');
        }
        // Three at once, two of them of one name, each in its own shape.
        $browser->js(
            'const make = URL.createObjectURL; URL.createObjectURL = (file) => { window.saved = file; return make.call(URL, file); }; '.
                'HTMLAnchorElement.prototype.click = function () { window.savedAs = this.download; };',
        );
        // The canvas stands where it was turned to while a view without a camera was looked at.
        $browser->click('.pictures-look[data-view="3"]')->waitUntil('return shelfPictures.said.view === 3', 'the view is not shown');
        $browser->js(
            'shelfPictures.canvas.viewpoint.set({ eye: [1, -50, 30], target: [10, 5, 2], fov: 40 }, true); window.sights = []; '.
                'const { tiles } = shelfPictures, draw = tiles.draw; tiles.draw = function (sight, ...rest) { sights.push(sight.eye); '.
                'return draw.call(this, sight, ...rest); };',
        );
        $browser->click('[name=of][value=output]')->type('#pictures-longer', '200')->press('Enter');
        $browser->waitForText('#pictures-done', '3 pictures saved in', 60);
        self::assertEqualsWithDelta([[-30, -40, 25], [-20, -60, 25], [1, -50, 30]], $browser->js('return window.sights'), 0.01);
        $bytes = $browser->driver->executeAsyncScript(
            'const done = arguments[arguments.length - 1]; window.saved.arrayBuffer().then((buffer) => '.
                'done(btoa(String.fromCharCode(...new Uint8Array(buffer)))))',
            [],
        );
        $zip = (string) tempnam(sys_get_temp_dir(), 'shelf-zip');
        file_put_contents($zip, (string) base64_decode((string) $bytes, true));
        $archive = new \ZipArchive;
        self::assertTrue($archive->open($zip));
        $sizes = [];
        for ($at = 0; $at < $archive->numFiles; $at++) {
            $picture = (string) $archive->getFromIndex($at);
            self::assertSame("\x89PNG", substr($picture, 0, 4));
            $sizes[(string) $archive->getNameIndex($at)] = array_values((array) unpack('N2', $picture, 16));
        }
        unlink($zip);
        self::assertSame(['Gate.png', 'Gate (2).png', 'From here.png'], array_keys($sizes));
        self::assertSame([[200, 125], [160, 200]], [$sizes['Gate.png'], $sizes['Gate (2).png']]);
        self::assertSame('Marlpit Baths pictures.zip', preg_replace('~ \d+~', '', (string) $browser->js('return window.savedAs')));
        self::assertSame([], $browser->complaints());
        // What does not come is said, and the picture is made with what there is.
        $browser->tools->execute('Network.enable');
        $browser->tools->execute('Network.setBlockedURLs', ['urls' => ['*/packs/*']]);
        $browser->js('location.reload()');
        $browser->waitUntil('return window.saved === undefined && window.shelfPictures !== undefined', 'no new page');
        $browser->waitUntil('return !shelfPictures.canvas.loading', 'the objects do not come');
        $browser->click('#pictures-all')->click('[name=views]')->type('#pictures-longer', '100')->press('Enter');
        $browser->waitForText('#pictures-done', 'Parts are coarser or boxes, because they could not be fetched.', 60);
        $browser->tools->execute('Network.setBlockedURLs', ['urls' => []]);
        $browser->complaints();
    }

    private function still(Browser $browser): void
    {
        $browser->waitUntil(
            'const { canvas } = window.shelfPictures ?? {}; return !!canvas && !canvas.loading && !canvas.untextured && !canvas.stale && '.
                '!canvas.painter.pass && canvas.painter.summary.done && canvas.packs.missing === 0 && shelfPictures.isReady',
            'the picture is not whole',
        );
    }

    private function assertStep(Browser $browser, int $step, string $name): void
    {
        $browser->waitUntil(
            "return window.shelfPresenting?.shown === $step - 1 && document.getElementById('present-name').textContent === '$name'",
            "step $step is not shown",
        );
    }

    private function whole(Browser $browser): void
    {
        $browser->waitUntil(
            'const { canvas } = shelfPresenting; return canvas.viewpoint.goal === null && !canvas.loading && canvas.packs.missing === 0 '.
                '&& performance.now() > canvas.movingUntil && canvas.painter.hasPicture && !canvas.stale && !canvas.painter.pass',
            'the picture is not whole',
        );
    }
}

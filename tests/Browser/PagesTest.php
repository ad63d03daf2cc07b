<?php

declare(strict_types=1);

namespace Tests\Browser;

use Tests\Browser\Support\Browser;

final class PagesTest extends BrowserTestCase
{
    /** The address of the report of the first source. */
    private const REPORT = 'return JSON.parse(document.querySelector("#sources").dataset.sources)[0].report';

    public function test_axe_finds_nothing_on_any_screen_in_both_themes(): void
    {
        $browser = $this->browser()->visit('/sign-in');
        self::assertNoFindings($browser, 'sign-in');
        $browser = $this->workbench(drawn: false);
        $browser->js(
            'shelfBench.setRung(["L5"], 2); shelfBench.setRung(["L6"], 0); shelfBench.setLock(["L10"], 2); shelfBench.pick({ keys: "L16", '.
                'mode: "replace" })',
        );
        $browser->waitForText('#card', '240 parts');
        $browser->js('shelfBench.ledger.fold("L16", true)');
        self::assertNoFindings($browser, 'workbench');
        $browser->press('v')->waitFor('#view-name');
        self::assertNoFindings($browser, 'keep a view');
        $browser->click('#dialog .primary')->waitFor('.view.current');
        self::assertNoFindings($browser, 'workbench with a view');
        self::assertDialogsHaveNoFindings($browser, [
            '/ledger/columns' => 'columns',
            '/pick/reach' => 'reach',
            '/rename' => 'rename many',
            '/file' => 'file under',
            '/layers/16/delete' => 'delete a layer',
            '/views/1/update' => 'update a view',
            '/views/facets?keys=V1' => 'what views keep',
            '/views/review' => 'review newcomers',
            '/why/100' => 'why',
            '/exports/ask' => 'export parts',
        ]);
        $browser->press('Alt+v')->waitFor('.view-head')->click('[data-view-head=V1] .head-button')->waitForText('#grid-bar', '1 column');
        self::assertNoFindings($browser, 'grid');
        $browser->press('Alt+s')->waitFor('.shelf-find.finding input');
        self::assertNoFindings($browser, 'finding a view');
        $browser->press('Escape')->press('Alt+c')->waitFor('#compare-first');
        self::assertNoFindings($browser, 'compare');
        $browser->js('shelfBench.dialogs.close()');
        $browser->press('Alt+v')->waitUntil('return !document.querySelector(".view-head")', 'the grid stays');
        $browser->js('shelfBench.command("keys")');
        self::assertNoFindings($browser, 'keys');
        $browser->js(
            'shelfBench.dialogs.close(); shelfBench.openRowMenu(document.querySelector("#row-L16"), document.querySelector("#row-L16 '.
                '.more-button"))',
        );
        self::assertNoFindings($browser, 'row menu');
        $browser->js('document.querySelector("#row-menu").hidePopover(); shelfBench.command("commands")');
        $browser->waitFor('#command-list [role=option]');
        self::assertNoFindings($browser, 'command box');
        $browser->js('shelfBench.dialogs.close(); shelfBench.menus.openKinds(document.querySelector("#kinds"))');
        $browser->waitForText('#row-menu', 'all but');
        self::assertNoFindings($browser, 'filter by kind');
        $browser->js(
            'document.querySelector("#row-menu").hidePopover(); shelfBench.command("tint-material"); shelfBench.command("isolate"); '.
                'shelfBench.ledger.arrange({ columns: JSON.stringify([["triangles", 84], ["height", 70], ["p:fire rating", 96], ["desk", '.
                '46]]), sort: "height", down: 1 })',
        );
        $browser->waitFor('.legend-entry')->waitForText('#isolated', 'isolated');
        $browser->click('#lens-objects')->waitFor('.row .cell');
        $browser->find('#words')->sendKeys('kind:part layer:sea');
        $browser->waitForText('#offers', '51 Seats');
        self::assertNoFindings($browser, 'objects, offers, legend, isolation');
        $browser->js('shelfBench.command("weight")');
        $browser->waitFor('.weight-part');
        self::assertNoFindings($browser, 'map of weights');
        $browser->click('[data-value=repeats]')->waitForText('.weight-list', 'FilterVessel');
        self::assertNoFindings($browser, 'meshes that are stored several times');
        $browser->js('shelfBench.weight.go({ show: "fine", least: "0", per: "area" })');
        $browser->waitForText('.weight-list', 'Off by');
        self::assertNoFindings($browser, 'meshes that are too fine');
        $browser->js('shelfBench.weight.lighten()');
        $browser->waitFor('#lighten-triangles')->type('#lighten-triangles', '30000');
        $browser->js('document.querySelector("#lighten-side").value = "output"');
        $browser->click('[data-lighten-ask] .primary')->waitForText('.lighten-says', 'Loses');
        self::assertNoFindings($browser, 'what is proposed to be lightened');
        $browser->js('shelfBench.weight.close()');
        $browser->type('#words', 'kind:chair')->waitFor('#rule-says .error');
        self::assertNoFindings($browser, 'a rule that is wrong');
        $browser->type('#words', 'lifering or layer:Attic')->waitFor('#rule-says .remark');
        self::assertNoFindings($browser, 'a rule that names what is not there');
        $this->assertTagsAndSetsHaveNoFindings($browser);
        $report = $browser->js(self::REPORT);
        $browser->visit((string) parse_url(is_string($report) ? $report : '', PHP_URL_PATH))->waitFor('.report');
        self::assertNoFindings($browser, 'report');
        $browser->visit('/projects')->waitFor('.project');
        self::assertNoFindings($browser, 'projects');
        $browser->visit('/nowhere');
        self::assertNoFindings($browser, 'nothing here');
    }

    /** Tags in a folder, a live set, pins, a view in a folder, the widened ledger, the pick's details, and what each of them asks. */
    private function assertTagsAndSetsHaveNoFindings(Browser $browser): void
    {
        $browser->js('shelfBench.finder.search(""); shelfBench.ledger.arrange({ columns: "[]", sort: "" })');
        $ask = static function (string $path, string $values, string $says) use ($browser): void {
            $browser->js("shelfBench.server.ask('POST', '$path', $values)");
            $browser->waitForText('#message', $says);
        };
        $ask('/tags', '{ name: "Client may change", from_pick: 1 }', 'Create tag Client');
        $ask('/tags', '{ name: "Scheme B" }', 'Create tag Scheme B');
        $ask('/folders', '{ holds: "tags", name: "Schemes", around: "T1,T2" }', 'around 2 rows');
        $browser->js('shelfBench.server.ask("PATCH", "/rows/F1", { one_at_a_time: 1 })');
        $browser->waitForText('#message', 'one at a time');
        $ask('/sets', '{ of: "rule", rule: "tag:client or set:Gone", name: "For the client" }', 'Keep live set');
        $ask('/sets', '{ of: "nothing", name: "By hand" }', 'Keep set By hand');
        $ask('/pins', '{ what: "T2", on: 1 }', 'Pinned');
        $ask('/pins', '{ what: "rule:kind:part", on: 1 }', 'Pinned');
        $ask('/folders', '{ holds: "views", name: "Client", around: "V1" }', 'Create folder Client');
        $ask('/rungs', '{ keys: "L1", rung: 0 }', 'Hidden');
        $browser->click('#lens-tags')->waitFor('#row-F1')->click('#row-F1 .fold')->waitFor('#row-T2 .choice');
        self::assertNoFindings($browser, 'tags in a folder, pins, pills, a folder on the shelf');
        $browser->click('#lens-sets')->waitFor('#row-E1');
        self::assertNoFindings($browser, 'sets');
        $browser->click('#lens-layers')->waitForText('#foot', 'will land unseen');
        $browser->js('shelfBench.ledger.arrange({ over: "T1,T2,E1" }); shelfBench.details.toggle()');
        $browser->waitFor('.member')->waitForText('#details', 'Layer');
        self::assertNoFindings($browser, 'the widened ledger, details');
        self::assertDialogsHaveNoFindings($browser, [
            '/memberships' => 'tags and sets as columns',
            '/tag' => 'tag the pick',
            '/sets/new' => 'keep a set',
            '/sets/1/join?keys=E2' => 'join sets',
            '/why?keys=T1' => 'why of a row',
            '/rows/T1/note' => 'note',
            '/layers/clear' => 'clear out',
            '/own?property=fire' => 'a property of their own',
        ]);
    }

    /** @param array<string, string> $dialogs what each is called, by its address below the workbench's */
    private static function assertDialogsHaveNoFindings(Browser $browser, array $dialogs): void
    {
        foreach ($dialogs as $path => $name) {
            $browser->js('shelfBench.openDialog(arguments[0])', $path);
            $browser->waitFor('#dialog[open] form');
            self::assertNoFindings($browser, $name);
            $browser->js('shelfBench.dialogs.close()');
        }
    }

    public function test_a_broken_file_says_what_is_wrong_and_the_page_goes_on(): void
    {
        $browser = $this->browser()->signIn($this->person(), self::PASSWORD);
        $broken = sys_get_temp_dir().'/broken '.getmypid().'.glb';
        file_put_contents($broken, substr((string) file_get_contents(self::demoFile()), 0, 700_000));
        $detector = new \Facebook\WebDriver\Remote\LocalFileDetector;
        $browser->find('#file')->setFileDetector($detector)->sendKeys($broken);
        $browser->waitForText('.import', 'The file ends too early', 30);
        $browser->visit('/projects')->waitForText('.import .error', 'The file ends too early');
        $browser->click('.import .button')->waitUntil('return document.querySelector(".import") === null', 'the message stays');
        rename($broken, $broken.'.txt');
        $browser
            ->find('#file')
            ->setFileDetector($detector)
            ->sendKeys($broken.'.txt');
        $browser->waitForText('#upload .error', 'is not a .glb, .gltf or .zip file');
        unlink($broken.'.txt');
        self::assertFalse($browser->has('.import'), 'nothing is being taken in');
    }

    public function test_several_files_are_dropped_together(): void
    {
        $browser = $this->browser()->signIn($this->person(), self::PASSWORD);
        $browser->js(
            <<<'JS'
                const bytes = new Uint8Array(new Float32Array([0, 0, 0, 1, 0, 0, 0, 2, 0]).buffer);
                const gltf = {
                    asset: { version: '2.0' },
                    nodes: [{ mesh: 0, name: 'Pane' }],
                    meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
                    accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3' }],
                    bufferViews: [{ buffer: 0, byteLength: 36 }], buffers: [{ byteLength: 36, uri: 'pane.bin' }],
                };
                const transfer = new DataTransfer();
                transfer.items.add(new File([bytes], 'pane.bin'));
                transfer.items.add(new File([JSON.stringify(gltf)], 'Kiosk.gltf'));
                document.body.dispatchEvent(new DragEvent('drop', { bubbles: true, cancelable: true, dataTransfer: transfer }));
            JS
            ,
        );
        $browser->waitForText('.report', '1 object', 60);
        self::assertStringContainsString('Kiosk', $browser->text('.crumb'));
    }

    public function test_pages_fit_small_windows_and_nothing_scrolls_at_1280_by_800(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        self::assertSame(
            [true, true],
            $browser->js('const d = document.documentElement; return [d.scrollWidth <= 1280, d.scrollHeight <= 800]'),
        );
        // What floats over the canvas stands apart, however narrow the canvas is.
        $browser->js('shelfBench.server.ask("POST", "/tags", { name: "Client may change" })');
        $browser->waitForText('#message', 'Create tag')->js('shelfBench.server.ask("POST", "/pins", { what: "T1", on: 1 })');
        $browser->waitForText('#message', 'Pinned')->js('shelfBench.command("tint-layer")');
        $browser->js('shelfBench.pick({ keys: "L16", mode: "replace" })');
        $browser->waitForText('#legend', '51 Seats')->waitForText('#card', '240 parts')->js('shelfBench.command("isolate")');
        $browser->waitFor('.isolated')->js('shelfBench.details.toggle()');
        $browser->waitForText('#details', 'Layer');
        foreach ([496, 700, 900] as $ledger) {
            self::assertStandsApart($browser, $ledger, 'the pick');
        }
        // Without a pick: the section, the ceiling, and what pictures show.
        $browser->js('shelfBench.command("isolate-back"); shelfBench.command("clear-pick"); shelfBench.command("ceiling-2")');
        $browser->waitFor('.isolated.ceiling')->js('shelfBench.section.toggle()');
        $browser->waitFor('#section-panel .section-sides:not([hidden])');
        foreach ([496, 700, 900] as $ledger) {
            self::assertStandsApart($browser, $ledger, 'section and ceiling');
        }
        $browser->js('shelfBench.command("show-output")');
        $browser->waitUntil(
            'return document.querySelector(".isolated")?.textContent.includes("Output") === true',
            'the output is not shown',
        );
        foreach ([496, 700, 900] as $ledger) {
            self::assertStandsApart($browser, $ledger, 'section and output');
        }
        // Beneath the map of weights the canvas is low.
        $browser->js('shelfBench.section.toggle(); shelfBench.command("weight")');
        $browser->waitFor('.weight-part');
        self::assertStandsApart($browser, 496, 'weight');
        $browser->js('shelfBench.weight.lighten()');
        $browser->waitFor('#lighten-triangles');
        self::assertStandsApart($browser, 496, 'lighten');
        self::assertStandsApart($browser, 860, 'lighten');
        $browser->size(360, 780);
        foreach (['/projects', (string) parse_url((string) $browser->js(self::REPORT), PHP_URL_PATH)] as $path) {
            $browser->visit($path);
            self::assertTrue($browser->js('return document.documentElement.scrollWidth <= 360'), "$path is wider than a small window");
        }
    }

    /** Nothing that floats over the canvas lies over anything else that does. */
    private static function assertStandsApart(Browser $browser, int $ledger, string $with): void
    {
        $browser->js('document.documentElement.style.setProperty("--ledger", `${arguments[0]}px`)', $ledger);
        $browser->waitUntil("return document.querySelector('#canvas').clientWidth < 1280 - $ledger", 'the canvas has another width');
        usleep(150_000);
        $together = $browser->js(
            <<<'JS'
                const names = ['.region-tools', '.tools', '.isolated', '.legend', '.card', '.parked', '.section-panel', '.below'];
                const floating = names.flatMap((name) => [...document.querySelectorAll(`#canvas ${name}`)].map((one) => [name, one]))
                    .map(([name, one]) => [name, one.getBoundingClientRect()])
                    .filter(([, { width, height }]) => width > 0 && height > 0);
                return floating.flatMap(([name, a], at) => floating.slice(at + 1).map(([other, b]) => [a, b, `${name} ${other}`]))
                    .filter(([a, b]) => a.left < b.right && b.left < a.right && a.top < b.bottom && b.top < a.bottom)
                    .map(([, , both]) => both);
            JS
            ,
        );
        self::assertSame([], $together, "beside a ledger of $ledger pixels, with $with");
    }

    public function test_the_web_server_itself_sends_no_code_and_takes_no_large_bodies(): void
    {
        foreach (['/index.php', '/index.php/projects', '/sign-in'] as $path) {
            [$status, $headers, $text] = self::asked($path);
            self::assertStringNotContainsString('<?php', $text, $path);
            self::assertStringContainsString('x-content-type-options: nosniff', $headers, "$path, $status");
        }
        [$status, $headers] = self::asked('/mark.svg');
        self::assertSame(200, $status);
        self::assertSame(1, substr_count($headers, 'x-content-type-options: nosniff'));
        self::assertSame(413, self::asked('/sign-in', ['-d', 'email='.str_repeat('x', 1_100_000)])[0]);
        self::assertSame(413, self::asked('/projects/abc/rungs', ['-d', 'keys='.str_repeat('x', 1_100_000)])[0]);
        self::assertSame(419, self::asked('/imports', ['-d', 'x='.str_repeat('x', 1_100_000)])[0]);
    }

    public function test_what_fails_is_said_in_words_on_the_page(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->js('shelfBench.server.ask("POST", "/nowhere")');
        $browser->waitForText('#message', 'This is not here any more');
        $browser->js('shelfBench.server.json("/objects/999999999")');
        $browser->waitForText('#message', 'This is not here any more');
        $browser->tools->execute('Network.enable');
        $browser->tools->execute('Network.emulateNetworkConditions', [
            'offline' => true,
            'latency' => 0,
            'downloadThroughput' => -1,
            'uploadThroughput' => -1,
        ]);
        $browser->js('shelfBench.setRung(["L5"], 2)');
        $browser->waitForText('#message', 'The server does not answer');
        $browser->tools->execute('Network.emulateNetworkConditions', [
            'offline' => false,
            'latency' => 0,
            'downloadThroughput' => -1,
            'uploadThroughput' => -1,
        ]);
        $browser->js('shelfBench.server.ask("POST", "/layers", { name: "Back again" })');
        $browser->waitForText('#rows', 'Back again');
        // Signed out in another window.
        $browser->js(
            'fetch("/sign-out", { method: "POST", headers: { "X-CSRF-TOKEN": document.querySelector("meta[name=csrf-token]").content } '.
                '}).then(() => (window.signedOut = true))',
        );
        $browser->waitUntil('return window.signedOut === true', 'nobody was signed out');
        $browser->js('shelfBench.ledger.arrange({ lens: "nesting" })');
        $browser->waitForText('#message', 'Load the page anew');
        self::assertGreaterThan(3, $browser->js('return document.querySelectorAll("#rows .row").length'), 'the rows stay');
    }

    /**
     * @param list<string> $how
     *
     * @return array{int, string, string} status, headers in small letters, text
     */
    private static function asked(string $path, array $how = []): array
    {
        $data = array_search('-d', $how, true);
        $file = (string) tempnam(sys_get_temp_dir(), 'shelf');
        if ($data !== false) {
            // The command line does not take that much.
            file_put_contents($file, $how[(int) $data + 1]);
            $how = ['--data-binary', "@$file"];
        }
        exec(
            'curl -s -i -H Expect: '.implode(' ', array_map(escapeshellarg(...), $how)).' '.escapeshellarg(getenv('APP_URL').$path),
            $lines,
        );
        unlink($file);
        $answer = implode("\n", $lines);
        [$headers, $text] = array_pad(explode("\n\n", str_replace("\r", '', $answer), 2), 2, '');

        return [(int) explode(' ', $answer)[1], strtolower($headers), $text];
    }
}

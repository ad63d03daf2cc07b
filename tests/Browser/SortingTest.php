<?php

declare(strict_types=1);

namespace Tests\Browser;

use Tests\Browser\Support\Browser;
use Tests\Core\Support\Gltf;

/** Layers, tags, folders, sets and views are sorted by mouse and by keyboard. */
final class SortingTest extends BrowserTestCase
{
    public function test_a_layer_tree_is_made_by_drags_and_taken_back(): void
    {
        $browser = $this->workbench(drawn: false);
        $this->dropped($browser, '#row-L3', '#row-L2', 0.5)->waitForText('#message', 'Move layer 11 Slabs into 10 Structure.');
        self::assertSame('Move it into 10 Structure', $browser->js('return window.dropWords'));
        $browser->waitFor('#row-L2[aria-expanded]');
        // Several at once, before a row; what a mark says is what happens.
        $browser->js('shelfBench.ledger.selected = new Set(["L5", "L6"])');
        $this->dropped($browser, '#row-L6', '#row-L4', 0.1)->waitForText('#message', 'Move 2 layers before 12 Steel.');
        self::assertSame('Move 2 rows before 12 Steel', $browser->js('return window.dropWords'));
        $browser->waitUntil(
            'return [...document.querySelectorAll(".row.is-layer")].map((row) => row.dataset.key).indexOf("L5") === 2',
            'not moved',
        );
        // A layer never goes into itself: there is no mark.
        $browser->click('#row-L2 .fold')->waitFor('#row-L3');
        $browser->js('window.dropWords = ""');
        $this->dropped($browser, '#row-L2', '#row-L2', 0.5);
        self::assertSame('', $browser->js('return window.dropWords ?? ""'));
        // By keyboard: one further down, and one step out.
        $browser->js('document.querySelector("#row-L3").focus()');
        $browser->press('Alt+Shift+ArrowLeft')->waitForText('#message', 'Move layer 11 Slabs after 10 Structure.');
        $browser->waitUntil('return document.querySelector("#row-L3")?.getAttribute("aria-level") === "1"', 'still nested');
        foreach (['Move layer 11 Slabs after', 'Move 2 layers before', 'Move layer 11 Slabs into'] as $change) {
            $browser->js('shelfBench.command("undo")');
            $browser->waitForText('#message', "Undone: $change");
        }
        self::assertSame([], $browser->complaints());
    }

    public function test_tags_on_the_card_three_clicks_to_a_live_set_and_forty_objects_in_three_tags(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        $browser->js('shelfBench.pick({ found: 1, words: "layer:Seats kind:part", mode: "replace" })');
        $browser->waitForText('#card', 'parts picked')->click('.tag-pill.add')->waitFor('#dialog[open] input');
        $browser->type('#dialog input[type=search]', 'Client may change');
        $browser->press('Enter')->waitForText('#message', 'Create tag Client may change')->waitFor('.tag-pill.is-all');
        // Half of it: the pill says some, and a click gives it to all.
        $browser->js('shelfBench.pick({ found: 1, words: "layer:Lockers kind:part", mode: "add" })');
        $browser->waitFor('.tag-pill.is-some')->click('.tag-pill.is-some')->waitFor('.tag-pill.is-all');
        $browser->click('.tag-pill.is-all')->waitForText('#message', 'Take Client may change off')->js('shelfBench.command("undo")');
        $browser->waitForText('#message', 'Undone')->waitFor('.tag-pill.is-all');

        // From rows: and this, and not this, keep. The line says the rule, and what was clicked can be typed on.
        $menu = static function (string $row, string $item) use ($browser): void {
            $browser->js(
                'shelfBench.openRowMenu(document.querySelector(arguments[0]), document.querySelector(arguments[0] + " .more-button"))',
                $row,
            );
            $browser->waitFor('#row-menu:popover-open');
            $browser->js(
                '[...document.querySelectorAll("#row-menu .item")].find((item) => item.firstChild.textContent === arguments[0]).click()',
                $item,
            );
        };
        $browser->click('#lens-tags')->waitFor('#row-T1');
        $menu('#row-T1', 'Narrow to this');
        $shown = 'document.querySelector("#rows .window").dataset';
        $browser->waitUntil("return $shown.rule === 'tag=\"Client may change\"'", 'the rule is not in the line');
        $hits = (int) $browser->js('return Number(document.querySelector("#rows .window").dataset.hits)');
        $browser->click('#lens-layers')->waitFor('.row.is-layer');
        $seats = (string) $browser->js('return document.querySelector(".row[data-name=\"51 Seats\"]").id');
        $menu("#$seats", 'Leave this out');
        $browser->waitForText('#message', 'not layer=');
        $browser->waitUntil("return Number(document.querySelector('#rows .window').dataset.hits) < $hits", 'the count stays');
        // A step back and on again.
        $browser
            ->click('#rule-back')
            ->waitUntil("return Number(document.querySelector('#rows .window').dataset.hits) === $hits", 'no step back');
        $menu("#$seats", 'Leave this out');
        $browser
            ->waitForText('#message', 'not layer=')
            ->click('[data-command="keep-set"][data-of="rule"]')
            ->waitFor('#dialog[open] [name=name]');
        $browser->type('#dialog [name=name]', 'Lockers to choose');
        $browser->press('Enter')->waitForText('#message', 'Keep live set Lockers to choose');
        $browser->js('shelfBench.finder.search("")');
        $browser->click('#lens-sets')->waitFor('#row-E1');
        $before = $browser->text('#row-E1 .count');
        $browser->js('shelfBench.pick({ found: 1, words: "layer:Basins kind:part", mode: "replace" })');
        $browser->waitForText('#card', 'parts picked')->js('shelfBench.server.ask("POST", "/tag", { tag: 1, mode: "add" })');
        $browser->waitUntil(
            "return (document.querySelector('#row-E1 .count')?.textContent ?? '$before') !== '$before'",
            'the set does not grow',
        );

        // The widened ledger: a cell, then a range by keyboard, all in one change.
        foreach (['Two', 'Three'] as $name) {
            $browser->js('shelfBench.server.ask("POST", "/tags", { name: arguments[0] })', $name);
            $browser->waitForText('#message', "Create tag $name.");
        }
        $browser
            ->click('#lens-objects')
            ->waitUntil('return document.querySelector("#rows .window").dataset.lens === "objects"', 'no objects');
        $browser->press('Shift+w')->waitFor('[data-all-wide]')->click('[data-all-wide]')->waitFor('.member');
        // While one of its own columns is made wider, those of the tags stay.
        $tracks = static fn (): mixed => $browser->js(
            'return getComputedStyle(document.querySelector("#ledger-grid")).getPropertyValue("--tracks").match(/px/g).length',
        );
        $before = $tracks();
        [$x, $y] = $browser->cornerOf('[data-grip=weigh]');
        $width = 'document.querySelector("#ledger-head [data-column=weigh]").dataset.width';
        $from = $browser->js("return $width");
        foreach ([['pressed', 0], ['moved', 6], ['moved', 12]] as [$what, $by]) {
            $browser->mouse($what, $x + 3 + $by, $y + 8);
        }
        $browser->waitUntil("return $width !== '$from'", 'the column is not wider');
        self::assertSame($before, $tracks());
        $browser->mouse('released', $x + 15, $y + 8);
        $browser->js('document.querySelector(".rows .row .member").focus()');
        for ($row = 0; $row < 39; $row++) {
            $browser->press('Shift+ArrowDown');
        }
        $browser->press('Shift+ArrowRight', 'Shift+ArrowRight');
        $browser->waitUntil('return document.querySelectorAll(".member.chosen").length > 0', 'no range is marked');
        $browser->press('Space')->waitForText('#message', '3 tags and sets.');
        $browser->waitUntil('return document.querySelectorAll(".member.is-in").length >= 60', 'the cells do not follow');
        $browser->js('shelfBench.command("undo")');
        $browser->waitForText('#message', 'Undone: Put');
        self::assertSame([], $browser->complaints());

        // It ends also when it travels slowly and something else is arranged meanwhile.
        $browser->press('Shift+w')->waitFor('[data-end-wide]');
        $browser->js(
            'const send = window.fetch; window.fetch = async (...asked) => { window.fetch = send;'.
                'await new Promise((go) => setTimeout(go, 700)); return send(...asked); };'.
                'document.querySelector("[data-end-wide]").click(); setTimeout(() => shelfBench.ledger.arrange({ sort: "name" }), 1)',
        );
        $browser->waitUntil(
            'return !document.querySelector("#ledger-head [data-member]") && '.
                'document.documentElement.style.getPropertyValue("--ledger") === "496px"',
            'the ledger stays wide',
        );
    }

    public function test_members_show_one_at_a_time_and_what_cannot_be_seen_is_found_and_mended(): void
    {
        $browser = $this->workbench();
        [$panel, $x, $y] = $this->facing($browser, 'Mesh_33');
        foreach (['Tiles' => "object:$panel", 'Membrane' => ''] as $name => $what) {
            if ($what === '') {
                $browser->js('shelfBench.pick({ found: 1, words: "layer:Roof kind:part not name=Mesh_33", mode: "replace" }, false)');
            } else {
                $browser->js('shelfBench.pick({ keys: arguments[0], mode: "replace" }, false)', "O$panel");
            }
            $browser->waitForText('#card', $what === '' ? 'picked' : 'Mesh_33');
            $browser->js('shelfBench.server.ask("POST", "/tags", { name: arguments[0], from_pick: 1 })', $name);
            $browser->waitForText('#message', "Create tag $name");
        }
        $browser->js('shelfBench.command("clear-pick")');
        $browser->js('shelfBench.server.ask("POST", "/folders", { holds: "tags", name: "Skins", around: "T1,T2" })');
        $browser->waitForText('#message', 'Create folder Skins');
        $browser->js('shelfBench.server.ask("PATCH", "/rows/F1", { one_at_a_time: 1 })');
        $browser->waitForText('#message', 'one at a time')->click('#lens-tags')->waitFor('#row-F1');
        $browser->click('#row-F1 .fold')->waitFor('#row-T1 .choice');
        $number = static fn (): mixed => $browser->js('return shelfBench.canvas.painter.numberAt(arguments[0], arguments[1])', $x, $y);
        $browser->settled();
        $shown = $browser->pixel($x, $y);
        self::assertSame($panel, $number());

        // Showing the other hides this one: its pixel shows what was behind.
        $browser->click('#row-T2 .choice')->waitForText('#message', 'Membrane')->settled();
        self::assertNotSame($panel, $number());
        self::assertNotEqualsWithDelta($shown, $browser->pixel($x, $y), 2, 'the panel is still to be seen');
        $browser->js('document.querySelector("#row-T2").focus()');
        $browser->press('>')->waitForText('#message', 'Skins: Tiles.')->settled();
        self::assertSame($panel, $number());
        $browser->press('>')->waitForText('#message', 'Skins: Membrane.')->settled();

        // What is here? It names the panel that is not seen, says why, and mends it.
        $browser->js('shelfBench.regions.askAt(arguments[0], arguments[1])', $x, $y);
        $browser->waitForText('#dialog', 'Mesh_33')->waitForText('#dialog', 'tag Tiles');
        $browser
            ->click("[data-here-mend='$panel']")
            ->waitUntil('return !document.querySelector("#dialog [data-here-mend=\"'.$panel.'\"]")', 'not mended');
        $browser->js('shelfBench.dialogs.close()');
        $browser->settled();
        self::assertSame($panel, $number());
        self::assertSame([], $browser->complaints());
    }

    public function test_a_chair_is_picked_whole_and_its_leg_alone(): void
    {
        $gltf = Gltf::triangle();
        $gltf['nodes'] = [
            ['name' => 'Room', 'children' => [1, 4]],
            ['name' => 'Chair', 'children' => [2, 3]],
            ['name' => 'Seat', 'mesh' => 0, 'scale' => [3, 3, 3]],
            ['name' => 'Leg', 'mesh' => 0, 'translation' => [0, -3, 0], 'scale' => [3, 3, 3]],
            ['name' => 'Table', 'mesh' => 0, 'translation' => [5, 0, 0], 'scale' => [3, 3, 3]],
        ];
        $gltf['scenes'][0]['nodes'] = [0];
        $browser = $this->workbench(file: Gltf::file($gltf, '.gltf'), tall: true);
        $browser->js('shelfBench.command("side-front")');
        usleep(700_000);
        $browser->settled();
        [$x, $y] = $browser->placeOf(4);
        $browser->clickCanvas($x, $y)->waitForText('#card h2', 'Leg');
        // Who clicks sooner than the server has said what lies in which group gets the group all the same.
        $browser->js(
            'const { server } = shelfBench, json = server.json.bind(server); server.json = async (path) => {'.
                ' if (path.startsWith("/takes")) await new Promise((resolve) => setTimeout(resolve, 800)); return json(path); }',
        );
        $browser->press('x')->waitForText('#taking', 'Group');
        $browser->clickCanvas($x, $y)->waitForText('#card h2', 'Chair');
        $browser->js('delete shelfBench.server.json');
        $browser->press('x')->waitForText('#taking', 'Outermost group');
        $browser->clickCanvas($x, $y)->waitForText('#card h2', 'Chair');
        // A double click steps into the chair: a click there takes the leg alone. Escape steps out.
        $browser->clickCanvas($x, $y)->clickCanvas($x, $y, count: 2);
        $browser->waitForText('#taking', 'In Chair');
        $browser->clickCanvas($x, $y)->waitForText('#card h2', 'Leg');
        $browser->press('Escape')->waitForText('#taking', 'Outermost group');
        $browser->clickCanvas($x, $y)->waitForText('#card h2', 'Chair');
        // The part in front hides one behind it; a mark says that it is picked all the same.
        $browser->js('shelfBench.canvas.viewpoint.set({ eye: [0.5, -4000, 0], target: [0.5, 0, 0], fov: 40 }, true)');
        $browser->settled()->waitFor('#pick-marks circle');
        self::assertSame([], $browser->complaints());
    }

    public function test_views_are_dragged_and_moved_by_key_into_folders_on_the_shelf(): void
    {
        $browser = $this->workbench(drawn: false);
        foreach (['One', 'Two', 'Three'] as $name) {
            $browser->js('shelfBench.server.ask("POST", "/views", { name: arguments[0], keep_rungs: 1 })', $name);
            $browser->waitFor(".view[data-name=$name]");
        }
        $shelf = static fn (): mixed => $browser->js(
            'return [...document.querySelectorAll("#shelf [data-key]")].filter((item) => !item.hidden)'.
                '.map((item) => (item.dataset.within === "" ? "" : "in ") + item.dataset.name)',
        );
        $browser->js('shelfBench.shelf.folderAround(["V1"])');
        $browser->waitFor('#row-name')->type('#row-name', 'Client');
        $browser->press('Enter')->waitFor('#shelf-F1');
        $this->dropped($browser, '#shelf-V3', '#shelf-F1', 0.5)->waitForText('#message', 'Move view Three into Client.');
        $browser->waitFor('#shelf-V3[data-within=F1]');
        self::assertSame(['Client', 'in One', 'in Three', 'Two'], $shelf());
        // By keyboard: in from the right, over its neighbour, and out again; F2 renames, Enter folds.
        $browser->js('document.querySelector("#shelf-V2 .view-picture").focus()');
        $browser->press('Alt+Shift+ArrowLeft')->waitFor('#shelf-V2[data-within=F1]');
        $browser->press('Alt+Shift+ArrowLeft')->waitForText('#message', 'before Three.');
        $browser->waitUntil('return document.activeElement.closest("#shelf-V2") !== null', 'the keyboard is lost');
        self::assertSame(['Client', 'in One', 'in Two', 'in Three'], $shelf());
        $browser->js('document.querySelector("#shelf-F1 .spine").focus()');
        $browser->press('F2')->waitFor('#shelf-F1 input')->press('Control+a');
        $browser->press('P', 'l', 'a', 'n', 's', 'Enter')->waitForText('#message', 'Rename folder Client to Plans.');
        $browser->js('document.querySelector("#shelf-F1 .spine").focus()');
        $browser->press('Enter')->waitUntil('return document.querySelector("#shelf-V1").hidden', 'not folded away');
        self::assertSame(['Plans'], $shelf());
        $browser->press('Enter')->press('Delete')->waitFor('#with-content')->press('Tab');
        $browser->click('#dialog .danger')->waitForText('#message', 'Delete folder Plans');
        $browser->waitUntil('return document.querySelectorAll(".shelf-folder").length === 0', 'the folder stays');
        self::assertSame(['One', 'Two', 'Three'], $shelf());
        $browser->js('shelfBench.command("undo")');
        $browser->waitFor('#shelf-V3[data-within=F1]');
        self::assertSame([], $browser->complaints());
    }

    private function dropped(Browser $browser, string $from, string $to, float $share): Browser
    {
        $browser->js(
            <<<'JS'
                const from = document.querySelector(arguments[0]), to = document.querySelector(arguments[1]);
                const { left, top, width, height } = to.getBoundingClientRect();
                const transfer = new DataTransfer();
                const fire = (on, type) => on.dispatchEvent(new DragEvent(type, {
                    bubbles: true, cancelable: true, dataTransfer: transfer,
                    clientX: left + width * arguments[2], clientY: top + height * arguments[2],
                }));
                fire(from, 'dragstart'); fire(to, 'dragover');
                window.dropWords = /drop/.test(to.className) ? to.dataset.drop : '';
                fire(to, 'drop'); fire(from, 'dragend');
            JS
            ,
            $from,
            $to,
            $share,
        );

        return $browser;
    }
}

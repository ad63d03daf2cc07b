<?php

declare(strict_types=1);

namespace Tests\Browser;

/** Finding and picking in the real interface. */
final class FindingTest extends BrowserTestCase
{
    public function test_from_a_rule_through_its_hits_to_isolation_and_back(): void
    {
        $browser = $this->workbench(drawn: false);
        // Offers that come after the line was emptied are for words that are no longer there.
        $browser->js(
            'const { finder } = shelfBench; finder.input.focus(); finder.input.value = "kind:part lay"; finder.offer(); finder.search("")',
        );
        usleep(900_000);
        self::assertTrue($browser->js('return document.querySelector("#offers").hidden'));
        $browser->find('#words')->sendKeys('kind:part lay');
        $browser->waitForText('#offers', 'layer:');
        $browser
            ->press('ArrowDown', 'Tab')
            ->waitUntil('return document.querySelector("#words").value === "kind:part layer:"', 'the offer is not taken');
        $browser->find('#words')->sendKeys('seat');
        // The offers from before these letters have it among others.
        $browser->waitUntil(
            'return /51 Seats.*253/.test(document.querySelector("#offers .offer").textContent)',
            'what was typed does not come first',
        );
        $browser->press('ArrowDown')->waitUntil('return shelfBench.finder.chosen === 0', 'nothing is chosen');
        // Offers that come late leave what was chosen meanwhile.
        $browser->js('shelfBench.finder.offers = [...shelfBench.finder.offers]; shelfBench.finder.offer()');
        usleep(700_000);
        $browser
            ->press('Enter')
            ->waitUntil(
                'return document.querySelector("#words").value.trim() === \'kind:part layer:"51 Seats"\'',
                'the value is not taken',
            );
        $browser->waitForText('#hits', '240 objects');

        // What is wrong stands where it is wrong, and the rows stay.
        $browser->find('#words')->sendKeys('kind:chair');
        $browser->waitForText('#rule-says mark', 'chair');
        self::assertSame('240 objects', $browser->text('#hits'));
        self::assertSame('true', $browser->find('#words')->getAttribute('aria-invalid'));
        $browser->type('#words', 'lifering or layer:Attic')->waitForText('#hits', '4 objects');
        $browser->waitForText('#rule-says', 'There is no layer with “Attic” in its name.');

        // Step through the hits: each is framed.
        self::draw($browser)->press('Escape');
        // The rows may come later than the hit.
        $browser->js(
            <<<'JS'
                const { ledger } = shelfBench, search = ledger.search.bind(ledger);
                ledger.search = async (words) => {
                    const status = await search(words);
                    await new Promise((resolve) => setTimeout(resolve, 1500));
                    setTimeout(() => (window.rowsCame = words));
                    return status;
                };
            JS
            ,
        );
        $browser->type('#words', 'lifering')->waitUntil('return shelfBench.ledger.words === "lifering"', 'nothing is looked for');
        $browser->press('Enter')->waitForText('#hit-place', '1 of 4');
        $browser->waitUntil('return window.rowsCame === "lifering"', 'the rows do not come');
        self::assertSame('1 of 4', $browser->text('#hit-place'));
        $browser->js('delete shelfBench.ledger.search');
        $first = $browser->js('return shelfBench.finder.object');
        $browser->waitUntil('return shelfBench.canvas.viewpoint.tall < 12', 'the hit is not framed')->settled();
        self::assertSame($first, $browser->js('return shelfBench.canvas.outlined'));
        $browser->placeOf((int) $first);
        $browser->press('Enter')->waitForText('#hit-place', '2 of 4')->press('Shift+Enter')->waitForText('#hit-place', '1 of 4');
        $browser->press('Control+Enter')->waitForText('#card', '4 parts picked');

        // Out of the line by the keyboard alone: what was looked for goes, then the rows have the keys.
        $browser->press('Escape')->waitUntil('return document.querySelector("#words").value === ""', 'the words stay');
        $browser->press('Escape')->waitUntil('return document.activeElement.matches(".row")', 'the rows do not get the keys');
        $browser
            ->press('i')
            ->waitForText('#isolated', '4 isolated')
            ->press('Backspace')
            ->waitUntil('return document.querySelector("#isolated").textContent.trim() === ""', 'still isolated');
        $browser->type('#words', 'lifering')->waitForText('#hits', '4 objects');

        $browser->click('[data-command="hits-isolate"]')->waitForText('#isolated', '4 isolated')->settled();
        self::assertSame(4, $browser->js('return shelfBench.canvas.states.filter((state) => (state & 15) > 0).length'));
        $browser->click('[data-command="isolate-rest"]')->waitForText('#isolated', 'Rest: ghost')->settled();
        $browser
            ->click('[data-command="isolate-back"]')
            ->waitUntil('return document.querySelector("#isolated").textContent.trim() === ""', 'still isolated');
        self::assertSame([], $browser->complaints());
    }

    public function test_a_region_then_reach_then_park_then_recall(): void
    {
        $browser = $this->workbench();
        [$tree, $x, $y] = $this->facing($browser, 'Tree#20');
        $browser->click('[data-tool="rectangle"]');
        $this->drag($browser, [[$x - 6, $y - 6], [$x + 6, $y + 6]]);
        $browser->waitForText('#message', 'caught');
        self::assertSame(1, $browser->js('return shelfBench.canvas.pick[arguments[0]]', $tree));
        $few = (int) $browser->js('return shelfBench.picked');

        // The lasso counts while it is drawn; Alt takes away what it catches.
        $browser->click('[data-tool="lasso"]');
        $circle = array_map(
            static fn (int $step): array => [(int) ($x + 120 * cos($step / 4)), (int) ($y + 120 * sin($step / 4))],
            range(0, 25),
        );
        $this->drag($browser, $circle, release: false);
        $browser->waitUntil(
            'return /object/.test(document.querySelector("#region-count").textContent)',
            'nothing is counted while drawing',
        );
        $this->release($browser, $circle[25]);
        $browser->waitUntil("return shelfBench.picked > $few", 'the lasso caught nothing more');
        $many = (int) $browser->js('return shelfBench.picked');
        $browser->press('t')->waitForText('#touching', 'Fully inside');
        $this->drag($browser, $circle);
        $browser->waitUntil("return shelfBench.picked < $many", 'what is only touched is still caught');
        self::stopDrawing($browser);
        $browser->press('q', 'Escape')->waitUntil('return shelfBench.picked === 0', 'the pick stays');

        $browser->js('shelfBench.pick({ keys: "O" + arguments[0], mode: "replace" })', $tree);
        $browser
            ->waitForText('#card', 'Tree#20')
            ->press('m')
            ->waitUntil('return /1 → \d+, same mesh/.test(document.querySelector("#message").textContent)', 'not reached');
        $browser->press('e')->waitFor('[data-reach]')->click('[data-way="material"]')->waitForText('.reached', 'same material');
        $browser->press('Escape');
        $picked = (int) $browser->js('return shelfBench.picked');
        self::assertGreaterThan(20, $picked);
        $browser->click('[data-slot="4"]')->waitForText('#message', 'parked in slot 4');
        $browser->js('shelfBench.command("clear-pick")');
        $browser->waitUntil('return shelfBench.picked === 0', 'the pick stays');
        $browser->press('Alt+4')->waitUntil("return shelfBench.picked === $picked", 'the slot is not recalled');
        $browser
            ->press('Alt+Shift+9')
            ->waitUntil("return document.querySelector('[data-slot=\"9\"]').dataset.count === '$picked'", 'not parked by key');
        self::assertSame([], $browser->complaints());
    }

    public function test_many_names_are_changed_after_a_look_and_taken_back(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->js('shelfBench.pick({ keys: "L16", mode: "replace" })');
        $browser->waitForText('#card', '240 parts')->press('Shift+r')->waitFor('#rn-pattern');
        $browser->type('#rn-pattern', 'Same')->waitForText('#rename-preview', 'would be called like another object');
        $browser->type('#rn-pattern', '{layer}.{number}')->type('[name=digits]', '99')->waitForText('#dialog .error', 'from 1 to 9');
        $browser->type('[name=digits]', '3')->waitForText('#rename-preview', '51 Seats.001');
        $browser->click('#dialog .primary')->waitForText('#message', 'Rename 253 objects.');
        $browser->type('#words', '"51 seats.0"')->waitForText('#hits', '99 objects');
        $browser
            ->click('#message [data-command="undo"]')
            ->waitForText('#message', 'Undone: Rename 253 objects.')
            ->waitForText('#hits', '0 objects');
        self::assertSame([], $browser->complaints());
    }

    public function test_everything_once_by_keyboard_alone(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->press('Control+k')->waitFor('.command-box input');
        $browser->find('.command-box input')->sendKeys('lens: objects');
        $browser
            ->waitForText('#command-list', 'Lens: objects')
            ->press('Enter')
            ->waitUntil('return document.querySelector("#rows .window").dataset.lens === "objects"', 'the lens is not turned');
        // Sort by a head, move the column, jump ahead, pick a range.
        $browser->js('document.querySelector("[data-sort=weigh]").focus()');
        $browser
            ->press('Enter')
            ->waitUntil('return document.querySelector("[data-column=weigh]").getAttribute("aria-sort") === "descending"', 'not sorted');
        $browser->js('document.querySelector("[data-sort=weigh]").focus()');
        $browser
            ->press('Alt+ArrowLeft')
            ->waitUntil('return document.querySelector("#ledger-head .col").dataset.column === "weigh"', 'the column has not moved');
        // Rows that another question has overtaken are still pointed out when they come.
        $browser->js('shelfBench.ledger.focusPlace(900, true); shelfBench.ledger.follow(); shelfBench.ledger.fetch("GET", "/ledger")');
        $browser->waitUntil(
            'return document.querySelector(".row.pointed")?.getAttribute("aria-rowindex") === "902"',
            'the row is not pointed out',
        );
        $browser->js('document.querySelector(".rows .row").focus()');
        $browser->press("'")->waitFor('.jump')->find('.jump')->sendKeys('seat_shell_1');
        $browser->waitUntil(
            'return shelfBench.ledger.row(shelfBench.ledger.focusKey)?.dataset.name.startsWith("Seat_Shell_1")',
            'not jumped',
        );
        $browser->press('Enter')->waitUntil('return document.activeElement.classList.contains("row")', 'the focus is not on the row');
        $browser->press('Enter')->waitForText('#card', 'Seat_Shell_1')->press('Shift+ArrowDown')->waitForText('#card', '2 parts picked');

        $browser->press('/');
        $browser->find('#words')->sendKeys('seat_shell kind:part');
        $browser->waitForText('#hits', '240 objects')->press('Enter')->waitForText('#hit-place', 'of 240');
        $browser->press('Control+Enter')->waitForText('#card', '240 parts');
        $browser->js('document.activeElement.blur()');
        $browser->press('i')->waitForText('#isolated', '240 isolated')->press('Backspace')->waitForText('#message', 'back as it was');
        $browser->press('Alt+Shift+1')->waitForText('#message', '240 parked in slot 1');
        $browser
            ->press('Escape')
            ->waitUntil('return shelfBench.picked === 0', 'the pick stays')
            ->press('Alt+1')
            ->waitForText('#card', '240 parts');

        // The camera: a side, parallel, back, held.
        $browser->press('Control+k')->waitFor('.command-box input')->find('.command-box input')->sendKeys('seen from the left');
        $browser
            ->press('Enter')
            ->waitUntil(
                'return shelfBench.canvas.viewpoint.isParallel && shelfBench.canvas.viewpoint.rests.length > 1',
                'not seen from the left',
            );
        self::draw($browser);
        [$eye, $target] = $browser->js('const { eye, target } = shelfBench.canvas.viewpoint.get(); return [eye, target]');
        self::assertLessThan($target[0], $eye[0]);
        self::assertEqualsWithDelta($target[1], $eye[1], 0.05);
        $browser->press('[')->waitUntil('return !shelfBench.canvas.viewpoint.isParallel', 'not back in perspective');
        $browser->press('h')->waitForText('#message', 'The camera is held');
        $before = $browser->js('return shelfBench.canvas.viewpoint.get().eye');
        $browser->press('a')->waitForText('#message', 'let it go first');
        self::assertSame($before, $browser->js('return shelfBench.canvas.viewpoint.get().eye'));
        self::stopDrawing($browser);
        $browser->press('h', 'k')->waitForText('#message', 'Parallel.')->press('k')->waitForText('#message', 'Perspective.');

        $browser->press('?')->waitForText('#dialog', 'Walk at eye height')->press('Escape');
        $browser->press('Shift+r')->waitFor('#rn-find')->find('#rn-find')->sendKeys('Seat_');
        $browser->press('Tab');
        $browser
            ->press('C', 'h', 'a', 'i', 'r', 'Enter')
            ->waitForText('#message', 'Rename 240 objects.')
            ->waitUntil('return !document.querySelector("#dialog").open', 'the dialog stays')
            ->press('Control+z')
            ->waitForText('#message', 'Undone');
        // A field of a dialog that has just been closed may still have the keyboard.
        $browser->js(
            'const field = document.createElement("input"); document.querySelector("#dialog").append(field); field.dispatchEvent('.
                'new KeyboardEvent("keydown", { key: "y", ctrlKey: true, bubbles: true, cancelable: true }))',
        );
        $browser->waitForText('#message', 'Redone');
        self::assertSame([], $browser->complaints());
    }

    public function test_tints_cameras_of_the_model_and_walking(): void
    {
        $browser = $this->workbench();
        [$tree, $x, $y] = $this->facing($browser, 'Tree#20');
        $own = $browser->pixel($x, $y);
        $browser->click('[data-command="tints"]')->waitForText('#row-menu', 'Weight');
        $browser->js('[...document.querySelectorAll("#row-menu .item")].find((item) => item.textContent === "Lock").click()');
        $browser->waitForText('#legend', 'Open')->settled();
        self::assertNotEqualsWithDelta($own, $browser->pixel($x, $y), 6, 'the tree is not tinted');
        $browser->js('shelfBench.command("tint-layer")');
        $browser->waitForText('#legend', '51 Seats');
        $browser->js('[...document.querySelectorAll(".legend-entry")].find((entry) => entry.textContent.includes("51 Seats")).click()');
        $browser->waitForText('#card', '240 parts picked');
        $browser->js('shelfBench.command("clear-pick"); shelfBench.command("tint-own")');
        $browser->waitUntil('return document.querySelector("#legend").hidden', 'the legend stays')->settled();
        self::assertEqualsWithDelta($own, $browser->pixel($x, $y), 4, 'own materials are back');

        $browser->click('[data-command="cameras"]')->waitForText('#row-menu', 'Hall from the south east');
        $browser->js('[...document.querySelectorAll("#row-menu .item")].find((item) => item.textContent.includes("Hall from")).click()');
        $browser->waitForText('#message', 'Seen through Hall from the south east')->settled();
        self::stopDrawing($browser);
        $browser->press('w')->waitForText('#message', 'Walking');
        $browser->waitUntil('return shelfBench.looking.walk.on', 'nobody walks');
        usleep(900_000);
        $height = (float) $browser->js('return shelfBench.canvas.viewpoint.camera.position.z - shelfBench.looking.walk.floor');
        self::assertEqualsWithDelta(1.65, $height, 0.2, 'at eye height');
        $from = $browser->js('return shelfBench.canvas.viewpoint.get().eye');
        $browser->js('dispatchEvent(new KeyboardEvent("keydown", { key: "w" }))');
        $browser->waitUntil(
            'const [x, y] = shelfBench.canvas.viewpoint.get().eye; return Math.hypot(x - ('.$from[0].'), y - ('.$from[1].')) > 0.8',
            'the walker does not move',
        );
        $browser->js('dispatchEvent(new KeyboardEvent("keyup", { key: "w" }))');
        $browser->press('Escape')->waitForText('#message', 'Walking has ended');
        self::assertSame([], $browser->complaints());
    }

    public function test_two_hundred_rows_are_picked_across_windows_and_groups_act_on_what_they_hold(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser
            ->click('#lens-nesting')
            ->waitUntil('return document.querySelector("#rows .window").dataset.lens === "nesting"', 'not turned');
        $browser->js('shelfBench.command("unfold-all")');
        $browser->waitUntil('return document.querySelector("#rows .window").dataset.total === "3197"', 'not unfolded');
        $browser->js(
            'const rows = document.querySelectorAll(".rows .row"); rows[2].dispatchEvent(new MouseEvent("click", { bubbles: true, detail: '.
                '1 }))',
        );
        $browser->waitFor('#card h2')->js('shelfBench.ledger.scroll.scrollTop = 28 * 1500');
        $browser->waitFor('[aria-rowindex="1510"]');
        $browser->js(
            'document.querySelector("[aria-rowindex=\"1510\"]").dispatchEvent(new MouseEvent("click", { bubbles: true, shiftKey: true }))',
        );
        $browser->waitUntil('return shelfBench.picked === 1507', 'the range is not picked');
        $browser->click('#more-lenses')->waitForText('#row-menu', 'Kinds');
        $browser->js('document.querySelector("#row-menu .item").click()');
        $browser->waitForText('#rows', 'Lights')->waitForText('#more-lenses', 'Kinds');
        $browser->js(
            'shelfBench.openRowMenu(document.querySelector(".row[data-name=Lights]"), document.querySelector(".row[data-name=Lights] '.
                '.more-button"))',
        );
        $browser->js(
            '[...document.querySelectorAll("#row-menu .item")].find((item) => item.textContent === "Look for this alone").click()',
        );
        $browser->waitUntil('return document.querySelector("#words").value === "kind:light"', 'the rule is not written');
        $browser->click('#kinds')->waitForText('#row-menu', 'all but');
        $browser->js('document.querySelector("#row-menu [aria-label=\"All but part\"]").click()');
        $browser->waitUntil('return document.querySelector("#words").value === "kind:light and not kind:part"', 'the rule is not narrowed');
        $browser->click('[data-command="follow"]')->waitUntil('return shelfBench.ledger.follows === false', 'still following');
        self::assertSame([], $browser->complaints());
    }
}

<?php

declare(strict_types=1);

namespace Tests\Browser;

use Tests\Browser\Support\Browser;

/** Desk and output, and the commands for the whole desk, by mouse and keyboard. */
final class ControlTest extends BrowserTestCase
{
    public function test_hidden_on_the_desk_is_still_in_the_output_and_the_difference_is_pointed_out(): void
    {
        $browser = $this->workbench(tall: true);
        [$tree, $x, $y] = $this->facing($browser, 'Tree#20');
        $browser->js('shelfBench.command("clear-pick")');
        $browser->settled();
        $number = static fn (): mixed => $browser->js('return shelfBench.canvas.painter.numberAt(arguments[0], arguments[1])', $x, $y);
        $full = $browser->pixel($x, $y);
        self::assertSame($tree, $number());
        $browser->clickCanvas($x, $y)->waitFor('#card h2');
        $browser->press('0')->waitForText('#message', 'Hidden.')->waitForText('.differ', '1 differ')->settled();
        self::assertNotSame($tree, $number());

        // The output by key: the tree is there, as it was.
        $browser->js('document.querySelector("#canvas canvas").focus()');
        $browser->press('Escape', 'Shift+o')->waitForText('#isolated', 'Output')->settled();
        self::assertSame($tree, $number());
        self::assertEqualsWithDelta($full, $browser->pixel($x, $y), 4, 'the picture is as it was');
        $browser->click('.differ')->waitForText('#row-menu', 'only in the picture');
        $browser->press('Enter')->waitForText('#message', '1 object picked.');

        // Never in pictures, by key and with a note; why says so, and mends it.
        $browser->js('document.querySelector("#canvas canvas").focus()');
        $browser->press('Alt+o')->waitForText('#dialog', 'Never in pictures');
        $browser->click('#dialog [value=never]');
        $browser->type('#output-note', 'stands in for planting');
        $browser->press('Enter')->waitForText('#message', 'Never in pictures')->settled();
        self::assertNotSame($tree, $number());
        self::stopDrawing($browser);
        $browser->press('y')->waitForText('#dialog', 'never in pictures (stands in for planting)');
        $browser->press('Enter')->waitForText('#message', 'In pictures full')->press('Escape');
        $browser->waitUntil("return (shelfBench.canvas.states[$tree] & 15) === 5", 'the tree is not in the picture again');

        // In the ledger by mouse: a click hides, one more gives back; the desk's mark stays.
        $browser->click('#isolated [data-command=turn-sides]')->waitUntil('return shelfBench.side === "desk"', 'the output stays');
        $out = '.row[data-name="51 Seats"] .out';
        $set = static fn (): mixed => $browser->js('return document.querySelector(\'.row[data-name="51 Seats"]\').dataset.output');
        $browser->click($out)->waitForText('#message', 'In pictures hidden: 51 Seats.');
        self::assertSame('0', $set());
        $browser->click($out)->waitForText('#message', 'Shown again in pictures: 51 Seats.');
        self::assertSame(
            ['none', '5'],
            [$set(), $browser->js('return document.querySelector(\'.row[data-name="51 Seats"]\').dataset.own')],
        );
        self::assertSame([], $browser->complaints());
    }

    public function test_the_whole_desk_by_its_menu_and_by_keys(): void
    {
        $browser = $this->workbench(drawn: false);
        $read = static fn (): Browser => $browser->waitUntil('return shelfBench.unread === 0', 'the state is not read');
        $shown = static fn (): mixed => $read()->js('return shelfBench.canvas.states.slice(1).filter((state) => (state & 15) > 0).length');
        $all = $shown();
        $browser->type('#words', 'layer:seats')->waitForText('#hits', 'objects');
        $browser->press('Control+Enter')->waitForText('#card', '240 parts');
        $browser->js('document.querySelector("#canvas canvas").focus()');
        $browser->press('Shift+s')->waitForText('#message', 'hidden.');
        self::assertLessThan($all / 2, $shown());
        $browser->press('Shift+v')->waitForText('#message', 'Inverted')->press('Shift+a')->waitForText('#message', 'shown again');
        self::assertSame($all, $shown());
        $browser->click('[data-command=showing]')->waitForText('#row-menu', 'Ceiling');
        $browser->js('[...document.querySelectorAll("#row-menu .item")].find((item) => item.textContent.startsWith("Ceiling")).click()');
        $browser->waitForText('#row-menu', 'No ceiling');
        $browser->js('[...document.querySelectorAll("#row-menu .item")].find((item) => item.textContent === "Box").click()');
        $browser->waitForText('#isolated', 'Ceiling: Box');
        self::assertSame([1], $read()->js('return [...new Set(shelfBench.canvas.states.slice(1).map((state) => state & 15))]'));
        $browser->click('#isolated .ceiling button')->waitForText('#message', 'lifted');

        // One lower and a backdrop for the row that the keyboard is on; the pick is left as it is.
        $browser->js('shelfBench.finder.search("")');
        $browser->waitFor('.row[data-name="20 Roof"]');
        $browser->js('document.querySelector(\'.row[data-name="20 Roof"]\').focus()');
        $browser->press('Alt+-')->waitForText('#message', 'One rung lower: 20 Roof.');
        $browser->press('Shift+b')->waitForText('#message', '20 Roof is a backdrop');
        $browser->click('#message [data-command=undo-both]')->waitForText('#message', 'Taken back: Backdrop: 20 Roof.');
        $browser->waitUntil(
            'const { lock, own } = document.querySelector(\'.row[data-name="20 Roof"]\').dataset; return lock === "0" && own === "4"',
            'the backdrop stays',
        );

        // Each layer alone, and on, and out: also where the keyboard is on a row, whose own key L locks it.
        $browser->js('document.querySelector(\'.row[data-name="20 Roof"]\').focus()');
        $browser->press('Shift+l')->waitForText('#isolated', 'alone');
        $first = $browser->text('#isolated strong');
        $browser->press('Shift+l')->waitUntil("return document.querySelector(\"#isolated strong\").textContent !== \"$first\"", 'it stays');
        self::assertNotSame($first, $browser->text('#isolated strong'));
        $browser->press('Backspace')->waitForText('#message', 'Everything is back as it was.');
        self::assertSame($all, $shown());
        $browser->press('Shift+e')->waitForText('#message', 'Edges over shading.');
        self::assertSame('over', $browser->js('return shelfBench.canvas.painter.look.edges'));
        self::assertSame([], $browser->complaints());
    }

    public function test_a_section_is_dragged_typed_and_turned_off_and_what_it_cuts_away_is_not_picked(): void
    {
        $browser = $this->workbench(drawn: false);
        $tree = self::number($browser, 'Tree#20');
        $browser->js('document.querySelector("#canvas canvas").focus()');
        $browser->press('Shift+x')->waitFor('#section-panel .section-sides:not([hidden])')->waitFor('.section-handle');

        // The upper side, typed: the crown is cut off, and filled where it is.
        $top = $browser->js(
            'const { sphere, first } = shelfBench.canvas.placements; const at = (first[arguments[0]] - 1) * 4;'.
                ' return sphere[at + 2] + shelfBench.section.origin[2]',
            $tree,
        );
        $browser->js(
            'const input = document.querySelector("[data-side=\"5\"]"); input.value = arguments[0];'.
                ' input.dispatchEvent(new Event("change", { bubbles: true }))',
            $top,
        );
        $browser->waitUntil('return shelfBench.canvas.painter.look.caps.visible', 'no faces are filled');
        self::assertGreaterThan(0, $browser->js('return shelfBench.canvas.painter.look.caps.geometry.getAttribute("position").count'));
        // The handle of the upper side is dragged down by mouse, and on by the arrow keys: less and less is left.
        $browser->js('const { viewpoint } = shelfBench.canvas; viewpoint.side("front", viewpoint.all)');
        usleep(700_000);
        $browser->js('shelfBench.section.handles.draw()');
        $height = static fn (): mixed => $browser->js('return shelfBench.section.kept.box[5]');
        $before = $height();
        [$left, $up] = $browser->js(
            'const circle = document.querySelectorAll(".section-handle")[5].querySelector("circle");'.
                ' const { left, top, width, height } = circle.getBoundingClientRect(); return [left + width / 2, top + height / 2]',
        );
        $browser->mouse('pressed', $left, $up);
        $browser->mouse('moved', $left, $up + 12);
        $browser->mouse('moved', $left, $up + 24);
        $browser->mouse('released', $left, $up + 24);
        self::assertLessThan($before, $height());
        $dragged = $height();
        $browser
            ->press('ArrowDown', 'ArrowDown')
            ->waitUntil(
                'const { section } = document.getElementById("state").dataset;'.
                    ' return Math.abs(JSON.parse(section).box[5] - shelfBench.section.kept.box[5]) < 1e-6',
                'what the keys did is not kept',
            );
        self::assertEqualsWithDelta($dragged - 0.2, $height(), 1e-6);

        // Off and on keeps it.
        $browser->press('Shift+t')->waitUntil('return shelfBench.canvas.painter.look.cuts.length === 0', 'it still cuts');
        $browser->press('Shift+t')->waitUntil('return shelfBench.canvas.painter.look.cuts.length === 6', 'it does not cut');
        self::assertEqualsWithDelta($dragged - 0.2, $height(), 1e-6);

        // What is cut away is not there to be picked.
        $browser->js('shelfBench.section.turn()');
        self::draw($browser);
        [, $x, $y] = $this->facing($browser, 'Tree#20');
        $number = static fn (): mixed => $browser->js('return shelfBench.canvas.painter.numberAt(arguments[0], arguments[1])', $x, $y);
        self::assertSame($tree, $number());
        $browser->js('shelfBench.section.change({ box: [-1000, -1000, -1000, 1000, 1000, -0.1] })');
        $browser->waitUntil('return shelfBench.canvas.painter.look.cuts.length === 6', 'it does not cut')->settled();
        self::assertNotSame($tree, $number());
        self::assertSame([], $browser->complaints());
    }

    public function test_the_map_of_weights_opens_part_by_part_and_picks_by_mouse_and_by_keyboard(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->click('.meter')->waitFor('.weight-part');
        $part = static fn (string $name): string => ".weight-part[aria-label^=\"$name\"]";
        // By mouse: into a layer, and to one object in it.
        $browser
            ->click($part('51 Seats').' rect')
            ->waitForText('.weight-trail', '51 Seats')
            ->waitForText('#card', '240 parts');
        self::assertTrue($browser->js('return document.querySelector("#canvas").clientHeight > 200'), 'the canvas stays in sight');
        $browser->js('shelfBench.weight.go({ inside: "" }, ".weight-part")');
        $browser->waitUntil('return document.querySelectorAll(".weight-trail button").length === 1', 'it does not go up');

        // By keyboard: along the parts, into one, up again, to the repeats, and out.
        $focused = static fn (): string => (string) $browser->js('return document.activeElement.getAttribute("aria-label") ?? ""');
        $heaviest = $focused();
        $browser->press('ArrowRight');
        self::assertNotSame($heaviest, $focused());
        $browser->press('ArrowLeft');
        self::assertSame($heaviest, $focused());
        $browser->press('Enter')->waitForText('.weight-trail', '›');
        $browser->waitUntil('return document.activeElement.classList.contains("weight-part")', 'the focus is lost');
        $browser->press('Escape');
        $browser->waitUntil('return document.querySelectorAll(".weight-trail button").length === 1', 'it does not go up');
        $browser->js('document.querySelector("#weight [role=tab][aria-selected=true]").focus()');
        $browser->press('ArrowRight', 'ArrowRight', 'Enter')->waitForText('.weight-list', 'FilterVessel');
        $browser->js('document.querySelector("#weight .weight-list .link").focus()');
        $browser->press('Enter')->waitForText('#card', '10 parts');
        $browser->press('Escape');
        $browser->waitUntil('return document.querySelector("#weight").hidden', 'it does not close');
        self::assertSame('meter', $browser->js('return document.activeElement.className'), 'the focus goes back to where it came from');
        self::assertSame([], $browser->complaints());
    }

    public function test_lightening_is_proposed_looked_at_applied_and_given_back_by_keyboard_and_by_mouse(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->waitForText('.differ', 'no difference');
        $browser->press('Alt+h')->waitFor('#lighten-triangles');
        $browser->waitUntil('return document.activeElement.id === "lighten-triangles"', 'the number is not at hand');
        $browser->press('Control+a', '30000', 'Enter')->waitForText('.lighten-says', 'Loses');
        $browser->waitForText('.lighten-both', 'Pipes');
        $shown = static fn (): string => (string) $browser->js(
            'return [...document.querySelectorAll(".lighten-stack img:not([hidden])")].map(({ dataset, naturalWidth }) =>'.
                ' `${dataset.picture} ${naturalWidth}`).join(" ")',
        );
        $browser->waitUntil(
            'return [...document.querySelectorAll(".lighten-stack img")].every(({ naturalWidth }) => naturalWidth === 480)',
            'the pictures do not come',
        );
        self::assertSame('before 480 after 480', $shown());
        self::assertSame('no difference', trim($browser->find('.differ')->getText()), 'nothing changes until it is applied');
        $browser->js('document.querySelector("[data-lighten-cut]").focus()');
        $browser->press('End');
        self::assertSame('100%', $browser->js('return document.querySelector(".lighten-stack").style.getPropertyValue("--cut")'));
        $browser->press('Tab', ' ');
        self::assertSame('before 480 lost 480', $shown());

        $browser->js('document.querySelector("[data-lighten-do=apply]").focus()');
        $browser->press('Enter')->waitForText('#message', 'Lighten to 30,000 triangles.');
        $browser->waitUntil('return document.activeElement.dataset.lightenDo === "back"', 'what takes it back is not at hand');
        $lowered = (int) $browser->js(
            'return [...document.querySelectorAll(".lighten-rungs span")]'.
                '.reduce((sum, { textContent }) => sum + +textContent.replaceAll(",", ""), 0)',
        );
        $browser->waitForText('.differ', number_format($lowered).' differ');
        $browser->click('.lighten-both .link')->waitFor('#card .card');
        $browser->click('[data-lighten-do=back]')->waitForText('#message', 'Given back: ');
        $browser->waitForText('.differ', 'no difference');

        // Where it cannot be done, that is said beside what was asked for, which stays.
        $browser->type('#lighten-triangles', '0');
        $browser->js('document.querySelector("[name=hides]").click()');
        $browser->click('[data-lighten-ask] .primary')->waitForText('[data-lighten-ask] .error', 'does not come down to 0 triangles');
        $browser->waitForText('.lighten-says', '80,744');
        $browser->press('Escape');
        $browser->waitUntil('return document.querySelector("#weight").hidden', 'it does not close');
        self::assertSame([], $browser->complaints());
    }

    public function test_a_layer_is_exported_from_its_row_and_the_file_is_offered(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->js('shelfBench.openRowMenu(document.querySelector("#row-L16"), document.querySelector("#row-L16 .more-button"))');
        $browser->waitForText('#row-menu', 'Export…');
        $browser->js(
            '[...document.querySelectorAll("#row-menu .item")].find(({ textContent }) => textContent.startsWith("Export"))?.click()',
        );
        $browser->waitFor('[data-export]');
        self::assertSame('L16', $browser->js('return document.querySelector("#export-of").value'));
        $browser->press('Tab', 'Tab', 'Tab', 'Tab', 'Enter')->waitForText('#dialog [role=status]', 'came along.');
        $link = $browser->js('return document.querySelector("#dialog a").href');
        $first = $browser->driver->executeAsyncScript(
            'const done = arguments[arguments.length - 1]; fetch(arguments[0]).then((answer) => answer.text()).then((text) => '.
                'done(text.slice(0, 4)))',
            [$link],
        );
        self::assertSame('glTF', $first);
        $browser->press('Escape')->waitUntil('return !document.querySelector("#dialog").open', 'it does not close');
        self::assertSame([], $browser->complaints());
    }
}

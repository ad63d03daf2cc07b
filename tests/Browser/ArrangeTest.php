<?php

declare(strict_types=1);

namespace Tests\Browser;

use Tests\Browser\Support\Browser;

/** Arranging the ledger, drawing every kind of region, and the menus. */
final class ArrangeTest extends BrowserTestCase
{
    public function test_columns_are_chosen_sized_sorted_and_kept_as_a_layout(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser
            ->click('#lens-objects')
            ->waitUntil('return document.querySelector("#rows .window").dataset.lens === "objects"', 'not turned');
        $browser->click('#ledger-head [data-command="columns"]')->waitFor('[data-narrow-columns]');
        $browser
            ->type('[data-narrow-columns]', 'fire')
            ->waitUntil(
                'return [...document.querySelectorAll(".choices li")].filter((item) => !item.hidden).length === 1',
                'the list is not narrowed',
            );
        $browser->click('li[data-column="p:fire rating"] input[type=checkbox]');
        foreach (['height', 'layer', 'material', 'width', 'triangles'] as $column) {
            $browser->type('[data-narrow-columns]', $column)->click("li[data-column=\"$column\"] input[type=checkbox]");
        }
        $browser->click('[data-keep-columns]')->waitFor('#ledger-head [data-column="p:fire rating"]');

        // Sorted down, up, and not at all.
        $sorted = static fn (
            string $how,
        ): string => "return document.querySelector('#ledger-head [data-column=height]').getAttribute('aria-sort') === '$how'";
        foreach (['descending', 'ascending', 'none', 'descending'] as $how) {
            $browser->click('[data-sort="height"]')->waitUntil($sorted($how), "not $how");
        }
        self::assertMatchesRegularExpression(
            '~^17\.\d\d m$~',
            (string) $browser->js(
                'const heads = [...document.querySelectorAll("#ledger-head [role=columnheader]")]; const at = heads.findIndex((head) => '.
                    'head.dataset.column === "height"); return document.querySelector(".rows .row").children[at].textContent.trim()',
            ),
        );

        // A grip sizes its column, and it stays so.
        $browser->js('document.querySelector("[data-grip=height]").scrollIntoView({ inline: "center" })');
        [$x, $y] = $browser->cornerOf('[data-grip=height]');
        foreach ([['pressed', 0], ['moved', 30], ['moved', 60], ['released', 60]] as [$what, $by]) {
            $browser->mouse($what, $x + 3 + $by, $y + 8);
        }
        $wide = 'return Number(document.querySelector("#ledger-head [data-column=height]").dataset.width)';
        $browser->waitUntil("$wide > 120", 'the column is not wider', 10);
        $width = $browser->js($wide);

        // Names stay in sight while columns scroll.
        $browser->js('document.getElementById("scroll").scrollLeft = 300');
        $browser->waitUntil('return document.getElementById("ledger-grid").classList.contains("is-aside")', 'not scrolled aside');
        self::assertEqualsWithDelta(
            (float) $browser->js('return document.getElementById("scroll").getBoundingClientRect().left'),
            (float) $browser->js('return document.querySelector(".rows .row .name").getBoundingClientRect().left'),
            1.0,
        );

        $browser->type('#words', 'layer:Structure')->waitForText('#hits', '125 objects');
        $browser->click('[data-command="layouts"]')->waitForText('#row-menu', 'Keep as a layout');
        $this->choose($browser, 'Keep as a layout…');
        $browser
            ->waitFor('#layout-name')
            ->type('#layout-name', 'Tall things')
            ->click('#dialog .primary')
            ->waitForText('#message', 'Layout Tall things is kept.');
        $browser->type('#words', 'seat')->press('Escape', 'Escape');
        $browser
            ->click('#lens-layers')
            ->waitUntil('return document.querySelector("#rows .window").dataset.lens === "layers"', 'not turned');
        $browser->js('shelfBench.ledger.arrange({ columns: JSON.stringify([["count", 62]]), sort: "" })');
        $browser->waitUntil('return document.querySelectorAll("#ledger-head [data-column]").length === 1', 'the columns stay');
        // From the command box a menu opens at its button.
        $browser->press('Control+k')->waitFor('.command-box input')->find('.command-box input')->sendKeys('columns and layouts');
        $browser->waitForText('#command-list', 'Columns and layouts')->press('Enter')->waitForText('#row-menu', 'Tall things');
        self::assertLessThan(140, (int) $browser->js('return Math.round(document.querySelector("#row-menu").getBoundingClientRect().top)'));
        $this->choose($browser, 'Tall things');
        $browser->waitUntil('return document.querySelector("#rows .window").dataset.lens === "objects"', 'the layout is not applied');
        $browser->waitForText('#hits', '125 objects');
        self::assertSame('layer:Structure', $browser->js('return document.querySelector("#words").value'));
        self::assertSame($width, $browser->js($wide));
        self::assertSame([], $browser->complaints());
    }

    public function test_regions_of_every_shape_add_and_take_away(): void
    {
        $browser = $this->workbench(drawn: false, tall: true);
        $browser->js('shelfBench.canvas.framing.all(true); shelfBench.command("side-plan")');
        $browser->waitUntil('return shelfBench.canvas.viewpoint.isParallel', 'not seen from above');
        usleep(700_000);
        $picked = static fn (): int => (int) $browser->js('return shelfBench.picked');
        $asked = static function (string $until) use ($browser): void {
            $browser->waitUntil(
                'return !document.body.classList.contains("asking") && document.querySelector("#sketch").childElementCount === 0',
                'the region is still asked for',
            );
            $browser->waitUntil("return $until", "not so: $until");
        };

        // A polygon by its corners: one too many is taken back, Enter closes it.
        $browser->press('p');
        foreach ([[250, 200], [520, 200], [520, 420], [650, 520]] as [$x, $y]) {
            $browser->clickCanvas($x, $y);
        }
        $browser->press('Backspace');
        $browser->clickCanvas(250, 420);
        self::assertSame(4, $browser->js('return shelfBench.regions.points.length'));
        $browser->press('Enter');
        $asked('shelfBench.picked > 100');
        $polygon = $picked();

        // The same outline as a rectangle catches the same.
        $browser->press('r');
        $this->drag($browser, [[250, 200], [400, 300], [520, 420]]);
        $asked("shelfBench.picked === $polygon");

        // A circle within it takes some away, and adds them again.
        $browser->press('c');
        $this->drag($browser, [[385, 310], [420, 310]], held: 'Alt');
        $asked("shelfBench.picked < $polygon");
        $this->drag($browser, [[385, 310], [420, 310]], held: 'Shift');
        $asked("shelfBench.picked === $polygon");

        // A brush along the edge adds what lies beyond.
        $browser->press('b');
        $this->drag($browser, [[540, 190], [560, 300], [540, 430]], held: 'Shift');
        $asked("shelfBench.picked > $polygon");
        $more = $picked();

        // Escape gives up a lasso that is being drawn, and the pick stays.
        $browser->press('o');
        $this->drag($browser, [[100, 100], [300, 120], [320, 320]], release: false);
        $browser->press('Escape');
        $this->release($browser, [320, 320]);
        self::assertSame([0, $more], [$browser->js('return shelfBench.regions.points.length'), $picked()]);
        // Only what is fully inside, and back to picking one by one.
        $browser->press('t', 'r');
        $this->drag($browser, [[250, 200], [400, 300], [520, 420]]);
        $asked("shelfBench.picked < $polygon && shelfBench.picked > 0");
        $browser->press('Escape')->waitUntil('return shelfBench.regions.tool === "click"', 'the tool stays');

        // By keyboard alone: a cross is moved, Space sets a corner, Enter closes.
        $browser->press('t', 'r')->js('document.querySelector("#canvas canvas").focus()');
        $browser->press(
            ...array_fill(0, 3, 'Shift+ArrowLeft'),
            ...array_fill(0, 2, 'Shift+ArrowUp'),
            ...[' '],
            ...array_fill(0, 6, 'Shift+ArrowRight'),
            ...array_fill(0, 4, 'ArrowDown'),
        );
        self::assertSame(
            [[270, 242], [510, 274]],
            $browser->js('return shelfBench.regions.points.map(([x, y]) => [Math.round(x), Math.round(y)])'),
        );
        $browser
            ->press('Enter')
            ->waitUntil(
                'return document.querySelectorAll("#sketch > :not(.cross)").length === 0 && '.
                    '/caught/.test(document.querySelector("#message").textContent)',
                'nothing is caught',
            );
        $strip = $picked();
        $browser
            ->press(' ', 'Shift+ArrowDown', 'Shift+ArrowLeft', 'Shift+Enter')
            ->waitUntil("return shelfBench.picked > $strip", 'nothing is added');
        $browser
            ->press('Escape')
            ->waitUntil(
                'return shelfBench.regions.tool === "click" && document.querySelector("#sketch").childElementCount === 0',
                'the cross stays',
            );
        self::assertSame([], $browser->complaints());
    }

    public function test_menus_on_the_canvas_and_on_rows_do_what_the_commands_do(): void
    {
        $browser = $this->workbench();
        [$tree, $x, $y] = $this->facing($browser, 'Tree#20');
        $menu = function () use ($browser, $x, $y): void {
            $browser->clickCanvas($x, $y, button: 'right');
            $browser->waitUntil('return document.querySelector("#row-menu").matches(":popover-open")', 'there is no menu');
        };
        $menu();
        $this->choose($browser, 'Pick');
        $browser->waitForText('#card', 'Tree#20');
        $menu();
        $this->choose($browser, 'Isolate it');
        $browser->waitForText('#isolated', '1 isolated')->settled();
        $browser
            ->press('Backspace')
            ->waitUntil('return document.querySelector("#isolated").textContent.trim() === ""', 'still isolated')
            ->settled();
        $menu();
        $this->choose($browser, 'Show in the ledger');
        $browser->waitUntil(
            "return document.activeElement.dataset?.key === 'O$tree' || document.activeElement.classList.contains('row')",
            'the row has not the focus',
        );

        // The same by keyboard on a row, and where there is nothing.
        self::stopDrawing($browser);
        $browser->click('#lens-nesting')->type('#words', 'Tree#20')->waitForText('#hits', '1 object');
        $browser->js('document.querySelector(".row[data-name=\"Tree#20\"]").focus()');
        $browser->press('Shift+F10')->waitForText('#row-menu', 'Why');
        $this->choose($browser, 'Ghost');
        $browser->waitUntil("return (shelfBench.canvas.states[$tree] & 15) === 2", 'it is no ghost');
        $browser->js('document.querySelector(".row[data-name=\"Tree#20\"]").focus()');
        $browser->press('Shift+F10')->waitForText('#row-menu', 'Frame it');
        $browser->press('Escape')->waitUntil('return !document.querySelector("#row-menu").matches(":popover-open")', 'the menu stays');
        self::assertSame('Tree#20', $browser->js('return document.activeElement.dataset.name'), 'the focus is back on the row');
        self::assertSame([], $browser->complaints());
    }

    /** Chooses an entry of the open menu by its label. */
    private function choose(Browser $browser, string $label): void
    {
        self::assertTrue(
            $browser->js(
                'const item = [...document.querySelectorAll("#row-menu .item")].find((item) => item.firstChild.textContent === '.
                    'arguments[0]); item?.click(); return item !== undefined',
                $label,
            ),
            "the menu has no $label",
        );
    }
}

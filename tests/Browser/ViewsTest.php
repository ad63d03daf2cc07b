<?php

declare(strict_types=1);

namespace Tests\Browser;

use Tests\Browser\Support\Browser;

/** Views by mouse and by keyboard: the grid, newcomers, and two compared. */
final class ViewsTest extends BrowserTestCase
{
    public function test_one_layer_is_hidden_in_seven_of_ten_views_in_one_change_by_mouse_and_another_by_keyboard(): void
    {
        $browser = $this->workbench(drawn: false);
        foreach (range(1, 10) as $number) {
            $browser
                ->press('v')
                ->waitFor('#view-name')
                ->press('Enter')
                ->waitFor("#shelf-V$number");
        }
        $browser->press('Alt+v')->waitFor('.view-head')->waitFor('#grid-strip select');
        $keys = $browser->js('return [...document.querySelectorAll("#rows .row")].slice(0, 4).map((row) => row.dataset.key)');
        self::assertIsArray($keys);
        // With Shift a block of cells is chosen.
        $browser->drag(self::cell($keys[2], 1), self::cell($keys[2], 7), 'Shift');
        $browser->waitForText('#grid-bar', '7 cells');
        $browser->click('[data-grid-rung="0"]')->waitForText('#message', 'Hidden in 7 views');
        self::assertSame(['0', '0', '0', '0', '0', '0', '0', '', '', ''], $this->says($browser, $keys[2]));
        $browser->click('#message [data-command=undo]')->waitForText('#message', 'Undone: Hidden in 7 views');
        $browser->waitUntil("return document.querySelectorAll('.says-0').length === 0", 'the cells stay hidden');
        // Without, drawing over them hides them, and once more gives them back what they had.
        $browser->drag(self::cell($keys[2], 2), self::cell($keys[3], 4))->waitForText('#message', 'Hidden in 3 views: 2 layers.');
        self::assertSame(['', '0', '0', '0', '', '', '', '', '', ''], $this->says($browser, $keys[3]));
        $browser->drag(self::cell($keys[3], 4), self::cell($keys[2], 2))->waitForText('#message', 'Shown again in 3 views: 2 layers.');
        $browser->waitUntil("return document.querySelectorAll('.says-0').length === 0", 'the cells stay hidden');
        $browser->click(self::cell($keys[2], 5))->waitForText('#message', 'Hidden in view View 5');
        self::assertSame('0', $this->says($browser, $keys[2])[4]);
        $browser->click(self::cell($keys[2], 5))->waitForText('#message', 'Shown again in view View 5');
        // By keyboard: from the row into its cells, three to the right, one down, and a ghost.
        $browser->js('shelfBench.ledger.focus(shelfBench.ledger.row(arguments[0]))', $keys[1]);
        $browser->press('Control+ArrowRight')->press('Shift+ArrowRight')->press('Shift+ArrowRight')->press('Shift+ArrowDown');
        $browser->waitForText('#grid-bar', '2 rows in 3 columns');
        $browser->press('2')->waitForText('#message', 'Ghost in 3 views: 2 layers.');
        $browser->waitUntil("return document.querySelectorAll('.says-2').length === 6", 'six cells are no ghosts');
        $browser->press('Escape')->waitUntil('return document.activeElement.matches(".row")', 'the keyboard is not in the row');
        // The whole column of one view from its head, cleared; then all rows where another one says so.
        $browser->click('[data-view-head=V1] .head-button')->waitForText('#grid-bar', '1 column');
        $browser->click('[data-grid-rung=none]')->waitForText('#message', 'Nothing set in view View 1');
        $browser->waitUntil("return document.querySelectorAll('.says-2').length === 4", 'the column is not cleared');
        $browser->click('[data-view-head=V2] .head-button')->click('[data-grid=where]');
        $browser->js(
            '[...document.querySelectorAll("#row-menu [role=menuitem]")].find((item) => /says Ghost/.test(item.textContent)).click()',
        );
        $browser->waitForText('#grid-bar', 'Rows that say so');
        $browser->click('[data-grid-rung="5"]')->waitForText('#message', 'Full in view View 2: 2 layers.');
        $browser->press('Alt+v')->waitUntil('return document.querySelector(".view-head") === null', 'the grid stays');
        self::assertSame([], $browser->complaints());
    }

    public function test_a_newcomer_is_reviewed_and_what_a_view_shows_differently_is_kept_as_before(): void
    {
        $browser = $this->workbench(drawn: false);
        [$seats, $roof] = [self::row($browser, 'Seats'), self::row($browser, 'Roof')];
        $browser->js('return shelfBench.server.ask("POST", "/rungs", { keys: arguments[0], rung: 0 })', $seats);
        foreach ([1, 2] as $number) {
            $browser
                ->press('v')
                ->waitFor('#view-name')
                ->press('Enter')
                ->waitFor("#shelf-V$number");
        }
        $this->takeInBeside($browser);
        $browser->waitForText('#shelf-V1 .badge', '1 new')->waitForText('#shelf-V2 .badge', '1 new');
        $browser->press('Alt+r')->waitForText('#dialog-title', 'What is new to 2 views');
        $browser->js(
            'const all = document.querySelector("[data-newcomers-of-all]"); all.value = "5"; '.
                'all.dispatchEvent(new Event("change", { bubbles: true }))',
        );
        $browser->waitUntil(
            'return [...document.querySelectorAll("[data-newcomers]:is(select)")].every(({ value }) => value === "5")',
            'not all views give the same',
        );
        $browser->click('#dialog .primary')->waitForText('#message', 'Review 2 views.');
        $browser->waitUntil('return document.querySelector("#shelf-V1 .badge") === null', 'the badge stays');
        // Seats are filed under a layer that the view shows: it shows them then, and is asked to stay as it was.
        $browser->js('return shelfBench.pick({ found: 1, words: "seat_shell_00*", mode: "replace" })');
        $browser->js('return shelfBench.server.ask("POST", "/file", { layer: arguments[0].slice(1) })', $roof);
        $browser->waitForText('#message', '2 views show something differently now.');
        $browser->click('[data-command=views-as-they-were]')->waitForText('#message', 'Keep 2 views as before');
        $browser->js('document.querySelector("#shelf-V1 .view-picture").focus()');
        $browser->press('Enter')->waitForText('#message', 'View 1 applied.');
        $browser->waitUntil('return document.querySelector(".differs") === null', 'the desk differs');
        self::assertSame([], $browser->complaints());
    }

    public function test_two_views_are_compared_and_each_has_its_colour_in_the_canvas(): void
    {
        $browser = $this->workbench();
        [$number, $x, $y] = $this->facing($browser, 'Tree#20');
        $browser->js('return shelfBench.server.ask("POST", "/views", { name: "With it", keep_rungs: 1 })');
        $browser->js('return shelfBench.server.ask("POST", "/rungs", { keys: arguments[0], rung: 0 })', "O$number");
        $browser->js('return shelfBench.server.ask("POST", "/views", { name: "Without it", keep_rungs: 1 })');
        $browser->waitFor('#shelf-V2')->settled();
        $browser->press('Alt+c')->waitFor('#compare-first');
        $browser->js(
            'const first = document.querySelector("#compare-first"); first.value = "V1"; '.
                'first.dispatchEvent(new Event("change", { bubbles: true }))',
        );
        $browser->waitForText('#dialog', 'Only in With it')->waitFor('[data-compare-pick=first]');
        $browser->click('[data-compare-tint]')->waitForText('#legend', 'Only in With it');
        $browser->settled();
        [$red, , $blue] = $browser->pixel($x, $y);
        self::assertGreaterThan($red + 15, $blue, 'what only the first has is blue');
        $browser->click('.legend-entry')->waitForText('#card', 'Tree#20');
        self::assertSame([], $browser->complaints());
    }

    /** A file with one part comes into the open project, as another process brings it. */
    private function takeInBeside(Browser $browser): void
    {
        $gltf = \Tests\Core\Support\Gltf::triangle();
        $gltf['nodes'] = [['name' => 'Deckchair', 'mesh' => 0]];
        $gltf['scenes'] = [['nodes' => [0]]];
        $file = \Tests\Core\Support\Gltf::file($gltf);
        $key = $browser->js('return shelfBench.server.base.split("/").pop()');
        exec(
            PHP_BINARY.' '.escapeshellarg(dirname(__DIR__, 2).'/artisan')." shelf:import $key ".escapeshellarg($file).' 2>&1',
            $said,
            $status,
        );
        self::assertSame(0, $status, implode(' ', $said));
    }

    private static function row(Browser $browser, string $name): string
    {
        $key = $browser->js(
            'return [...document.querySelectorAll("#rows .row")].find((row) => row.dataset.name.endsWith(arguments[0])).dataset.key',
            $name,
        );

        return is_string($key) ? $key : '';
    }

    private static function cell(mixed $row, int $view): string
    {
        return '#row-'.(is_string($row) ? $row : '')." [data-col=V$view]";
    }

    /** @return list<mixed> what the ten views say of a row */
    private function says(Browser $browser, mixed $row): array
    {
        $says = $browser->js(
            'return [...document.querySelectorAll(`#row-${arguments[0]} .cell-button`)].map((cell) => cell.dataset.says)',
            $row,
        );

        return is_array($says) ? array_values($says) : [];
    }
}

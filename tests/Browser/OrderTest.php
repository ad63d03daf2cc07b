<?php

declare(strict_types=1);

namespace Tests\Browser;

/** Sorting rules, groups, copies, the history and tidy, by mouse and by keyboard. */
final class OrderTest extends BrowserTestCase
{
    public function test_a_list_is_written_tried_dry_run_and_taken_back(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->press('Alt+a')->waitForText('#sorting-rules', 'No rules yet.');
        self::assertNoFindings($browser, 'no sorting rules');
        // By keyboard alone: what has the focus adds the first.
        $browser->press('Enter')->waitFor('#dialog[open] #line-rule');
        self::assertNoFindings($browser, 'a sorting rule');
        $browser->type('#line-rule', '(seat')->press('Enter')->waitForText('#dialog .error', 'at character');
        self::assertSame('true', $browser->find('#line-rule')->getAttribute('aria-invalid'));
        $browser->type('#line-rule', 'seat*');
        $browser->type('#line-layer', 'Stands / All seats');
        $browser->type('#line-tags', 'Phases / First');
        $browser->press('Enter')->waitForText('#message', 'Add the sorting rule seat*.')->waitFor('#sorting-rules [data-line="1"]');
        $browser->waitForText('#sorting-rules', 'Stands / All seats');
        // The second by mouse; it would take some of the same.
        $browser->click('#sorting-rules [data-open="/sorting-rules/ask"]')->waitFor('#line-rule');
        $browser->type('#line-rule', 'kind:part seat')->type('#line-layer', 'Elsewhere')->click('#dialog .primary');
        $browser->waitForText('#sorting-rules', 'comes before');
        // What it would do, in the ledger, and as a pick.
        $browser->click('#sorting-rules [data-command=forecast]')->waitForText('#ledger-head', 'By rules')->waitForText('#rows', '−');
        $browser->click('#sorting-rules [data-line="1"] [data-pick^="what=taken"]')->waitForText('#card', 'parts');
        $browser->waitForText('#sorting-rules thead', 'Picked');
        self::assertNoFindings($browser, 'sorting rules, dry');
        $browser->js('document.querySelector("#sorting-rules [data-line=\"2\"] .icon-button").focus()');
        $browser->press('Alt+ArrowUp')->waitForText('#message', 'Move the sorting rule kind:part seat');
        $browser->waitUntil('return document.querySelector("#sorting-rules tbody tr").dataset.line === "2"', 'it stays below');
        $browser
            ->press('Alt+ArrowDown')
            ->waitUntil('return document.querySelector("#sorting-rules tbody tr").dataset.line === "1"', 'it stays above');
        $browser->click('#sorting-rules [data-act="POST /sorting-rules/run"]')->waitForText('#message', 'by rules.');
        $browser->waitFor('#sorting-rules [data-pick="what=changed"]:disabled');
        $browser->js('shelfBench.command("undo")');
        $browser->waitForText('#message', 'Undone: Sort')->waitForText('#sorting-rules', 'comes before');
        // A list that is read off the model.
        $browser->js('shelfBench.openDialog("/sorting-rules/proposed")');
        $browser->waitFor('#dialog .sorting-proposed [type=checkbox]');
        self::assertNoFindings($browser, 'rules read off the model');
        $browser->press('Escape')->press('Escape')->waitUntil('return document.querySelector("#sorting-rules").hidden', 'the screen stays');
        self::assertSame([], $browser->complaints());
    }

    public function test_a_group_is_made_named_in_place_taken_apart_and_a_row_of_copies_is_made(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->js('shelfBench.pick({ found: 1, words: "seat_shell_00?", mode: "replace" })');
        $browser
            ->waitForText('#card', '9 parts')
            ->press('Alt+g')
            ->waitForText('#message', 'Group 9 objects.')
            ->waitFor('#rows input.rename');
        $browser->js('document.querySelector("#rows input.rename").select()');
        $browser->find('#rows input.rename')->sendKeys('Front row');
        $browser->press('Enter')->waitFor('#rows .row[data-name="Front row"]');
        self::assertSame('nesting', $browser->js('return document.querySelector("#rows .window").dataset.lens'));
        $group = (string) $browser->js('return document.querySelector("#rows .row[data-name=\"Front row\"]").dataset.key');
        // By keyboard: out of what it stands in, and back by undo.
        $level = (int) $browser->js("return Number(document.querySelector('#rows [data-key=$group]').getAttribute('aria-level'))");
        $browser->js("document.querySelector('#rows [data-key=$group]').focus()");
        $browser->press('Alt+Shift+ArrowLeft')->waitForText('#message', 'Move 1 object after');
        $out = $level - 1;
        $browser->waitUntil(
            "return document.querySelector('#rows [data-key=$group]')?.getAttribute('aria-level') === '$out'",
            'it stays inside',
        );
        $browser->js('shelfBench.command("undo")');
        $browser->waitForText('#message', 'Undone: Move 1 object after');
        // Taken apart, which is said first where it means something for rungs.
        $browser->js("shelfBench.setRung(['$group'], 0)");
        $browser->waitForText('#message', 'Hidden')->js("shelfBench.pick({ keys: '$group', mode: 'replace' })");
        $browser->waitForText('#card', 'Front row')->press('Alt+u')->waitForText('#dialog', '9 objects will be shown more on your desk.');
        self::assertNoFindings($browser, 'what it means');
        $browser->press('Enter')->waitForText('#message', 'Ungroup 1 group.');
        $browser->js('shelfBench.pick({ found: 1, words: "seat_shell_001", mode: "replace" })');
        $browser->waitForText('#card', 'Seat_Shell_001')->press('Alt+k')->waitFor('#dialog .copy')->click('#dialog [name=way][value=row]');
        self::assertNoFindings($browser, 'copies');
        $browser->type('#dialog [name=count]', '5')->type('#dialog [name=x]', '0.75')->click('#dialog .primary');
        $browser->waitForText('#message', 'Copy 1 object 5 times.')->waitForText('#card', '5 parts picked');
        $browser->press('Alt+m')->waitFor('#dialog [name=into]');
        self::assertNoFindings($browser, 'move into a group');
        $browser->press('Escape')->press('Control+Delete')->waitForText('#message', 'Delete 5 objects.');
        // Back to before the copies, in the history.
        $browser->press('Alt+z')->waitForText('#changes', 'Copy 1 object 5 times');
        self::assertNoFindings($browser, 'history');
        $browser->click('#changes tbody tr:nth-child(2) [data-act="POST /changes/back"]')->waitForText('#message', 'Undone: 2 changes.');
        $browser->waitForText('#changes', 'taken back');
        self::assertSame([], $browser->complaints());
    }

    public function test_three_findings_are_mended_and_a_habit_is_waved_through(): void
    {
        $browser = $this->workbench(drawn: false);
        $browser->press('Alt+t')->waitForText('#tidy', 'Each finding says why it matters.')->press('Enter');
        $browser->waitForText('#tidy', 'Look again')->waitForText('#tidy', 'no name');
        $browser->js('for (const one of document.querySelectorAll("#tidy details")) one.open = true');
        self::assertNoFindings($browser, 'tidy');
        $mends = ['unnamed' => ['name', 'Rename'], 'exporters-names' => ['name', 'Rename'], 'empty' => ['clear-out', 'Clear out']];
        foreach ($mends as $check => [$mend, $says]) {
            if ($browser->has("#tidy [data-line=$check]")) {
                $browser->js("document.querySelector(`#tidy [data-line=$check] [data-values='check=$check&mend=$mend']`).click()");
                $browser->waitForText('#message', $says);
                $browser->waitUntil("return !document.querySelector('#tidy progress')", 'it is still being looked through');
            }
        }
        self::assertFalse($browser->has('#tidy [data-line=empty]'), 'what was mended is not told again');
        $browser->js('document.querySelector("#tidy [data-line=twins]").open = true');
        $browser->click('#tidy [data-line=twins] [data-values="check=twins&mend=delete-twins"]')->waitForText('#message', 'Delete ');
        $browser->waitUntil("return !document.querySelector('#tidy progress, #tidy [data-line=twins]')", 'twins are still told');
        $browser->js('document.querySelector("#tidy [data-line=same-siblings]").open = true');
        $browser
            ->click('#tidy [data-line=same-siblings] [data-values="check=same-siblings&of=all"]')
            ->waitForText('#tidy', 'Waved through:');
        $browser->waitUntil("return !document.querySelector('#tidy [data-line=same-siblings]')", 'a habit is told again');
        // On a telephone it is read, and goes on to the rules.
        $browser->size(360, 780);
        self::assertSame(
            [360, true],
            $browser->js('return [innerWidth, document.getElementById("tidy").getBoundingClientRect().right <= 360]'),
            'it is wider than a small window',
        );
        $browser->size(1280, 800);
        $browser->js('document.querySelector("#tidy [data-line=unsorted]").open = true');
        $browser->click('#tidy [data-command=sorting-rules]')->waitForText('#sorting-rules', 'No rules yet.')->press('Escape');
        $browser->js('shelfBench.command("summary")');
        $browser->waitFor('.summary-page')->waitForText('.summary-page', '51 Seats');
        self::assertNoFindings($browser, 'how it is sorted');
        self::assertSame([], $browser->complaints());
    }
}

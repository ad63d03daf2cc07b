<?php

declare(strict_types=1);

// Walks through the demo as a new person and takes a picture of each main view. Called by bin/screenshots.

use Tests\Browser\Support\Browser;

require __DIR__.'/../vendor/autoload.php';
$app = require __DIR__.'/../bootstrap/app.php';
$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
$folder = __DIR__.'/../docs/screenshots';
$mail = 'pictures@marlpit.example';
App\Models\User::query()
    ->where('email', $mail)
    ->first()
    ?->projects()
    ->get()
    ->each(static fn (App\Models\Project $project) => $project->delete());
App\Models\User::query()->where('email', $mail)->delete();
$person = App\Models\User::query()->create(['email' => $mail, 'name' => 'Ida Keller', 'password' => 'tidy-pictures']);
$take = static function (string $size, string $name, ?App\Models\Project $into = null) use ($app, $person): App\Models\Project {
    $path = (string) tempnam(sys_get_temp_dir(), 'shelf');
    MarlpitBaths\MarlpitBaths::write($path, $size);
    $import = $app->make(App\Jobs\Uploads::class)->receive($person, $into, $path, $name, new App\Jobs\Sorted);
    while (! $import->refresh()->isOver()) {
        usleep(200_000);
    }

    return $import->project ?? throw new RuntimeException($import->error);
};
ini_set('memory_limit', '2G');
$take('demo', 'Marlpit Baths, as it came.glb');
$project = $take('demo', 'Marlpit Baths.glb');
$import = App\Models\Import::query()->where('project_id', $project->id)->firstOrFail();
(new App\Jobs\SortDemo($import->id))->handle($app->make(App\Changes\History::class));
$base = "/projects/$project->key";
$layer = static fn (string $name): string => 'L'.$project->layers()->where('name', $name)->value('no');
$tag = static fn (string $name): string => 'T'.
    Illuminate\Support\Facades\DB::table('tags')->where('project_id', $project->id)->where('name', $name)->value('no');

$browser = Browser::open((string) config('app.url'))->signIn($mail, 'tidy-pictures')->visit($base)->settled();
$go = static function (string $script) use ($browser): void {
    $browser->js($script);
    usleep(900_000);
    $browser->settled(90);
};
$clear = static fn () => $browser->js('document.getElementById("message").replaceChildren(); document.activeElement?.blur?.()');
$shot = static function (string $name) use ($browser, $clear, $folder): void {
    usleep(600_000);
    $browser->settled(90);
    $clear();
    $browser->screenshot("$folder/$name.png");
};
$apply = static function (int $view) use ($browser): void {
    // What is said goes after a while: it is heard before the picture is waited for.
    $browser->js("document.querySelectorAll('.view-picture')[$view].click()");
    $browser->waitForText('#message', 'applied.');
    usleep(900_000);
    $browser->settled(90);
};
$apply(1);
$go("shelfBench.pick({ keys: '{$layer('Seats')}', mode: 'replace' })");
$shot('workbench-pick');
$browser->js('shelfBench.command("clear-pick"); shelfBench.finder.search("kind:part layer:Seats not has aisle")');
$browser->waitForText('#hits', 'objects')->js('document.querySelector("#words").focus(); shelfBench.finder.step(1)');
$browser->waitForText('#hit-place', '1 of');
$shot('finding');
$browser->js('shelfBench.finder.search("")');
$apply(2);
// Tags in folders, tinted by them.
$go(
    'shelfBench.turn(document.getElementById("lens-tags")); shelfBench.ledger.arrange({ fold: "F1,F2,F3", unfold: 1 }); '.
        'shelfBench.command("tint-tag")',
);
foreach (['F1', 'F2', 'F3'] as $key) {
    $go("if (document.querySelector('#row-$key')?.getAttribute('aria-expanded') === 'false') shelfBench.ledger.fold('$key', true)");
}
$go("shelfBench.pick({ keys: '{$tag('Client may change')}', mode: 'replace' }, false)");
$shot('tags');
$go('shelfBench.command("tint-own"); shelfBench.command("clear-pick")');
$go('shelfBench.turn(document.getElementById("lens-layers"))');
$browser->js('shelfBench.command("clear-pick")');
$apply(1);
$panel = $project->objects()->where('name', 'Mesh_33')->value('no');
$browser->js("shelfBench.why($panel)");
$browser->waitFor('#dialog[open] .why');
$shot('why');
$browser->js('shelfBench.dialogs.close()');
$browser->dark(true);
usleep(1_500_000);
// A plan cut at the pool, and a side that is cut off; then the output beside a desk that hides parts to work.
$apply(0);
$go('shelfBench.section.change({ box: null, planes: [[[0, 0, 1], 1.2], [[1, 0, 0], 21]] })');
$go('shelfBench.command("section")');
$browser->waitUntil('return shelfBench.canvas.painter.look.caps.visible', 'no faces are filled');
$shot('section-dark');
$browser->dark(false);
$go('shelfBench.section.change({ planes: [] }); shelfBench.section.close()');
$apply(1);
$go("shelfBench.setRung(['{$layer('Glazing')}', '{$layer('Stands')}'], 0)");
$go("shelfBench.setRung(['{$layer('Site')}'], 1)");
$go("shelfBench.setOutput(['{$layer('Lights')}'], 'never')");
$go("shelfBench.setOutput(['{$layer('Plant')}'], 'desk')");
$go('shelfBench.command("show-output")');
$browser->click('.differ')->waitForText('#row-menu', 'only in the picture');
usleep(600_000);
$browser->settled(90)->js('document.getElementById("message").replaceChildren()');
$browser->screenshot("$folder/output.png");
$browser->js('document.getElementById("row-menu").hidePopover()');
$go('shelfBench.command("show-desk")');
$apply(0);
$columns = '[["triangles", 84], ["drawn", 76], ["calls", 62], ["drawnbytes", 84], ["desk", 46]]';
$go("shelfBench.ledger.arrange({ columns: '$columns', sort: 'triangles', down: 1 }); shelfBench.command('weight')");
$browser->waitFor('.weight-part');
$go('document.querySelector(".weight-part[aria-label^=\"Plant\"]").dispatchEvent(new MouseEvent("click", { bubbles: true }))');
$browser->waitForText('.weight-trail', 'Plant');
$go('shelfBench.command("clear-pick")');
$shot('weight');
$go(
    'shelfBench.ledger.arrange({ columns: '.
        'JSON.stringify([["count", 62], ["weigh", 78], ["desk", 46], ["output", 54], ["lock", 38]]), sort: "" })',
);
$apply(2);
$browser->js('shelfBench.weight.lighten()');
$browser->waitFor('#lighten-triangles')->type('#lighten-triangles', '50000');
$browser->js('document.querySelector("[data-lighten-ask] .primary").click()');
$browser->waitForText('.lighten-says', 'Loses')->click('[data-lighten-lost]');
$browser->waitUntil('return document.querySelector("[data-picture=lost]").naturalWidth > 0', 'there is no picture');
$shot('lighten');
$browser->js('shelfBench.weight.close()');
// Views as columns, with a block of cells; two compared; a second file that is new to all of them; and a presentation.
$apply(1);
$browser->js('shelfBench.command("grid")');
$browser->waitFor('.view-head')->js('document.querySelectorAll(".view-head .head-button")[1].click()');
$browser->waitForText('#grid-bar', '1 column');
$browser->dark(true);
usleep(1_500_000);
$browser->settled(90);
$browser->js('document.getElementById("message").replaceChildren()');
$browser->screenshot("$folder/grid-dark.png");
$browser->dark(false);
$browser->js('shelfBench.command("grid")');
$browser->waitUntil('return !document.querySelector(".view-head")', 'the grid stays');
$browser->js('shelfBench.command("compare")');
$browser
    ->waitFor('#compare-first')
    ->js(
        'const first = document.querySelector("#compare-first"); first.value = "V3"; first.dispatchEvent(new Event("change", '.
            '{ bubbles: true }))',
    );
$browser->waitForText('#dialog', 'Only');
usleep(900_000);
$browser->screenshot("$folder/compare.png");
$browser->js('shelfBench.dialogs.close()');
// What happens by itself: rules tried dry, with what they would do in the ledger; what is untidy; the history.
foreach (
    [
        ['rule' => 'class:Window or material=glass', 'layer' => 'Envelope / Glazing', 'only' => 1],
        ['rule' => 'seat*', 'layer' => 'Stands / Seats', 'tags' => 'To be checked'],
        ['rule' => '"pipe" or "valve"', 'layer' => 'Plant / Pipes and valves'],
        ['rule' => 'kind:part seat', 'layer' => 'Furniture', 'only' => 1],
        ['rule' => 'is unnamed', 'name' => '{layer} {number}', 'goes_on' => 1],
    ] as $rule
) {
    $browser->js('shelfBench.server.ask("POST", "/sorting-rules", arguments[0])', $rule);
    $browser->waitForText('#message', 'Add the sorting rule');
    $browser->js('document.getElementById("message").replaceChildren()');
}
$browser->press('Alt+a')->waitForText('#sorting-rules', 'Furniture');
$go('shelfBench.command("forecast"); shelfBench.command("fit-all")');
$shot('sorting-rules');
$go('shelfBench.command("forecast"); shelfBench.command("sort-by-rules")');
$unnamed = (int) $project->changes()->where('name', 'like', 'Add the sorting rule is%')->max('no');
$browser->waitForText('#message', 'by rules')->js("shelfBench.server.ask('POST', '/undo', { change: $unnamed })");
$browser->waitForText('#message', 'Undone')->js('document.getElementById("message").replaceChildren()');
$go('shelfBench.command("history")');
$shot('history');
$browser->js('shelfBench.server.ask("POST", "/undo")');
$browser->waitForText('#message', 'Undone: Sort')->js('document.getElementById("message").replaceChildren()');
$browser->press('Alt+t')->waitForText('#tidy', 'Each finding')->press('Enter')->waitForText('#tidy', 'Look again', 90);
$browser->waitForText('#tidy', 'called as exporters', 90);
$go('for (const one of document.querySelectorAll("#tidy details")) one.open = one.dataset.line === "same-as-layer"');
$browser->dark(true);
usleep(1_500_000);
$shot('tidy-dark');
$browser->dark(false);
$go('shelfBench.screens.close()');
$take('small', 'Marlpit Baths, the annexe.glb', $project);
$browser->visit($base)->settled(90)->press('Alt+r')->waitForText('#dialog-title', 'What is new');
usleep(600_000);
$browser->screenshot("$folder/review.png");
$browser->visit("$base/walk/all#2")->waitForText('#present-name', (string) $project->views()->where('no', 2)->value('name'));
$browser->waitUntil(
    'const { canvas } = shelfPresenting; return !canvas.loading && canvas.packs.missing === 0 && canvas.painter.summary.done',
    'the picture is not whole',
);
usleep(6_000_000);
$browser->screenshot("$folder/presentation.png");
$browser->visit("$base/pictures/all")->waitFor('#pictures');
$browser->waitUntil(
    'const { canvas } = window.shelfPictures ?? {}; return canvas && !canvas.loading && !canvas.untextured',
    'nothing comes',
);
$browser->js('document.getElementById("pictures-all").click(); document.querySelectorAll("[name=views]")[1].click()');
$browser->click('#pictures-clear')->click('#pictures-make')->waitForText('#pictures-done', 'Saved as', 120);
$browser->screenshot("$folder/pictures.png");
$browser->visit($base)->waitFor('#sources');
$report = parse_url((string) $browser->js('return JSON.parse(document.getElementById("sources").dataset.sources)[0].report'), PHP_URL_PATH);
foreach (['projects' => '/projects', 'report' => $report] as $name => $path) {
    $browser->dark(false);
    $browser->visit((string) $path);
    usleep(600_000);
    $browser->screenshot("$folder/$name.png");
}
if (! in_array('--without-huge', $argv, true)) {
    $huge = $take('huge', 'Marlpit region.glb');
    $browser->visit("/projects/$huge->key");
    $browser->settled(240)->screenshot("$folder/workbench-huge.png");
    $huge->delete();
}
$browser->quit();
echo "The pictures are in docs/screenshots/.\n";

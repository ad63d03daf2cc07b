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
$take = static function (string $size, string $name) use ($app, $person): App\Models\Project {
    $path = (string) tempnam(sys_get_temp_dir(), 'shelf');
    MarlpitBaths\MarlpitBaths::write($path, $size);
    $import = $app->make(App\Jobs\Uploads::class)->receive($person, null, $path, $name, new App\Jobs\Sorted);
    while (! $import->refresh()->isOver()) {
        usleep(200_000);
    }

    return $import->project ?? throw new RuntimeException($import->error);
};
ini_set('memory_limit', '2G');
$project = $take('demo', 'Marlpit Baths.glb');
$base = "/projects/$project->key";
$layer = static fn (string $name): string => 'L'.$project->layers()->where('name', $name)->value('no');
$hall = '{ eye: [37, -37, 23], target: [-1, -1.5, 1], fov: 40 }';

$browser = Browser::open((string) config('app.url'))->signIn($mail, 'tidy-pictures')->visit($base)->settled();
$go = static function (string $script) use ($browser): void {
    $browser->js($script);
    usleep(900_000);
    $browser->settled(90);
};
$keep = static function (string $name) use ($browser): void {
    $browser->js('shelfBench.command("keep-view")');
    $browser->waitFor('#view-name')->type('#view-name', $name)->click('#dialog .primary')->waitForText('#shelf', $name);
    usleep(500_000);
};
$clear = static fn () => $browser->js('document.getElementById("message").replaceChildren(); document.activeElement?.blur?.()');
$keep('Arrival');
$go(
    "shelfBench.setRung(['{$layer('20 Roof')}', '{$layer('21 Roof skin')}'], 2); shelfBench.setRung(['{$layer(
        '96 Finishes B',
    )}'], 0); shelfBench.setRung(['{$layer('91 Planting')}'], 1); shelfBench.setLock(['{$layer(
        '10 Structure',
    )}'], 1); shelfBench.setLock(['{$layer('40 Basins')}'], 2)",
);
$go("shelfBench.canvas.viewpoint.set($hall, true)");
$keep('Hall, roof ghosted');
$go(
    "shelfBench.setRung(['{$layer('20 Roof')}', '{$layer('21 Roof skin')}', '{$layer('10 Structure')}', '{$layer('12 Steel')}', '{$layer(
        '95 Lights',
    )}'], 0)",
);
$go('shelfBench.canvas.viewpoint.set({ eye: [-2, -6, 62], target: [-2, 0, 0], fov: 40 }, true)');
$keep('Pool level from above');
$go('shelfBench.canvas.viewpoint.set({ eye: [8, 3, 5.4], target: [-6, -11, .6], fov: 52 }, true)');
$keep('Stand from the gallery');
$go('document.querySelectorAll(".view-picture")[1].click()');
$clear();
$browser->screenshot("$folder/workbench-ghosts.png");
$go("shelfBench.pick({ keys: '{$layer('51 Seats')}', mode: 'replace' })");
$clear();
$browser->screenshot("$folder/workbench-pick.png");
$browser->js('shelfBench.command("clear-pick"); shelfBench.finder.search("kind:part layer:Seats not has aisle")');
$browser->waitForText('#hits', 'objects')->js('document.querySelector("#words").focus(); shelfBench.finder.step(1)');
$browser->waitForText('#hit-place', '1 of');
usleep(900_000);
$browser->settled(90);
$clear();
$browser->screenshot("$folder/finding.png");
$browser->js('shelfBench.finder.search("")');
$go('document.querySelectorAll(".view-picture")[1].click()');
$go(
    'shelfBench.turn(document.getElementById("lens-objects")); shelfBench.ledger.arrange({ columns: JSON.stringify([["triangles", 76], '.
        '["height", 66], ["material", 104], ["desk", 46]]), sort: "triangles", down: 1 }); shelfBench.command("tint-layer")',
);
$browser->waitFor('.legend-entry')->settled(90);
$clear();
$browser->screenshot("$folder/objects.png");
$browser->dark(true);
usleep(1_500_000);
$clear();
$browser->settled(90)->screenshot("$folder/objects-dark.png");
$browser->dark(false);
$browser->js(
    'shelfBench.command("tint-own"); shelfBench.turn(document.getElementById("lens-layers")); shelfBench.ledger.arrange({ columns: '.
        'JSON.stringify([["count", 62], ["weigh", 78], ["desk", 46], ["lock", 38]]), sort: "" }); shelfBench.command("commands")',
);
$browser->waitFor('.command-box input')->type('.command-box input', 'seat')->waitForText('#command-list', '51 Seats');
usleep(1_500_000);
$browser->settled(90);
$clear();
$browser->screenshot("$folder/commands.png");
$browser->js('shelfBench.dialogs.close(); shelfBench.pick({ found: 1, words: "seat_shell_00?", mode: "replace" })');
$browser->waitForText('#card', '9 parts')->js('shelfBench.command("rename-pick")');
$browser->waitFor('#rn-pattern')->type('#rn-pattern', '{parent}, seat {number}')->waitForText('#rename-preview', 'Row A, seat 1');
usleep(500_000);
$clear();
$browser->screenshot("$folder/rename.png");
$browser->js('shelfBench.dialogs.close()');
$browser->js("shelfBench.setLock(['{$layer('20 Roof')}'], 1)");
$panel = $project->objects()->where('name', 'Mesh_33')->value('no');
$browser->js("shelfBench.why($panel)");
$browser->waitFor('#dialog[open] .why');
usleep(600_000);
$browser->settled(90);
$clear();
$browser->screenshot("$folder/why.png");
$browser->dark(true);
usleep(1_500_000);
$browser->settled(90);
$browser->screenshot("$folder/why-dark.png");
$browser->js('shelfBench.dialogs.close()');
usleep(300_000);
$browser->settled(90)->screenshot("$folder/workbench-dark.png");
$report = parse_url((string) $browser->find('.crumb a')->getAttribute('href'), PHP_URL_PATH);
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

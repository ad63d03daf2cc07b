<?php

declare(strict_types=1);

// Makes the small pictures of the demo's views in demo/pictures/, on the newest sorted demo. Called by bin/screenshots --demo-pictures.

use App\Models\Project;
use MarlpitBaths\Sorted;
use Tests\Browser\Support\Browser;

require __DIR__.'/../vendor/autoload.php';
$app = require __DIR__.'/../bootstrap/app.php';
$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
$project = Project::query()
    ->where('name', 'Marlpit Baths')
    ->whereHas('people', static function ($people): void {
        $people->where('email', config('shelf.demo.email'));
    })
    ->latest('id')
    ->firstOrFail();
$browser = Browser::open((string) config('app.url'))->signIn((string) config('shelf.demo.email'), (string) config('shelf.demo.password'));
$browser->visit("/projects/$project->key")->settled(90);
foreach (Sorted::VIEWS as $name => $view) {
    $number = $project->views()->where('name', $name)->value('no');
    $browser->js('document.querySelector(`.view-picture[data-view="${arguments[0]}"]`).click()', $number);
    $browser->waitForText('#message', "$name applied.");
    usleep(1_500_000);
    $browser->settled(90);
    $address = (string) $browser->js('return shelfBench.canvas.picture()');
    $bytes = (string) base64_decode(substr($address, strlen('data:image/jpeg;base64,')), true);
    file_put_contents(__DIR__."/../demo/pictures/{$view['picture']}.jpg", $bytes);
    echo "$name: ".strlen($bytes)." bytes\n";
}
$browser->quit();

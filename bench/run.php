<?php

declare(strict_types=1);

// The performance rows, each with its floor measured in the same run. Called by bin/bench, which starts what it needs.

use MarlpitBaths\MarlpitBaths;
use VineShelf\Formats\Files;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;

require __DIR__.'/../vendor/autoload.php';
require __DIR__.'/Client.php';
require __DIR__.'/Lightens.php';
require __DIR__.'/Ordering.php';
require __DIR__.'/Rows.php';
require __DIR__.'/Seen.php';
require __DIR__.'/Served.php';
require __DIR__.'/Simplifying.php';
require __DIR__.'/Sorting.php';
require __DIR__.'/Viewing.php';

ini_set('memory_limit', '4G');
$sizes =
    array_values(array_filter(array_slice($argv, 1), static fn (string $word): bool => isset(MarlpitBaths::SIZES[$word]))) ?:
    array_values(array_diff(array_keys(MarlpitBaths::SIZES), ['small']));
$parts = ['core', 'import', 'requests', 'rules', 'weights', 'lighten', 'sorting', 'order', 'views', 'simplify', 'canvas'];
$only =
    array_merge(
        ...array_map(static fn (string $word): array => str_starts_with($word, '--only=') ? explode(',', substr($word, 7)) : [], $argv),
    ) ?:
    $parts;
$unknown = array_diff(
    array_filter(array_slice($argv, 1), static fn (string $word): bool => $word !== '--json' && ! str_starts_with($word, '--only=')),
    array_keys(MarlpitBaths::SIZES),
);
$unknown = [...$unknown, ...array_diff($only, $parts)];
if ($unknown !== []) {
    fwrite(
        STDERR,
        'Not known: '.
            implode(', ', $unknown).
            '. Sizes are '.
            implode(', ', array_keys(MarlpitBaths::SIZES)).
            '; --only takes '.
            implode(', ', $parts).
            '; --json prints data.'.
            PHP_EOL,
    );
    exit(2);
}
$heavy = static fn (string $size): bool => $size === 'huge' || $size === 'scattered';
$rows = new Rows(in_array('--json', $argv, true));
$rows->note(
    sprintf(
        'PHP %s, JIT %s, %s',
        PHP_VERSION,
        opcache_get_status(false)['jit']['on'] ?? false ? 'on' : 'off',
        trim((string) shell_exec("lscpu | sed -n 's/^Model name: *//p'")),
    ),
);
$rows->noise();

/** @var array<string, \Closure(string): void> rows by part */
$run = [];

// Rungs and locks in effect, and how they grow: the demo's own layering over 10,000 to 200,000 objects.
$run['core'] = static function (string $size) use ($rows, $heavy): void {
    $path = Rows::file($size);
    $intake = Files::open($path);
    $plan = VineShelf\Layers\FilingPlan::of($intake, VineShelf\Layers\SortBy::Best);
    $objects = $intake->objects();
    $meshes = $intake->meshes();
    $parents = $layers = $kinds = $triangles = [];
    for ($row = 1; $row <= $objects->count(); $row++) {
        $parents[$row] = $objects->parents[$row];
        $layers[$row] = $plan->layerOf[$row] + 2;
        $kinds[$row] = $objects->kinds[$row];
        if ($objects->meshes[$row] >= 0) {
            $triangles[$row] = $meshes[$objects->meshes[$row]]->triangles;
        }
    }
    $columns = SceneBuilder::columns($parents, $layers, $kinds, [], $triangles);
    $tree = new LayerTree([
        new Layer(1, 0, 0, 'Unsorted', '#999999'),
        ...array_map(
            static fn (int $index): Layer => new Layer($index + 2, 0, $index, $plan->names[$index], '#999999'),
            array_keys($plan->names),
        ),
    ]);
    mt_srand(5);
    $own = [];
    for ($n = 0; $n < 2000; $n++) {
        $own[mt_rand(1, $objects->count())] = mt_rand(0, 4);
    }
    $settings = Settings::of([3 => 2, 7 => 0, 20 => 1], $own);
    $took = Rows::best(9, static function () use ($columns, $tree, $settings): void {
        $inEffect = new InEffect(new Scene(new ColumnsInMemory($columns)), new Organizers($tree), $settings);
        $inEffect->rungs();
        $inEffect->locks();
    });
    $floor = Rows::best(9, static fn () => [unpack('V*', $columns['parent']), unpack('V*', $columns['end'])]);
    $rows->add(
        'rungs and locks in effect, core',
        $size,
        $took,
        $floor,
        'unpacking two columns',
        $heavy($size) ? 25 : null,
        count($parents).' objects, '.$tree->count().' layers, 2,000 own rungs',
    );
    $tags = $tagRungs = [];
    for ($tag = 1; $tag <= 60; $tag++) {
        $tags[] = new VineShelf\Tags\Tag($tag, 1 + ($tag % 3), $tag, "Tag $tag", '#999999', lock: VineShelf\Locks\Lock::from($tag % 3));
        $tagRungs[$tag] = $tag % 6;
        $columns["tag.$tag"] = Sorting::half($objects->count(), $tag)->bytes;
    }
    $folders = array_map(
        static fn (int $number): VineShelf\Folders\Folder => new VineShelf\Folders\Folder(
            $number,
            VineShelf\Folders\Holds::Tags,
            0,
            $number,
            "Bundle $number",
        ),
        [1, 2, 3],
    );
    $sorted = new Organizers($tree, new VineShelf\Tags\TagTree($folders, $tags));
    $settings = Settings::of([3 => 2, 7 => 0, 20 => 1], $own, $tagRungs, [2 => 3]);
    $took = Rows::best(9, static function () use ($columns, $sorted, $settings): void {
        $inEffect = new InEffect(new Scene(new ColumnsInMemory($columns)), $sorted, $settings);
        $inEffect->rungs();
        $inEffect->locks();
    });
    $rows->add(
        'the same with 60 tags on half of them each',
        $size,
        $took,
        $floor,
        'unpacking two columns',
        $heavy($size) ? 35 : null,
        'a rung and a lock on each tag, three folders',
    );
};

// Taking a glTF in: the whole job against its parts done plainly.
$run['import'] = static function (string $size) use ($rows, $heavy): void {
    $import = Rows::import(Rows::file($size), $heavy($size) ? 0 : 5);
    $times = $size === 'demo' ? 6 : 3.5;
    $rows->add(
        'import of glTF',
        $size,
        $import['ms'],
        $import['floor'],
        'json_decode + unpack + COPY',
        $heavy($size) || $size === 'demo' ? $times * $import['floor'] : null,
        "{$import['objects']} objects; ".
            ($heavy($size) ? 'once, in a new process' : 'median of 5, in a worker that has taken one in').
            ($heavy($size) || $size === 'demo' ? "; goal is $times times the floor" : ''),
    );
    $rows->add('peak memory of the import', $size, $import['memory'], null, '', 400, 'MB, of the whole worker process', 'MB');
};

// Requests, over nginx and PHP-FPM.
$run['requests'] = static function (string $size) use ($rows, $heavy): void {
    $served = Served::requests($size);
    foreach ($served['rows'] as $name => [$milliseconds, $empty]) {
        $region = str_starts_with($name, 'region');
        $times = match (true) {
            str_contains($name, 'everything picked') => 4.0,
            str_starts_with($name, 'a window') => 2.5,
            default => 3.0,
        };
        $rows->add(
            $name,
            $size,
            $milliseconds,
            $region ? $served['boxes'] : $empty,
            $region ? 'projecting all bounding boxes' : 'an empty authenticated request',
            $heavy($size) ? ($region ? 250.0 : $times * $empty) : null,
            'median of 17',
        );
    }
    foreach ($heavy($size) ? Served::filing($size) : [] as $name => $filed) {
        $rows->add($name, $size, $filed['ms'], $filed['floor'], 'the bare UPDATE', 3000, 'once');
    }
};

// Rules in the core, on the index of the project that the requests used.
$run['rules'] = static function (string $size) use ($rows, $heavy): void {
    foreach (Served::rules($size) as $name => $rule) {
        $rows->add(
            $name,
            $size,
            $rule['ms'],
            $rule['floor'],
            'the bitset operations alone',
            $heavy($size) ? $rule['goal'] : null,
            $rule['rule'].' · '.number_format($rule['found']).' found',
        );
    }
};

// What all layers weigh, and all parts of the map at its top.
$run['weights'] = static function (string $size) use ($rows, $heavy): void {
    foreach (Served::weights($size) as $name => [$took, $floor, $note, $goal]) {
        $rows->add($name, $size, $took, $floor, 'adding up the triangles of all', $heavy($size) ? $goal : null, $note);
    }
};

// Rungs that fit a budget, proposed.
$run['lighten'] = static function (string $size) use ($rows, $heavy): void {
    foreach (Lightens::requests($size) as $name => [$took, $floor, $goal, $note]) {
        $rows->add($name, $size, $took, $floor, 'an empty request', $heavy($size) ? $goal : null, $note);
    }
};

// Tags, folders and live sets, in the same project.
$run['sorting'] = static function (string $size) use ($rows, $heavy): void {
    foreach (Sorting::requests($size) as $name => [$milliseconds, $floor, $times, $floorIs]) {
        $isOnce = str_contains($name, 'tagging') || str_starts_with($name, 'taking back');
        $goal = match (true) {
            $isOnce => 3000.0,
            str_starts_with($name, 'details') => 200.0,
            default => $times === null ? null : $times * $floor,
        };
        $rows->add($name, $size, $milliseconds, $floor, $floorIs, $heavy($size) ? $goal : null, $isOnce ? 'once' : 'median of 17');
    }
};

// Rules that sort, regrouping, copies and tidy, in the same project.
$run['order'] = static function (string $size) use ($rows, $heavy): void {
    foreach (Ordering::requests($size) as $name => [$milliseconds, $floor, $times, $floorIs]) {
        $rows->add($name, $size, $milliseconds, $floor, $floorIs, $heavy($size) ? 5000.0 : null, 'once');
    }
};

// Two hundred views, in the same project.
$run['views'] = static function (string $size) use ($rows, $heavy): void {
    foreach (Viewing::requests($size) as $name => [$milliseconds, $floor, $times, $note]) {
        $goal = match (true) {
            str_starts_with($name, 'filing') => 3000.0,
            default => $times === null ? null : $times * $floor,
        };
        $rows->add($name, $size, $milliseconds, $floor, 'an empty authenticated request', $heavy($size) ? $goal : null, $note);
    }
};

// Coarser versions of meshes: the same ones, whatever sizes are asked for.
$run['simplify'] = static function () use ($rows): void {
    $best = 'the best public simplifier';
    $note = 'the worst of four versions';
    foreach (Simplifying::all(Rows::file('demo')) as $name => $mesh) {
        $of = number_format($mesh['triangles']).' triangles';
        $rows->add('fast, microseconds a triangle', $name, 1e6 / $mesh['fast'], null, '', 1e6 / 150_000, $of, 'us');
        $rows->add('careful, microseconds a triangle', $name, 1e6 / $mesh['careful'], null, '', null, 'four versions of '.$of, 'us');
        $rows->add('careful, mean error', $name, $mesh['mean'], 1.0, $best, 1.5, $note, 'x');
        $rows->add('careful, greatest error', $name, $mesh['most'], 1.0, $best, 1.5, $note, 'x');
    }
};

// The first picture and drawing while the camera moves, in headless Chromium without a graphics card.
$run['canvas'] = static function (string $size) use ($rows): void {
    $drawn = Seen::canvas($size);
    ['cold' => $cold, 'warm' => $warm] = $drawn;
    $before = sprintf('%.2f MB before it', $drawn['megabytes']);
    $rows->add(
        'something true on the canvas, fresh browser',
        $size,
        $cold['first'],
        $drawn['bare'],
        'the page on the screen, without a canvas',
        1.6 * $drawn['bare'],
        sprintf('its document is read after %.0f ms', $cold['ready']),
    );
    $rows->add('something true on the canvas', $size, $warm['first'], $warm['ready'], 'the page being ready', 1500, $before);
    $rows->add(
        'the picture complete within the budget',
        $size,
        $warm['whole'],
        $drawn['plain'],
        'drawing every triangle once',
        $size === 'demo' ? 6000 : 12_000,
        sprintf('fresh browser: %.0f ms', $cold['whole']),
    );
    $rows->add(
        'a frame while the camera moves',
        $size,
        $drawn['frame'],
        $drawn['plain'],
        'drawing every triangle with the same library',
        1000 / 12 + 0.1,
        sprintf('%.1f frames a second', 1000 / $drawn['frame']),
    );
};
foreach (array_intersect($parts, $only) as $part) {
    // Meshes are the same ones, whatever sizes are asked for.
    foreach ($part === 'simplify' ? ['demo'] : $sizes as $size) {
        $rows->part($part, $size, $run[$part]);
    }
}
$rows->growth();
$rows->noise();
exit($rows->finish());
